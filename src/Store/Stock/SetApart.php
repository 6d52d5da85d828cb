<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Site\Site;

/**
 * What is ours and may not be sold: at the dock, in inspection, held back; the oldest first.
 *
 * @phpstan-type ApartRow array{item: int, code: string, name: string, unit: string, site_id: int, site: string,
 *      state: string, lot: string, units: string, expires: string|null, since: string, reference: string}
 */
final readonly class SetApart
{
    private const MOST = 300;

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<ApartRow> */
    public function at(?Site $site): array
    {
        /** @var list<ApartRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT i.id item, i.code, i.name, i.unit, b.site_id, s.name site, b.state, b.lot, b.quantity units,
                l.expires_on expires, last.day since, last.reference
             FROM stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
             LEFT JOIN lot l ON l.item_id = b.item_id AND l.number = b.lot
             JOIN stock_movement last ON last.id = (SELECT MAX(m.id) FROM stock_movement m
                WHERE m.item_id = b.item_id AND m.site_id = b.site_id AND m.state = b.state AND m.lot = b.lot
                AND m.quantity > 0)
             WHERE b.state IN ('in-inspection', 'held') AND b.quantity > 0
                AND (:site IS NULL OR b.site_id = :site)
             ORDER BY b.state <> 'in-inspection', last.id LIMIT ".self::MOST,
            ['site' => $site?->id],
        );

        return $rows;
    }
}
