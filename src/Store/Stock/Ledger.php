<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\Planning\WhatMoved;

/** The stock ledger: the only place that writes movements, and the balances with them. */
final readonly class Ledger
{
    private const AT_ONCE = 500;

    public function __construct(
        private Connection $connection,
        private WhatMoved $moved,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Enters movements and brings the balances along, inside the caller's transaction. A movement whose idempotency
     * key is already in the ledger fails the whole transaction.
     *
     * @param list<Posting> $postings
     */
    public function enter(array $postings, ?int $person): void
    {
        $at = $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s');
        foreach (array_chunk($postings, self::AT_ONCE) as $chunk) {
            $movements = $balances = [];
            foreach ($chunk as $posting) {
                $where = [$posting->item, $posting->site, $posting->state->value, $posting->lot];
                $quantity = (string) $posting->quantity;
                array_push(
                    $movements,
                    ...$where,
                    ...[
                        $posting->kind->value,
                        $quantity,
                        $posting->unitCost?->toString(),
                        $posting->day->format('Y-m-d'),
                        $at,
                        $posting->reference,
                        $person,
                        $posting->idempotencyKey,
                    ],
                );
                array_push($balances, ...$where, ...[$quantity]);
            }
            $this->connection->executeStatement(
                'INSERT INTO stock_movement (item_id, site_id, state, lot, kind, quantity, unit_cost, day, at,
                    reference, person_id, idempotency_key) VALUES '.
                    self::rows(count($chunk), 12),
                $movements,
            );
            $this->connection->executeStatement(
                'INSERT INTO stock_balance (item_id, site_id, state, lot, quantity) VALUES '.
                    self::rows(count($chunk), 5).
                    ' ON DUPLICATE KEY UPDATE quantity = quantity + VALUES(quantity)',
                $balances,
            );
        }
        $this->moved->note(array_map(static fn (Posting $posting): int => $posting->item, $postings));
    }

    private static function rows(int $rows, int $columns): string
    {
        return implode(',', array_fill(0, $rows, '('.implode(',', array_fill(0, $columns, '?')).')'));
    }
}
