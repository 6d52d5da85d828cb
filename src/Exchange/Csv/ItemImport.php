<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Country;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Item\Categories;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemPack;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Stock\CostHistory;

/** Items, new or changed; an empty cell leaves a known item's value as it is. Fields of our own are columns too. */
final readonly class ItemImport implements ImportKind
{
    /** What is taken over as it is read, by our column. */
    private const PLAIN = [
        'further_names' => 'further_names',
        'category' => 'category',
        'unit' => 'unit',
        'gtin' => 'gtin',
        'sold' => 'sold',
        'stocked' => 'stocked',
        'sales_price' => 'sales_price',
        'weight_kg' => 'weight_kg',
        'volume' => 'volume',
        'lots' => 'lot_tracked',
        'service' => 'service',
        'staple' => 'staple',
        'shelf_days' => 'shelf_days',
        'standard_cost' => 'standard_cost',
        'customs_number' => 'customs_number',
        'origin' => 'origin',
        'caution' => 'caution',
        'notes' => 'notes',
        'price_group' => 'price_group',
        'tax_rate' => 'tax_name',
        'lot_details' => 'lot_details',
        'serials' => 'serials',
        'inspection' => 'inspection',
        'quality_limit' => 'quality_limit',
        'measured' => 'measured',
    ];
    /** What a new item begins with where nothing is said. */
    private const BEGIN = [
        'further_names' => '', 'category' => '', 'sold' => 1, 'stocked' => 1, 'lot_tracked' => 0, 'staple' => 0,
        'customs_number' => '', 'origin' => '', 'caution' => '', 'notes' => '', 'price_group' => '', 'tax_name' => '',
        'lot_details' => 'never', 'serials' => 0, 'inspection' => 'never', 'quality_limit' => '1.5',
        'measured' => 0,
    ];

    public function __construct(
        private Connection $connection,
        private Codes $codes,
        private CostHistory $costs,
        private WhatMoved $moved,
        private Categories $categories,
        private OwnColumns $own,
    ) {
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
            'further_names' => 'other names to find it by',
            'stocked' => 'no for services and expenses',
            'standard_cost' => 'of one unit; a new item begins with its average cost',
            'volume' => 'litres of one unit',
            'packs' => 'other units, with a decimal point: box=12 case=144/05901234123457',
            'customs_number' => '6 to 14 digits',
            'origin' => 'country, as IE',
            'caution' => 'shown when ordering',
            'notes' => 'for ourselves',
            'price_group' => 'items that prices are agreed for together',
            'tax_rate' => 'one of our rates by name',
            'lot_details' => 'use by is asked: never, new (for new lots), always',
            'serials' => 'yes when each piece has a number',
            'inspection' => 'when it comes in: never, dock, sample, fewer, all',
            'quality_limit' => 'percent that may be bad, of a sample: '.implode(' ', SamplingPlan::LIMITS),
            'measured' => 'yes when its temperature is measured when it comes',
        ] + $this->own->columns(OwnFieldThing::Item);
    }

    public function sample(): array
    {
        $blank = array_fill(0, count($this->own->columns(OwnFieldThing::Item)), '');

        return [
            [
                'JAR-340R', 'Round honey jar 340 g', 'Jars and lids', 'EA', '', 'yes', '0.90', '0.205', 'no', '0.97',
                'yes',
                '', '0.64', 'DEPOT FERRY', 'one-pound jar', 'yes', '', '0.36', 'case=12', '7010904500', 'CZ', '', '',
                'Glass', '', '', '', '', '', '', ...$blank,
            ],
            [
                'FEED-SUG', 'Fine feeding sugar', 'Feed', 'KGM', '', 'yes', '1.20', '1', 'no', '', 'no', '365', '0.86',
                'DEPOT', '', 'yes', '', '', '', '', '', '', '', '', '', '', '', '', '', '', ...$blank,
            ],
        ];
    }

    public function reader(): callable
    {
        $sites = $this->codes->sites();
        $known = $this->codes->items();
        /** @var array<string, string> $gtins */
        $gtins = $this->connection->fetchAllKeyValue(
            'SELECT gtin, UPPER(code) FROM item WHERE gtin IS NOT NULL UNION ALL
             SELECT p.gtin, UPPER(i.code) FROM item_pack p JOIN item i ON i.id = p.item_id WHERE p.gtin IS NOT NULL',
        );
        /** @var array<string, string> $units */
        $units = $this->connection->fetchAllKeyValue('SELECT UPPER(code), unit FROM item');
        $own = $this->own->byColumn(OwnFieldThing::Item);
        $taxes = $this->codes->taxes();
        $seen = [];

        return static function (Row $row) use (
            $sites,
            $known,
            &$gtins,
            $units,
            $own,
            $taxes,
            &$seen,
        ): ?array {
            $code = (string) $row->attempt('code', static fn (): string => '' === $row->required('code')
                ? ''
                : ItemCode::read($row->text('code', 200)));
            $upper = mb_strtoupper($code);
            if ('' !== $code && isset($seen[$upper])) {
                $row->refuse('code', sprintf('stands in line %d already', $seen[$upper]));
            }
            $seen[$upper] = $row->line;
            $new = !isset($known[$upper]);
            $name = $new ? $row->required('name', 160) : $row->text('name', 160);
            $unit =
                $new || $row->has('unit')
                    ? $row->attempt('unit', static fn (): Unit => Unit::fromText($row->required('unit')))
                    : null;
            if (null !== $unit && isset($units[$upper]) && $units[$upper] !== $unit->value) {
                $row->refuse('unit', sprintf('the item is kept in %s; its page says how that changes', $units[$upper]));
            }
            $take = static function (string $column, Gtin $gtin) use (&$gtins, $upper, $row): string {
                if (($gtins[$gtin->digits] ?? $upper) !== $upper) {
                    $row->refuse($column, 'belongs to '.$gtins[$gtin->digits]);
                }
                $gtins[$gtin->digits] = $upper;

                return $gtin->digits;
            };
            $gtin = $row->has('gtin')
                ? $row->attempt('gtin', static fn (): string => $take('gtin', Gtin::of($row->text('gtin'))))
                : null;
            $service = $row->decimal('service');
            if (null !== $service && ($service->isLessThan('0.5') || $service->isGreaterThan('0.999'))) {
                $row->refuse('service', 'out of range; expected 0.5 to 0.999');
            }
            $stockedAt = [];
            foreach (preg_split('/[\s,;]+/', $row->text('sites', 400), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $site) {
                if (!isset($sites[strtoupper($site)])) {
                    $row->refuse('sites', sprintf('no such site: %s', $site));
                } else {
                    $stockedAt[] = $sites[strtoupper($site)];
                }
            }
            $flag = static fn (string $column): ?int => $row->has($column) ? (int) $row->yes($column, false) : null;
            $text = static fn (string $column, int $longest): ?string => $row->has($column)
                ? $row->text($column, $longest)
                : null;
            $values = [
                'further_names' => $text('further_names', 300),
                'category' => $text('category', 60),
                'unit' => $unit?->value,
                'gtin' => $gtin,
                'sold' => $flag('sold'),
                'stocked' => $flag('stocked'),
                'sales_price' => $row->decimal('sales_price', 2)?->toString(),
                'weight_kg' => $row->decimal('weight_kg')?->toString(),
                'volume' => $row->decimal('volume')?->toString(),
                'lots' => $flag('lots'),
                'service' => $service?->toString(),
                'staple' => $flag('staple'),
                'shelf_days' => $row->integer('shelf_days', 1, 9999),
                'standard_cost' => $row->decimal('standard_cost', 6)?->toString(),
                'customs_number' => $row->has('customs_number') ? $row->attempt('customs_number',
                    static fn (): string => Item::readCustomsNumber($row->text('customs_number', 30))) : null,
                'origin' => $row->has('origin')
                    ? $row->attempt('origin', static fn (): string => Country::read($row->text('origin')))
                    : null,
                'caution' => $text('caution', 300),
                'notes' => $text('notes', 2000),
                'price_group' => $text('price_group', 40),
                'tax_rate' => Codes::taxName($row, $taxes),
                'lot_details' => self::oneOf($row, 'lot_details', array_column(LotDetails::cases(), 'value')),
                'serials' => $flag('serials'),
                'inspection' => self::oneOf($row, 'inspection', array_column(InspectionRule::cases(), 'value')),
                'quality_limit' => self::oneOf($row, 'quality_limit', SamplingPlan::LIMITS),
                'measured' => $flag('measured'),
            ];
            $cost = $row->decimal('average_cost', 6)?->toString();
            $packs = self::packs($row, $take);
            $ours = OwnColumns::read($row, $own);

            return $row->isGood() ? [$code, $name, $values, $cost, $stockedAt, $packs, $ours] : null;
        };
    }

    /**
     * @param list<string> $choices
     *
     * @return string|null null where nothing is said
     */
    private static function oneOf(Row $row, string $column, array $choices): ?string
    {
        if (!$row->has($column)) {
            return null;
        }
        $said = mb_strtolower($row->text($column, 20));
        if (!in_array($said, $choices, true)) {
            $row->refuse($column, 'expected one of '.implode(', ', $choices));
        }

        return $said;
    }

    /**
     * @param callable(string, Gtin): string $take takes a GTIN for this item
     *
     * @return list<array{string, string, string|null}>|null name, stock units, GTIN; null where nothing is said
     */
    private static function packs(Row $row, callable $take): ?array
    {
        if (!$row->has('packs')) {
            return null;
        }
        $packs = [];
        // A name may have blanks in it, what it holds has none: each pack ends behind its figure or its GTIN.
        $text = $row->text('packs', 1000);
        $one = '/\G[\s;]*([^=;]+?)\s*=\s*([\d.]+)(?:\/(\d+))?(?=[\s;]|$)/u';
        $rest = preg_replace($one, '', $text);
        if ('' !== trim((string) $rest, " \t\n\r;")) {
            $row->refuse('packs', sprintf('“%s” is no pack such as box=12 or roll=2.5', trim((string) $rest)));

            return [];
        }
        preg_match_all($one, $text, $all, \PREG_SET_ORDER);
        foreach ($all as $parts) {
            $row->attempt('packs', static function () use ($parts, $take, &$packs): void {
                if (mb_strlen($parts[1]) > ItemPack::LONGEST) {
                    throw InvalidValue::because(
                        sprintf('“%s” is longer than %d characters', $parts[1], ItemPack::LONGEST),
                    );
                }
                $units = Numerals::with(Numerals::POINT)->quantity($parts[2]);
                if (!$units->isPositive()) {
                    throw InvalidValue::because(sprintf('“%s” holds nothing', $parts[1]));
                }
                $gtin = '' === ($parts[3] ?? '') ? null : $take('packs', Gtin::of($parts[3]));
                $packs[mb_strtolower($parts[1])] = [$parts[1], $units->toString(), $gtin];
            });
        }

        return array_values($packs);
    }

    public function apply(iterable $rows, Person $person): void
    {
        $known = $this->codes->items();
        $inserts = $places = $packs = $ours = [];
        $insert = new BulkInsert($this->connection, 'item', [
            'code', 'name', ...array_values(self::PLAIN), 'average_cost', 'version',
        ]);
        /** @var array{string, string, array<string, scalar|null>, string|null, list<int>,
         * list<array{string, string, string|null}>|null, array<int, string>} $row */
        foreach ($rows as $row) {
            [$code, $name, $values, $cost] = $row;
            if (isset($known[mb_strtoupper($code)])) {
                $this->update($known[mb_strtoupper($code)], $name, $values, $cost);
            } else {
                $inserts[] = $code;
                $values['standard_cost'] ??= $cost;
                $cells = [];
                foreach (self::PLAIN as $column => $field) {
                    $cells[] = $values[$column] ?? self::BEGIN[$field] ?? null;
                }
                $insert->add($code, $name, ...$cells, ...[$cost, 1]);
            }
            [$places[$code], $packs[$code], $ours[$code]] = [$row[4], $row[5], $row[6]];
        }
        $insert->flush();
        $this->categories->knowAll();
        $ids = [] === $inserts ? $known : $this->codes->items();
        $this->stock($places, $ids);
        $this->pack($packs, $ids);
        $this->own->put(OwnFieldThing::Item, $ours, $ids);
        $touched = array_map(
            static fn (int|string $code): int => $ids[mb_strtoupper((string) $code)],
            array_keys($places),
        );
        $this->costs->note($touched);
        $this->moved->note($touched);
    }

    /** @param array<string, scalar|null> $values by column; null leaves what is there */
    private function update(int $id, string $name, array $values, ?string $cost): void
    {
        $set = ['version = version + 1'];
        $params = [];
        foreach (['name' => '' === $name ? null : $name] as $field => $value) {
            if (null !== $value) {
                $set[] = $field.' = ?';
                $params[] = $value;
            }
        }
        foreach (self::PLAIN as $column => $field) {
            if (null !== $values[$column]) {
                $set[] = $field.' = ?';
                $params[] = $values[$column];
            }
        }
        if (null !== $cost) {
            // What receipts came to is not overwritten.
            $set[] = "average_cost = IF(EXISTS (SELECT 1 FROM stock_movement m WHERE m.item_id = item.id
                AND m.kind = 'receipt'), average_cost, ?)";
            $params[] = $cost;
        }
        $this->connection->executeStatement(
            'UPDATE item SET '.implode(', ', $set).' WHERE id = ?',
            [...$params, $id],
        );
    }

    /**
     * @param array<string, list<int>> $places sites by item code
     * @param array<string, int>       $ids
     */
    private function stock(array $places, array $ids): void
    {
        $rows = new BulkInsert(
            $this->connection,
            'stocking',
            ['item_id', 'site_id'],
            ' ON DUPLICATE KEY UPDATE site_id = VALUES(site_id)',
        );
        foreach ($places as $code => $sites) {
            foreach ($sites as $site) {
                $rows->add($ids[mb_strtoupper((string) $code)], $site);
            }
        }
        $rows->flush();
    }

    /**
     * @param array<string, list<array{string, string, string|null}>|null> $packs by item code
     * @param array<string, int>                                           $ids
     */
    private function pack(array $packs, array $ids): void
    {
        $rows = new BulkInsert(
            $this->connection,
            'item_pack',
            ['item_id', 'name', 'quantity', 'gtin'],
            ' ON DUPLICATE KEY UPDATE quantity = VALUES(quantity), gtin = VALUES(gtin)',
        );
        foreach ($packs as $code => $some) {
            foreach ($some ?? [] as $pack) {
                $rows->add($ids[mb_strtoupper((string) $code)], ...$pack);
            }
        }
        $rows->flush();
    }

    public function all(): iterable
    {
        $own = array_values($this->own->byColumn(OwnFieldThing::Item));
        /** @var array<string, string> $values */
        $values = $this->connection->fetchAllKeyValue(
            "SELECT CONCAT(v.thing, ':', v.field_id), v.content FROM own_value v JOIN own_field f ON f.id = v.field_id
             WHERE f.thing = 'item'",
        );
        /** @var array<string, scalar|null> $row */
        foreach (
            $this->connection->iterateAssociative(
                "SELECT i.*, (SELECT GROUP_CONCAT(s.code ORDER BY s.id SEPARATOR ' ') FROM stocking t
                    JOIN site s ON s.id = t.site_id WHERE t.item_id = i.id) places,
                    (SELECT GROUP_CONCAT(CONCAT(p.name, '=', TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM p.quantity)),
                        IF(p.gtin IS NULL, '', CONCAT('/', p.gtin))) ORDER BY p.id SEPARATOR ' ')
                     FROM item_pack p WHERE p.item_id = i.id) packs
                 FROM item i WHERE i.archived_on IS NULL ORDER BY i.code",
            ) as $row
        ) {
            $text = static fn (string $column): string => (string) $row[$column];
            $number = static fn (string $column): string => Cell::number(null === $row[$column] ? null
                : $text($column));
            yield [
                $text('code'), $text('name'), $text('category'), $text('unit'),
                null === $row['gtin'] ? '' : Gtin::of($text('gtin'))->short(),
                Cell::yes($row['sold']), $number('sales_price'), $number('weight_kg'), Cell::yes($row['lot_tracked']),
                $number('service'), Cell::yes($row['staple']), $text('shelf_days'), $number('average_cost'),
                $text('places'), $text('further_names'), Cell::yes($row['stocked']), $number('standard_cost'),
                $number('volume'), $text('packs'), $text('customs_number'), $text('origin'), $text('caution'),
                $text('notes'), $text('price_group'), $text('tax_name'), $text('lot_details'),
                Cell::yes($row['serials']),
                $text('inspection'), $text('quality_limit'), Cell::yes($row['measured']),
                ...array_map(
                    static fn (OwnField $field): string => $values[$text('id').':'.$field->id] ?? '',
                    $own,
                ),
            ];
        }
    }
}
