<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\Gtins;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemPack;
use TallBarrel\Store\Item\ItemUses;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** An item is added, described anew, given up or taken up again: all of it, or nothing. */
final readonly class KeepItem
{
    private const PICTURE_WIDEST = 900;

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Categories $categories,
        private Gtins $gtins,
        private ItemUses $uses,
        private DrawPicture $draw,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what stands in the way, by field; nothing is saved then */
    public function add(ItemDetails $details, Person $by, Problems $problems): ?Item
    {
        $code = $this->freeCode($details->code, null, $problems);
        $item = $problems->attempt(
            'name',
            static fn (): Item => new Item($code ?? '?', $details->name, $details->category, $details->unit),
        );
        if (null === $item) {
            return null;
        }
        $this->describe($item, $details, $problems);
        if (!$problems->areNone()) {
            return null;
        }

        return $this->save($item, $details, $by, 'Added', $problems);
    }

    /** @param int $version of the item when it was looked at */
    public function change(Item $item, ItemDetails $details, int $version, Person $by, Problems $problems): void
    {
        if ($version !== $item->version()) {
            $problems->refuse(
                '',
                'Somebody changed this item while you were typing. Your entries are still in the fields; look at them '
                .'once more and save again.',
            );

            return;
        }
        $this->freeCode($details->code, $item, $problems);
        $this->describe($item, $details, $problems);
        if ($details->unit !== $item->unit && $this->uses->isBooked($item->id)) {
            $problems->refuse('unit', sprintf(
                'Something is booked in %s already. “Count it in another unit” at the foot of the page says by how '
                    .'much.',
                $item->unit->symbol(),
            ));
        }
        if (!$problems->areNone()) {
            $this->entities->refresh($item);

            return;
        }
        $this->save($item, $details, $by, 'Described anew', $problems);
        // Code and unit are changed behind the entity, which never changes them itself.
        $this->entities->clear();
    }

    /** @throws Refused while it is on its way, or promised */
    public function archive(Item $item, Person $by): void
    {
        $open = $this->uses->open($item->id);
        if ([] !== $open) {
            throw new Refused(sprintf('%s is still in %s; finish that first.', $item->code, implode(', ', $open)));
        }
        $this->whole->take(function () use ($item, $by): void {
            $item->archive($this->clock->now()->setTime(0, 0));
            $this->audit->note($by, 'item '.$item->code, 'Archived');
        });
    }

    public function takeUp(Item $item, Person $by): void
    {
        $this->whole->take(function () use ($item, $by): void {
            $item->archive(null);
            $this->audit->note($by, 'item '.$item->code, 'Taken up again');
        });
    }

    /** @throws Refused if it was ever used; then it can only be archived */
    public function delete(Item $item, Person $by): void
    {
        if ($this->uses->isUsed($item->id)) {
            throw new Refused(sprintf('%s was used already, so it is archived and not deleted.', $item->code));
        }
        $this->whole->take(function () use ($item, $by): void {
            foreach (['stocking', 'proposal', 'item_policy', 'site_policy', 'moved_item', 'put_off'] as $table) {
                $this->connection->executeStatement('DELETE FROM '.$table.' WHERE item_id = ?', [$item->id]);
            }
            $this->audit->note($by, 'item '.$item->code, 'Deleted; it was never used');
            $this->entities->remove($item);
        });
    }

    private function freeCode(string $typed, ?Item $known, Problems $problems): ?string
    {
        $code = $problems->attempt('code', static fn (): string => ItemCode::read($typed));
        $other = null === $code
            ? null
            : $this->entities->getRepository(Item::class)->findOneBy(['code' => $code]);
        if (null !== $other && $other !== $known) {
            $problems->refuse('code', sprintf('%s is %s already.', $other->code, $other->name()));
        }

        return $code;
    }

    private function describe(Item $item, ItemDetails $details, Problems $problems): void
    {
        $problems->apply('name', static fn () => $item->describe($details->name, $details->category));
        $item->isAlsoCalled($details->furtherNames);
        $item->sell(ItemDetails::SOLD === $details->sort, $details->salesPrice);
        $item->stock(ItemDetails::SERVICE !== $details->sort);
        $item->measure($details->weight, $details->lots);
        $problems->apply('volume', static fn () => $item->takesUp($details->volume));
        $problems->apply('shelf', static fn () => $item->keep($details->staple, $details->shelfDays));
        $problems->apply(
            'origin',
            static fn () => $item->crossesBorders($details->customsNumber, $details->origin),
        );
        $item->costs($item->averageCost(), $details->standardCost);
        $problems->apply('serials', static fn () => $item->isReceived(
            $details->lotDetails,
            $details->serials,
            $details->inspection,
            $details->qualityLimit,
        ));
        $item->isMeasuredWhenItComes($details->measured);
        $item->isLookedAt($details->inspectionLevel, $details->lookAt);
        $item->belongTo($details->priceGroup);
        $item->isTaxedBy($details->taxName);
        $item->remember($details->caution, $details->notes);
        $gtin = '' === trim($details->gtin)
            ? null
            : $problems->attempt('gtin', fn (): Gtin => $this->free(Gtin::of($details->gtin), $item));
        $item->mark($gtin);
        $names = $gtins = [];
        foreach ($details->packs as $i => $pack) {
            $problems->apply('pack-'.$i, function () use ($pack, $item, &$names, &$gtins, $gtin): void {
                if (isset($names[mb_strtolower($pack->name)])) {
                    throw InvalidValue::because(sprintf('There are two packs called “%s”.', $pack->name));
                }
                $names[mb_strtolower($pack->name)] = true;
                if (null !== $pack->gtin) {
                    if (isset($gtins[$pack->gtin->digits]) || $gtin?->digits === $pack->gtin->digits) {
                        throw InvalidValue::because(
                            sprintf('%s stands twice; every pack has its own.', $pack->gtin->short()),
                        );
                    }
                    $gtins[$pack->gtin->digits] = true;
                    $this->free($pack->gtin, $item);
                }
                new ItemPack($item, $pack->name, $pack->quantity, $pack->gtin);
            });
        }
        if (null !== $details->picture) {
            $picture = $problems->attempt(
                'picture',
                fn () => $this->draw->draw($details->picture, self::PICTURE_WIDEST),
            );
            if (null !== $picture) {
                $this->entities->persist($picture);
                $item->show($picture);
            }
        } elseif ($details->dropPicture) {
            $item->show(null);
        }
    }

    /** @throws InvalidValue if another item has it */
    private function free(Gtin $gtin, Item $item): Gtin
    {
        $owner = $this->gtins->owner($gtin);
        if (null !== $owner && $owner !== $item->code) {
            throw InvalidValue::because(sprintf('%s belongs to %s already.', $gtin->short(), $owner));
        }

        return $gtin;
    }

    private function save(Item $item, ItemDetails $details, Person $by, string $words, Problems $problems): ?Item
    {
        try {
            return $this->whole->take(function () use ($item, $details, $by, $words): Item {
                $this->entities->persist($item);
                foreach ($item->packs() as $pack) {
                    $item->dropPack($pack);
                }
                // Gone before their names and GTINs are given out again.
                $this->entities->flush();
                foreach ($details->packs as $pack) {
                    $item->addPack(new ItemPack($item, $pack->name, $pack->quantity, $pack->gtin));
                }
                $this->entities->flush();
                $this->connection->executeStatement(
                    'UPDATE item SET code = ?, unit = ?, version = version + 1 WHERE id = ?',
                    [trim($details->code), $details->unit->value, $item->id],
                );
                $this->categories->know($item->category());
                $places = $item->isStocked() ? $details->places : [];
                $this->connection->executeStatement(
                    'DELETE FROM stocking WHERE item_id = ? AND site_id NOT IN (?)',
                    [$item->id, [0, ...array_map(static fn (ItemPlace $place): int => $place->site, $places)]],
                    [1 => ArrayParameterType::INTEGER],
                );
                foreach ($places as $place) {
                    $this->connection->executeStatement(
                        'INSERT INTO stocking (item_id, site_id, bin_id) SELECT ?, s.id, b.id FROM site s
                         LEFT JOIN bin b ON b.id = ? AND b.site_id = s.id WHERE s.id = ?
                         ON DUPLICATE KEY UPDATE bin_id = VALUES(bin_id)',
                        [$item->id, $place->bin, $place->site],
                    );
                }
                $this->moved->note([$item->id]);
                $this->audit->note($by, 'item '.$item->code, $words);

                return $item;
            });
        } catch (UniqueConstraintViolationException) {
            $problems->refuse('code', 'Somebody used this code or GTIN for another item just now.');

            return null;
        }
    }
}
