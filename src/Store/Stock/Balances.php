<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;

/** What stands where, locked until the transaction that asked is over. */
final readonly class Balances
{
    public function __construct(private Connection $connection)
    {
    }

    /** Stock units there. */
    public function lockedAt(int $item, StockPlace $place): BigDecimal
    {
        $units = $this->connection->fetchOne(
            'SELECT quantity FROM stock_balance WHERE item_id = ? AND site_id = ? AND state = ? AND lot = ? FOR UPDATE',
            [$item, $place->site->id, $place->state->value, $place->lot],
        );

        return BigDecimal::of(is_string($units) ? $units : 0);
    }

    /**
     * @param list<int> $items
     *
     * @return array<int, BigDecimal> stock units of all sites, by item
     */
    public function lockedSums(array $items): array
    {
        /** @var array<int, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT item_id, SUM(quantity) FROM stock_balance WHERE item_id IN (?) GROUP BY item_id FOR UPDATE',
            [$items],
            [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }

    /** @return list<HeldLots> those that are not empty */
    public function lockedOf(int $item): array
    {
        /** @var list<array{site_id: int, state: string, lot: string, quantity: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT site_id, state, lot, quantity FROM stock_balance WHERE item_id = ? AND quantity <> 0
             ORDER BY site_id, state, lot FOR UPDATE',
            [$item],
        );

        return array_map(
            static fn (array $row): HeldLots => new HeldLots(
                $row['site_id'],
                StockState::from($row['state']),
                $row['lot'],
                BigDecimal::of($row['quantity']),
            ),
            $rows,
        );
    }
}
