<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\Lots;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;

/** A stock count: what is there now. The difference to the balance becomes a movement. */
final readonly class StockImport implements ImportKind
{
    public function __construct(
        private Connection $connection,
        private Codes $codes,
        private Ledger $ledger,
        private Lots $lots,
        private WhatMoved $moved,
        private ClockInterface $clock,
    ) {
    }

    public function name(): string
    {
        return 'stock';
    }

    public function title(): string
    {
        return 'Stock counts';
    }

    public function columns(): array
    {
        return [
            'item' => 'item code *',
            'site' => 'site code *',
            'quantity' => 'stock units that are there *',
            'lot' => 'lot number, for items with lots',
            'expires' => 'use by, as 2027-01-31',
        ];
    }

    public function sample(): array
    {
        return [['JAR-340R', 'FERRY', '240', '', ''], ['MED-VS10', 'DEPOT', '36', '6K112', '2027-09-30']];
    }

    public function reader(): callable
    {
        $items = $this->codes->items();
        $sites = $this->codes->sites();
        /** @var array<int, array{id: int, unit: string, lot_tracked: int}> $facts */
        $facts = $this->connection->fetchAllAssociativeIndexed('SELECT id k, id, unit, lot_tracked FROM item');
        $seen = [];

        return static function (Row $row) use ($items, $sites, $facts, &$seen): ?array {
            $item = $row->code('item', $items, 'item');
            $site = $row->code('site', $sites, 'site');
            $quantity = $row->decimal('quantity');
            $lot = $row->text('lot', 40);
            $expires = $row->day('expires');
            if (null === $quantity && !$row->has('quantity')) {
                $row->refuse('quantity', 'missing');
            }
            if (null !== $item && null !== $quantity) {
                if ($quantity->getScale() > 0 && !Unit::from($facts[$item]['unit'])->isDivisible()) {
                    $row->refuse('quantity', 'this item is counted in whole units');
                }
                if (1 === $facts[$item]['lot_tracked'] && '' === $lot && $quantity->isPositive()) {
                    $row->refuse('lot', 'missing; this item is kept by lot');
                }
                if (0 === $facts[$item]['lot_tracked'] && '' !== $lot) {
                    $row->refuse('lot', 'this item is not kept by lot');
                }
            }
            $key = $item.':'.$site.':'.$lot;
            if (isset($seen[$key])) {
                $row->refuse('item', sprintf('counted in line %d already', $seen[$key]));
            }
            $seen[$key] = $row->line;

            return $row->isGood() && null !== $quantity
                ? [$item, $site, (string) $quantity, $lot, $expires?->format('Y-m-d')]
                : null;
        };
    }

    public function all(): iterable
    {
        /** @var array{item: string, site: string, quantity: string, lot: string, expires: string|null} $row */
        foreach (
            $this->connection->iterateAssociative(
                "SELECT i.code item, s.code site, b.quantity, b.lot, l.expires_on expires FROM stock_balance b
                 JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
                 LEFT JOIN lot l ON l.item_id = b.item_id AND l.number = b.lot
                 WHERE b.state = 'available' AND b.quantity > 0 ORDER BY i.code, s.id, b.lot",
            ) as $row
        ) {
            yield [$row['item'], $row['site'], Cell::number($row['quantity']), $row['lot'], Cell::day($row['expires'])];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        /** @var array<string, string> $held */
        $held = $this->connection->fetchAllKeyValue(
            "SELECT CONCAT(item_id, ':', site_id, ':', lot), quantity FROM stock_balance
                WHERE state = 'available' FOR UPDATE",
        );
        $today = $this->clock->now()->setTime(0, 0);
        $postings = $items = [];
        /** @var array{int, int, string, string, string|null} $row */
        foreach ($rows as $row) {
            [$item, $site, $quantity, $lot, $expires] = $row;
            $difference = BigDecimal::of($quantity)->minus($held[$item.':'.$site.':'.$lot] ?? 0);
            $this->lots->know(
                $item,
                LotFacts::of($lot, null === $expires ? null : new \DateTimeImmutable($expires)),
            );
            $items[$item] = true;
            $this->connection->executeStatement('INSERT IGNORE INTO stocking (item_id, site_id) VALUES (?, ?)', [
                $item,
                $site,
            ]);
            if (!$difference->isZero()) {
                $postings[] = new Posting(
                    $item,
                    $site,
                    MovementKind::Count,
                    $difference,
                    null,
                    $today,
                    'count by file',
                    null,
                    $lot,
                );
            }
        }
        $this->ledger->enter($postings, $person->id);
        $this->moved->note(array_keys($items));
    }
}
