<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** What customers were promised. The same reference, item and site brought again replaces the open promise there. */
final readonly class PromisesImport implements ImportKind
{
    public function __construct(
        private Connection $connection,
        private Codes $codes,
        private WhatMoved $moved,
    ) {
    }

    public function name(): string
    {
        return 'promises';
    }

    public function title(): string
    {
        return 'Promises to customers';
    }

    public function columns(): array
    {
        return [
            'customer' => 'to whom *',
            'reference' => 'number of the sale *',
            'item' => 'item code *',
            'site' => 'site code *',
            'quantity' => 'stock units *',
            'day' => 'by when, as 2026-11-30 *',
        ];
    }

    public function sample(): array
    {
        return [['Sallow Bridge school', 'sale 2301', 'JAR-340R', 'FERRY', '48', '2026-12-11']];
    }

    public function reader(): callable
    {
        $items = $this->codes->items();
        $sites = $this->codes->sites();
        $units = $this->codes->units();
        /** @var array<int, string> $against */
        $against = [];
        /** @var array{id: int, code: string, stocked: int, archived: int} $one */
        foreach (
            $this->connection->iterateAssociative(
                'SELECT id, code, stocked, archived_on IS NOT NULL archived FROM item
                 WHERE NOT stocked OR archived_on IS NOT NULL',
            ) as $one
        ) {
            $against[$one['id']] = (string) CustomerPromise::against(
                $one['code'],
                (bool) $one['stocked'],
                (bool) $one['archived'],
            );
        }
        $seen = [];

        return static function (Row $row) use ($items, $sites, $units, $against, &$seen): ?array {
            $customer = $row->required('customer', 120);
            $reference = $row->required('reference', 40);
            $item = $row->code('item', $items, 'item');
            if (null !== $item && isset($against[$item])) {
                $row->refuse('item', $against[$item]);
            }
            $site = $row->code('site', $sites, 'site');
            $quantity = $row->decimal('quantity');
            $day = $row->day('day');
            foreach (['quantity', 'day'] as $column) {
                if (!$row->has($column)) {
                    $row->refuse($column, 'missing');
                }
            }
            if (null !== $quantity && !$quantity->isPositive()) {
                $row->refuse('quantity', 'not above zero');
            }
            if (
                null !== $quantity && null !== $item && !$units[$item]->isDivisible()
                && $quantity->strippedOfTrailingZeros()->getScale() > 0
            ) {
                $row->refuse('quantity', 'this item is counted in whole units');
            }
            $key = sprintf('%s:%s:%s', mb_strtolower($reference), $item, $site);
            if (isset($seen[$key])) {
                $row->refuse('reference', sprintf('the same promise stands in line %d already', $seen[$key]));
            }
            $seen[$key] = $row->line;

            return $row->isGood() && null !== $quantity && null !== $day
                ? [$item, $site, (string) $quantity, $day->format('Y-m-d'), $reference, $customer]
                : null;
        };
    }

    public function apply(iterable $rows, Person $person): void
    {
        $promises = new BulkInsert($this->connection, 'customer_promise', [
            'item_id', 'site_id', 'quantity', 'wanted_on', 'reference', 'customer',
        ]);
        $items = [];
        /** @var array{int, int, string, string, string, string} $row */
        foreach ($rows as $row) {
            $items[$row[0]] = true;
            $this->connection->executeStatement(
                'DELETE FROM customer_promise
                 WHERE item_id = ? AND site_id = ? AND reference = ? AND settled_on IS NULL',
                [$row[0], $row[1], $row[4]],
            );
            $promises->add(...$row);
        }
        $promises->flush();
        $this->moved->note(array_keys($items));
    }

    public function all(): iterable
    {
        /** @var array{customer: string, reference: string, item: string, site: string, quantity: string,
         * day: string} $row */
        foreach (
            $this->connection->iterateAssociative(
                'SELECT p.customer, p.reference, i.code item, s.code site, p.quantity, p.wanted_on day
                 FROM customer_promise p JOIN item i ON i.id = p.item_id JOIN site s ON s.id = p.site_id
                 WHERE p.settled_on IS NULL ORDER BY p.wanted_on, p.id',
            ) as $row
        ) {
            yield [
                $row['customer'], $row['reference'], $row['item'], $row['site'], Cell::number($row['quantity']),
                $row['day'],
            ];
        }
    }
}
