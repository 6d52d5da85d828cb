<?php

declare(strict_types=1);

namespace TallBarrel\Store\Sales;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;

/** What was sold or used of an item at a place, by month and year. */
final readonly class SalesByMonth
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * @return array<int, array<int, float>> stock units by year, then month 1 to 12; a month without any is not in it
     */
    public function of(Item $item, Site $site, \DateTimeImmutable $since): array
    {
        /** @var list<array{year: int, month: int, sold: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT YEAR(day) year, MONTH(day) month, SUM(quantity) sold FROM sales_day
                WHERE item_id = ? AND site_id = ? AND day >= ? GROUP BY year, month ORDER BY year, month',
            [$item->id, $site->id, $since->format('Y-m-d')],
        );
        $years = [];
        foreach ($rows as $row) {
            $years[$row['year']][$row['month']] = (float) $row['sold'];
        }

        return $years;
    }
}
