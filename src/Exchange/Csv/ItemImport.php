<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** Items, new or changed; an empty cell leaves a known item's value as it is. */
final readonly class ItemImport implements ImportKind
{
    public function __construct(private Connection $connection, private Codes $codes, private WhatMoved $moved)
    {
    }

    public function name(): string
    {
        return 'items';
    }

    public function title(): string
    {
        return 'Items';
    }

    public function columns(): array
    {
        return [
            'code' => 'item code *',
            'name' => 'what it is *',
            'category' => 'group it belongs to',
            'unit' => 'stock unit, UN/ECE code: EA, KGM, LTR, MTR, PR, SET *',
            'gtin' => '8, 12, 13 or 14 digits',
            'sold' => 'no for what is used and not sold',
            'sales_price' => 'of one unit',
            'weight_kg' => 'of one unit',
            'lots' => 'yes when kept by lot',
            'service' => 'its own service level, 0.5 to 0.999; empty for that of its class',
            'staple' => 'yes when never to be without',
            'shelf_days' => 'days it keeps',
            'average_cost' => 'of one unit, until its first receipt',
            'sites' => 'site codes that stock it, with blanks between',
        ];
    }

    public function sample(): array
    {
        return [
            [
                'JAR-340R',
                'Round honey jar 340 g',
                'Jars and lids',
                'EA',
                '',
                'yes',
                '0.90',
                '0.205',
                'no',
                '0.97',
                'yes',
                '',
                '0.64',
                'DEPOT FERRY',
            ],
            [
                'FEED-SUG',
                'Fine feeding sugar',
                'Feed',
                'KGM',
                '',
                'yes',
                '1.20',
                '1',
                'no',
                '',
                'no',
                '365',
                '0.86',
                'DEPOT',
            ],
        ];
    }

    public function reader(): callable
    {
        $sites = $this->codes->sites();
        $known = $this->codes->items();
        /** @var array<string, string> $gtins */
        $gtins = $this->connection->fetchAllKeyValue('SELECT gtin, UPPER(code) FROM item WHERE gtin IS NOT NULL');
        /** @var array<string, string> $units */
        $units = $this->connection->fetchAllKeyValue('SELECT UPPER(code), unit FROM item');
        $seen = [];

        return static function (Row $row) use ($sites, $known, &$gtins, $units, &$seen): ?array {
            $code = $row->required('code', 40);
            $upper = strtoupper($code);
            if (isset($seen[$upper])) {
                $row->refuse('code', sprintf('stands in line %d already', $seen[$upper]));
            }
            $seen[$upper] = $row->line;
            $new = !isset($known[$upper]);
            $name = $new ? $row->required('name', 160) : $row->text('name', 160);
            $unit =
                $new || $row->has('unit')
                    ? $row->attempt('unit', static fn (): Unit => Unit::fromCode($row->required('unit')))
                    : null;
            if (null !== $unit && isset($units[$upper]) && $units[$upper] !== $unit->value) {
                $row->refuse('unit', sprintf('the item is kept in %s; its unit cannot change', $units[$upper]));
            }
            $gtin = $row->has('gtin') ? $row->attempt(
                'gtin',
                static fn (): Gtin => Gtin::of($row->text('gtin')),
            ) : null;
            if (null !== $gtin) {
                if (($gtins[$gtin->digits] ?? $upper) !== $upper) {
                    $row->refuse('gtin', 'belongs to '.$gtins[$gtin->digits]);
                }
                $gtins[$gtin->digits] = $upper;
            }
            $service = $row->decimal('service');
            if (null !== $service && ($service->isLessThan('0.5') || $service->isGreaterThan('0.999'))) {
                $row->refuse('service', 'out of range; expected 0.5 to 0.999');
            }
            $shelf = $row->decimal('shelf_days', 0);
            if (null !== $shelf && ($shelf->isLessThan(1) || $shelf->isGreaterThan(9999))) {
                $row->refuse('shelf_days', 'out of range; expected 1 to 9999');
            }
            $price = $row->decimal('sales_price', 2);
            $weight = $row->decimal('weight_kg');
            $cost = $row->decimal('average_cost', 6);
            $stockedAt = [];
            foreach (
                array_filter(explode(' ', $row->text('sites')), static fn (string $site): bool => '' !== $site) as $site
            ) {
                if (!isset($sites[strtoupper($site)])) {
                    $row->refuse('sites', sprintf('no such site: %s', $site));
                } else {
                    $stockedAt[] = $sites[strtoupper($site)];
                }
            }
            $flags = [
                $row->has('sold') ? $row->yes('sold', true) : null,
                $row->has('lots') ? $row->yes('lots', false) : null,
            ];

            return $row->isGood()
                ? [
                    [
                        $code,
                        $name,
                        $row->text('category', 60),
                        $unit?->value,
                        $gtin?->digits,
                        $flags[0],
                        $price?->toString(),
                        $weight?->toString(),
                        $flags[1],
                        $service?->toString(),
                        $cost?->toString(),
                        $row->has('staple') ? $row->yes('staple', false) : null,
                        $shelf?->toInt(),
                    ],
                    $stockedAt,
                ]
                : null;
        };
    }

    public function apply(iterable $rows, Person $person): void
    {
        $stocked = [];
        $known = $this->codes->items();
        $updates = $inserts = [];
        /** @var array{list<scalar|null>, list<int>} $row */
        foreach ($rows as $row) {
            [$values, $sites] = $row;
            if (isset($known[strtoupper((string) $values[0])])) {
                $updates[] = $values;
            } else {
                $inserts[] = $values;
            }
            $stocked[(string) $values[0]] = $sites;
        }
        $new = new BulkInsert($this->connection, 'item', [
            'code',
            'name',
            'category',
            'unit',
            'gtin',
            'sold',
            'sales_price',
            'weight_kg',
            'lot_tracked',
            'service',
            'average_cost',
            'standard_cost',
            'version',
            'staple',
            'shelf_days',
        ]);
        foreach ($inserts as $values) {
            $new->add(
                $values[0],
                $values[1],
                $values[2] ?? '',
                $values[3],
                $values[4],
                $values[5] ?? true,
                $values[6],
                $values[7],
                $values[8] ?? false,
                $values[9],
                $values[10],
                $values[10],
                1,
                $values[11] ?? false,
                $values[12],
            );
        }
        $new->flush();
        foreach ($updates as $values) {
            $this->connection->executeStatement(
                "UPDATE item SET name = COALESCE(NULLIF(?, ''), name), category = COALESCE(NULLIF(?, ''), category),
                    gtin = COALESCE(?, gtin), sold = COALESCE(?, sold), sales_price = COALESCE(?, sales_price),
                    weight_kg = COALESCE(?, weight_kg), lot_tracked = COALESCE(?, lot_tracked), service = COALESCE(?,
                    service), average_cost = IF(EXISTS (SELECT 1 FROM
                    stock_movement m WHERE m.item_id = item.id AND m.kind = 'receipt'), average_cost,
                    COALESCE(?, average_cost)), staple = COALESCE(?, staple),
                    shelf_days = COALESCE(?, shelf_days), version = version + 1 WHERE code = ?",
                [
                    $values[1],
                    $values[2],
                    $values[4],
                    self::bit($values[5]),
                    $values[6],
                    $values[7],
                    self::bit($values[8]),
                    $values[9],
                    $values[10],
                    self::bit($values[11]),
                    $values[12],
                    $values[0],
                ],
            );
        }
        $ids = $this->codes->items();
        $places = new BulkInsert(
            $this->connection,
            'stocking',
            ['item_id', 'site_id'],
            ' ON DUPLICATE KEY UPDATE site_id = VALUES(site_id)',
        );
        foreach ($stocked as $code => $sites) {
            foreach ($sites as $site) {
                $places->add($ids[strtoupper($code)], $site);
            }
        }
        $places->flush();
        $this->moved->note(
            array_map(static fn (int|string $code): int => $ids[strtoupper((string) $code)], array_keys($stocked)),
        );
    }

    private static function bit(mixed $flag): ?int
    {
        return null === $flag ? null : (int) (bool) $flag;
    }
}
