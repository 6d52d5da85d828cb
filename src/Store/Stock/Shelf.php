<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\CountRhythm;
use TallBarrel\Core\Receiving\ShelfPick;
use TallBarrel\Store\Site\Site;

/** What stands at a site, in the order in which one walks past it. */
final readonly class Shelf
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * Items kept by lot, lot by lot; the others whether or not there should be any.
     *
     * @param string    $words beginning of a bin's code, or a category by its whole name; empty for all
     *
     * @param ShelfPick $pick  those alone
     *
     * @return list<ShelfRow>
     */
    public function of(Site $site, string $words, ShelfPick $pick, \DateTimeImmutable $today, int $most): array
    {
        [$condition, $values] = self::condition($pick, $today);
        /**
         * @var list<array{id: int, code: string, name: string, unit: string, bin: string|null, lot: string,
         *      stands: string|null, cost: string|null, last: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT i.id, i.code, i.name, i.unit, COALESCE(o.code, n.code) bin, COALESCE(b.lot, '') lot,
                b.quantity stands,
                COALESCE(i.average_cost, i.standard_cost) cost,
                (SELECT MAX(m.id) FROM stock_movement m WHERE m.item_id = i.id AND m.site_id = t.site_id) last
             FROM stocking t JOIN item i ON i.id = t.item_id LEFT JOIN bin n ON n.id = t.bin_id
             LEFT JOIN proposal q ON q.item_id = i.id AND q.site_id = t.site_id
             LEFT JOIN stock_balance b ON b.item_id = i.id AND b.site_id = t.site_id AND b.state = 'available'
                AND (b.lot <> '' OR i.lot_tracked = 0)
             LEFT JOIN shelf_place p ON p.item_id = i.id AND p.site_id = t.site_id
                AND p.lot = COALESCE(b.lot, '')
             LEFT JOIN bin o ON o.id = p.bin_id
             WHERE t.site_id = :site AND i.archived_on IS NULL AND (i.lot_tracked = 0 OR b.quantity <> 0)
               $condition
               AND (:words = '' OR COALESCE(o.code, n.code) LIKE :begins OR i.category = :words)
             ORDER BY COALESCE(o.code, n.code) IS NULL, COALESCE(o.code, n.code), i.name, lot LIMIT $most",
            ['site' => $site->id, 'words' => $words, 'begins' => addcslashes($words, '%_\\').'%'] + $values,
        );

        return array_map(static fn (array $row): ShelfRow => new ShelfRow(
            $row['id'],
            $row['code'],
            $row['name'],
            Unit::from($row['unit'])->symbol(),
            $row['bin'] ?? '',
            $row['lot'],
            BigDecimal::of($row['stands'] ?? 0)->strippedOfTrailingZeros(),
            BigDecimal::of($row['cost'] ?? 0),
            $row['last'] ?? 0,
        ), $rows);
    }

    /** These were counted, whether they were right or not. */
    public function counted(Site $site, \DateTimeImmutable $on, ShelfRow ...$rows): void
    {
        $this->connection->executeStatement(
            'UPDATE stocking SET counted_on = ? WHERE site_id = ? AND item_id IN (?)',
            [$on->format('Y-m-d'), $site->id, array_map(static fn (ShelfRow $row): int => $row->item, $rows)],
            [2 => ArrayParameterType::INTEGER],
        );
    }

    /** @return array{string, array<string, int|string>} */
    private static function condition(ShelfPick $pick, \DateTimeImmutable $today): array
    {
        $day = $today->format('Y-m-d');

        return match ($pick) {
            ShelfPick::All => ['', []],
            ShelfPick::Due => [
                'AND (t.counted_on IS NULL OR DATEDIFF(:today, t.counted_on) >=
                    CASE LEFT(q.class, 1) WHEN :a THEN :aDays WHEN :b THEN :bDays ELSE :cDays END)',
                [
                    'today' => $day, 'a' => ValueClass::A->value, 'b' => ValueClass::B->value,
                    'aDays' => CountRhythm::days(ValueClass::A), 'bDays' => CountRhythm::days(ValueClass::B),
                    'cDays' => CountRhythm::days(ValueClass::C),
                ],
            ],
            ShelfPick::Doubted => [
                "AND (b.quantity < 0 OR EXISTS (SELECT 1 FROM stock_movement m WHERE m.item_id = i.id
                    AND m.site_id = t.site_id AND m.kind = 'adjusted'
                    AND m.day > DATE_SUB(:today, INTERVAL :days DAY)))",
                ['today' => $day, 'days' => ShelfPick::LATELY],
            ],
        };
    }
}
