<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/**
 * Planned demand: what a fair, a school or a club will take on a day. The same need brought again replaces the one
 * there.
 */
final readonly class PlansImport implements ImportKind
{
    public function __construct(
        private Connection $connection,
        private Codes $codes,
        private WhatMoved $moved,
        private ClockInterface $clock,
    ) {
    }

    public function name(): string
    {
        return 'plans';
    }

    public function title(): string
    {
        return 'Planned demand';
    }

    public function columns(): array
    {
        return [
            'name' => 'what it is for *',
            'day' => 'wanted on, as 2026-11-30 *',
            'item' => 'item code *',
            'site' => 'site code *',
            'quantity' => 'stock units *',
        ];
    }

    public function sample(): array
    {
        return [
            ['Advent market', '2026-11-28', 'JAR-340R', 'FERRY', '240'],
            ['Advent market', '2026-11-28', 'LID-63G', 'FERRY', '240'],
        ];
    }

    public function reader(): callable
    {
        $items = $this->codes->items();
        $sites = $this->codes->sites();
        $today = $this->clock->now()->format('Y-m-d');
        /** @var array<string, int> $stocked */
        $stocked = $this->connection->fetchAllKeyValue("SELECT CONCAT(item_id, ':', site_id), 1 FROM stocking");
        $seen = [];

        return static function (Row $row) use ($items, $sites, $today, $stocked, &$seen): ?array {
            $name = $row->required('name', 80);
            $item = $row->code('item', $items, 'item');
            $site = $row->code('site', $sites, 'site');
            $day = $row->day('day');
            $quantity = $row->decimal('quantity', 3);
            foreach (['day', 'quantity'] as $column) {
                if (!$row->has($column)) {
                    $row->refuse($column, 'missing');
                }
            }
            if (null !== $day && $day->format('Y-m-d') < $today) {
                $row->refuse('day', 'in the past');
            }
            if (null !== $quantity && !$quantity->isPositive()) {
                $row->refuse('quantity', 'not above zero');
            }
            if (null !== $item && null !== $site && !isset($stocked[$item.':'.$site])) {
                $row->refuse('site', 'does not stock this item');
            }
            $key = sprintf('%s:%s:%s:%s', $name, $item, $site, $day?->format('Ymd'));
            if (isset($seen[$key])) {
                $row->refuse('item', sprintf('the same need stands in line %d already', $seen[$key]));
            }
            $seen[$key] = $row->line;

            return $row->isGood() && null !== $day && null !== $quantity
                ? [$item, $site, $day->format('Y-m-d'), (string) $quantity, $name]
                : null;
        };
    }

    public function all(): iterable
    {
        /** @var array{name: string, day: string, item: string, site: string, quantity: string} $row */
        foreach (
            $this->connection->iterateAssociative(
                'SELECT n.name, n.day, i.code item, s.code site, n.quantity FROM planned_demand n
                 JOIN item i ON i.id = n.item_id JOIN site s ON s.id = n.site_id WHERE n.day >= ? ORDER BY n.day, n.id',
                [$this->clock->now()->format('Y-m-d')],
            ) as $row
        ) {
            yield [$row['name'], $row['day'], $row['item'], $row['site'], Cell::number($row['quantity'])];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        $needs = new BulkInsert($this->connection, 'planned_demand', [
            'item_id',
            'site_id',
            'day',
            'quantity',
            'name',
            'by_id',
        ]);
        $items = [];
        /** @var array{int, int, string, string, string} $row */
        foreach ($rows as $row) {
            $items[$row[0]] = true;
            $this->connection->executeStatement(
                'DELETE FROM planned_demand WHERE item_id = ? AND site_id = ? AND day = ? AND name = ?',
                [$row[0], $row[1], $row[2], $row[4]],
            );
            $needs->add(...[...$row, $person->id]);
        }
        $needs->flush();
        $this->moved->note(array_keys($items));
    }
}
