<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** Sales by day: the history planning rests on. It does not move stock. */
final readonly class SalesImport implements ImportKind
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
        return 'sales';
    }

    public function title(): string
    {
        return 'Sales by day';
    }

    public function columns(): array
    {
        return [
            'item' => 'item code *',
            'site' => 'site code *',
            'day' => 'as 2026-11-30 *',
            'quantity' => 'stock units sold; below zero for returns *',
            'out_of_stock' => 'yes when nothing was on the shelf that day',
        ];
    }

    public function sample(): array
    {
        return [['JAR-340R', 'FERRY', '2026-11-20', '36', 'no'], ['JAR-340R', 'FERRY', '2026-11-21', '0', 'yes']];
    }

    public function reader(): callable
    {
        $items = $this->codes->items();
        $sites = $this->codes->sites();
        $today = $this->clock->now()->format('Y-m-d');
        $seen = [];

        return static function (Row $row) use ($items, $sites, $today, &$seen): ?array {
            $item = $row->code('item', $items, 'item');
            $site = $row->code('site', $sites, 'site');
            $day = $row->day('day');
            $quantity = $row->decimal('quantity', 3, true);
            $out = $row->yes('out_of_stock', false);
            if (null === $day && !$row->has('day')) {
                $row->refuse('day', 'missing');
            }
            if (null === $quantity && !$row->has('quantity')) {
                $row->refuse('quantity', 'missing');
            }
            if (null !== $day && $day->format('Y-m-d') > $today) {
                $row->refuse('day', 'in the future');
            }
            if (!$row->isGood() || null === $day || null === $quantity) {
                return null;
            }
            $key = $item.':'.$site.':'.$day->format('Ymd');
            if (isset($seen[$key])) {
                $row->refuse('day', sprintf('the same item, site and day stand in line %d already', $seen[$key]));

                return null;
            }
            $seen[$key] = $row->line;

            return [$item, $site, $day->format('Y-m-d'), (string) $quantity, $out];
        };
    }

    public function all(): iterable
    {
        /** @var array{item: string, site: string, day: string, quantity: string, out_of_stock: int} $row */
        foreach (
            $this->connection->iterateAssociative(
                'SELECT i.code item, s.code site, d.day, d.quantity, d.out_of_stock FROM sales_day d
                 JOIN item i ON i.id = d.item_id JOIN site s ON s.id = d.site_id ORDER BY d.item_id, d.site_id, d.day',
            ) as $row
        ) {
            yield [
                $row['item'], $row['site'], $row['day'], Cell::number($row['quantity']),
                Cell::yes($row['out_of_stock']),
            ];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        $sales = new BulkInsert(
            $this->connection,
            'sales_day',
            ['item_id', 'site_id', 'day', 'quantity', 'out_of_stock'],
            ' ON DUPLICATE KEY UPDATE quantity = VALUES(quantity), out_of_stock = VALUES(out_of_stock)',
        );
        $items = [];
        /** @var array{int, int, string, string, bool} $row */
        foreach ($rows as $row) {
            $sales->add(...$row);
            $items[$row[0]] = true;
        }
        $sales->flush();
        $this->moved->note(array_keys($items));
    }
}
