<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;

/**
 * What the stock was worth at the end of a day: the units that the ledger's movements up to it come to, at what a unit
 * cost on average that evening.
 *
 * @phpstan-type ValueRow array{item: int, code: string, name: string, category: string, unit: string, site_id: int,
 *      site: string, units: string, cost: string, value: string}
 */
final readonly class StockValue
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<array{category: string, site_id: int, site: string, items: int, value: string}> */
    public function byCategory(\DateTimeImmutable $day): array
    {
        /** @var list<array{category: string, site_id: int, site: string, items: int, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.category, u.site_id, s.name site, COUNT(*) items, SUM(ROUND(u.units * '.self::COST.', 2)) value
             FROM '.self::units('').' u '.self::AND_COST.' JOIN site s ON s.id = u.site_id
             GROUP BY i.category, u.site_id, s.name ORDER BY i.category, s.name',
            ['day' => $day->format('Y-m-d')],
        );

        return $rows;
    }

    /** @return list<ValueRow> of one category, the dearest first */
    public function ofCategory(\DateTimeImmutable $day, string $category): array
    {
        /** @var list<ValueRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.id item, i.code, i.name, i.category, i.unit, u.site_id, s.name site, u.units, '.self::COST.' cost,
                ROUND(u.units * '.self::COST.', 2) value
             FROM '.self::units('').' u '.self::AND_COST.' JOIN site s ON s.id = u.site_id
             WHERE i.category = :category ORDER BY value DESC, i.code, s.name',
            ['day' => $day->format('Y-m-d'), 'category' => $category],
        );

        return $rows;
    }

    /** @return iterable<array<string, string|int>> every item, site, state and lot, by code */
    public function everything(\DateTimeImmutable $day): iterable
    {
        /** @var iterable<array<string, string|int>> $rows */
        $rows = $this->connection->iterateAssociative(
            'SELECT i.code, i.name, i.category, i.unit, u.site_id, s.name site, u.state, u.lot, u.units,
                '.self::COST.' cost, ROUND(u.units * '.self::COST.', 2) value
             FROM '.self::units(', state, lot').' u '.self::AND_COST.' JOIN site s ON s.id = u.site_id
             ORDER BY i.code, s.name, u.state, u.lot',
            ['day' => $day->format('Y-m-d')],
        );

        return $rows;
    }

    /** Known that evening; else the first that was known later, or what is known of it at all. */
    private const COST = 'COALESCE(h.cost, f.cost, i.average_cost, i.standard_cost, 0)';

    private const AND_COST = <<<'SQL'
        JOIN item i ON i.id = u.item_id
        LEFT JOIN (SELECT item_id, MAX(day) day FROM item_cost WHERE day <= :day GROUP BY item_id) last
            ON last.item_id = u.item_id
        LEFT JOIN item_cost h ON h.item_id = u.item_id AND h.day = last.day
        LEFT JOIN (SELECT item_id, MIN(day) day FROM item_cost WHERE day > :day GROUP BY item_id) next
            ON next.item_id = u.item_id
        LEFT JOIN item_cost f ON f.item_id = u.item_id AND f.day = next.day
        SQL;

    /** What goods on their way between our sites are worth counts where they go. */
    private static function units(string $and): string
    {
        return "(SELECT item_id, site_id$and, SUM(quantity) units FROM stock_movement WHERE day <= :day
            GROUP BY item_id, site_id$and HAVING units <> 0)";
    }
}
