<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\DBAL\Connection;

/** Who waits for what has just come. */
final readonly class WhatWaits
{
    private const MOST = 12;

    public function __construct(private Connection $connection)
    {
    }

    /**
     * Customers who were promised it there, and other sites that asked for it, the earliest first.
     *
     * @return list<array{item: string, units: string, unit: string, who: string, number: string, kind: string}>
     */
    public function for(Receipt $receipt): array
    {
        /**
         * @var list<array{item: string, units: string, unit: string, who: string, number: string, kind: string}>
         *      $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT i.name item, w.units, i.unit, w.who, w.number, w.kind FROM (
                SELECT p.item_id, p.quantity units, c.customer who, c.reference number, p.wanted_on due, 'promise' kind
                    FROM open_promise p JOIN customer_promise c ON c.id = p.id WHERE p.site_id = :site
                UNION ALL SELECT t.item_id, t.units, s.name, t.number, t.due, 'transfer'
                    FROM open_transfer t JOIN site s ON s.id = t.site_id
                    WHERE t.source_id = :site AND t.state = 'to-pick') w
             JOIN item i ON i.id = w.item_id
             WHERE w.item_id IN (SELECT l.item_id FROM receipt_line x JOIN order_line l ON l.id = x.line_id
                WHERE x.receipt_id = :receipt)
             ORDER BY w.due, w.number LIMIT ".self::MOST,
            ['site' => $receipt->delivery->site->id, 'receipt' => $receipt->id],
        );

        return $rows;
    }
}
