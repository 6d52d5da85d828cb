<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Category;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** A kind of items is added, renamed, put under another, joined with another, or taken out. */
final readonly class KeepCategory
{
    /** Where a category is named. */
    private const NAMED = ['item', 'order_list', 'agreement', 'category_budget', 'category_approval'];
    /** Of these there is one for each category: the other's stays. */
    private const ONE_EACH = ['category_budget', 'category_approval'];

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
    ) {
    }

    public function add(string $name, ?int $under, Person $by, Problems $problems): void
    {
        $parent = null === $under ? null : $this->entities->find(Category::class, $under);
        $problems->apply('name', function () use ($name, $parent): void {
            $this->mustBeFree($name, null);
            $this->entities->persist(new Category($name, $parent));
        });
        if ($problems->areNone()) {
            $this->audit->note($by, 'categories', 'Added '.$name);
            $this->entities->flush();
        }
    }

    /** @param string $place where in the form it stands */
    public function change(Category $category, string $name, ?int $under, Person $by, string $place,
        Problems $problems): void
    {
        $parent = null === $under ? null : $this->entities->find(Category::class, $under);
        $before = $category->name();
        $problems->apply($place, function () use ($category, $name, $parent): void {
            $this->mustBeFree($name, $category);
            $category->rename($name);
            $category->moveUnder($parent);
        });
        if (!$problems->areNone()) {
            $this->entities->refresh($category);

            return;
        }
        $this->whole->take(function () use ($category, $before, $by): void {
            $this->entities->flush();
            if ($before !== $category->name()) {
                $this->renameEverywhere($before, $category->name());
            }
            $this->audit->note($by, 'categories', sprintf('%s is %s', $before, $category->name()));
        });
    }

    /** Its items and what is part of it go over to another. */
    public function join(Category $category, Category $other, Person $by): void
    {
        if ($category === $other) {
            throw new Refused('A category cannot be joined with itself.');
        }
        for ($above = $other->parent(); null !== $above; $above = $above->parent()) {
            if ($above === $category) {
                throw new Refused(sprintf('“%s” is part of “%s”; move it out first.', $other->name(),
                    $category->name()));
            }
        }
        $this->whole->take(function () use ($category, $other, $by): void {
            $this->renameEverywhere($category->name(), $other->name());
            $this->connection->executeStatement(
                'UPDATE category SET parent_id = ? WHERE parent_id = ?',
                [$other->id, $category->id],
            );
            $this->audit->note($by, 'categories', sprintf('%s joined with %s', $category->name(), $other->name()));
            $this->entities->remove($category);
        });
    }

    /** @throws Refused while items are in it */
    public function takeOut(Category $category, Person $by): void
    {
        $items = $this->connection->fetchOne('SELECT COUNT(*) FROM item WHERE category = ?', [$category->name()]);
        $count = is_numeric($items) ? (int) $items : 0;
        if ($count > 0) {
            throw new Refused(sprintf(
                '%d items are in “%s”; join it with another category instead.',
                $count,
                $category->name(),
            ));
        }
        $this->whole->take(function () use ($category, $by): void {
            $this->connection->executeStatement(
                'UPDATE category SET parent_id = ? WHERE parent_id = ?',
                [$category->parent()?->id, $category->id],
            );
            $this->audit->note($by, 'categories', 'Taken out '.$category->name());
            $this->entities->remove($category);
        });
    }

    private function renameEverywhere(string $before, string $after): void
    {
        foreach (self::NAMED as $table) {
            $one = in_array($table, self::ONE_EACH, true);
            $this->connection->executeStatement(
                sprintf('UPDATE %s%s SET category = ? WHERE category = ?', $one ? 'IGNORE ' : '', $table),
                [$after, $before],
            );
            if ($one) {
                $this->connection->executeStatement(
                    sprintf('DELETE FROM %s WHERE category = ?', $table),
                    [$before],
                );
            }
        }
        $this->moved->noteEverything();
    }

    /** @throws InvalidValue */
    private function mustBeFree(string $name, ?Category $known): void
    {
        $other = $this->entities->getRepository(Category::class)->findOneBy(['name' => trim($name)]);
        if (null !== $other && $other !== $known) {
            throw InvalidValue::because(sprintf('There is a category “%s” already.', $other->name()));
        }
    }
}
