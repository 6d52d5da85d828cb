<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;

/**
 * How much of what customers wanted they got, in money at sales price. What was not sold is estimated: a day on which
 * an
 * item's shelf was empty is thought to have sold what its other days of those weeks did, at least two weeks of them
 * being
 * counted (common practice, no source). What is used and not sold has no customers and is left out.
 */
final readonly class ServedDemand
{
    public const WEEK = 'week';
    public const SITE = 'site';
    public const CATEGORY = 'category';
    public const SUPPLIER = 'supplier';
    public const ITEM = 'item';

    private const LEAST_DAYS = 14;
    private const GROUPS = [
        self::WEEK => 'week',
        self::SITE => 's.name',
        self::CATEGORY => 'i.category',
        self::SUPPLIER => "COALESCE(u.name, 'nobody')",
        self::ITEM => "CONCAT(i.code, ' ', i.name)",
    ];

    public function __construct(private Connection $connection)
    {
    }

    /**
     * @param key-of<self::GROUPS> $by what each part is of; weeks oldest first as "11" weeks back to "0", others by
     *      what was missed
     *
     * @return list<Served>
     */
    public function by(string $by, \DateTimeImmutable $today, int $weeks, ?int $site): array
    {
        $group = self::GROUPS[$by];
        /** @var list<array{part: string|int, sold: string|null, missed: string|null, margin: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $group part, SUM(demand.sold * i.sales_price) sold, SUM(demand.missed * i.sales_price) missed,
                SUM(demand.missed * (i.sales_price - COALESCE(i.average_cost, i.standard_cost, 0))) margin
             FROM (
                SELECT item_id, site_id, week, sold, days_out * SUM(sold) OVER place
                    / GREATEST(:days - SUM(days_out) OVER place, ".self::LEAST_DAYS.') missed
                FROM (
                    SELECT item_id, site_id, (DATEDIFF(:today, day) - 1) DIV 7 week, SUM(quantity) sold,
                        SUM(out_of_stock) days_out
                    FROM sales_day WHERE day >= DATE_SUB(:today, INTERVAL :days DAY) AND day < :today
                        AND (:site IS NULL OR site_id = :site)
                    GROUP BY item_id, site_id, week) weekly
                WINDOW place AS (PARTITION BY item_id, site_id)) demand
             JOIN item i ON i.id = demand.item_id AND i.sold = 1 AND i.sales_price IS NOT NULL
             JOIN site s ON s.id = demand.site_id
             LEFT JOIN (SELECT item_id, MIN(supplier_id) supplier_id FROM offer WHERE rank = 1 GROUP BY item_id) o
                ON o.item_id = i.id
             LEFT JOIN supplier u ON u.id = o.supplier_id
             GROUP BY part ORDER BY '.(self::WEEK === $by ? 'part DESC' : 'missed DESC, part'),
            ['today' => $today->format('Y-m-d'), 'days' => 7 * $weeks, 'site' => $site],
        );

        return array_map(
            static fn (array $row): Served => new Served(
                (string) $row['part'],
                (float) $row['sold'],
                (float) $row['missed'],
                (float) $row['margin'],
            ),
            $rows,
        );
    }
}
