<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Receiving\AverageCost;

/**
 * Average costs worked out anew from the ledger, in the order it was written, of items all of whose receipts bear a
 * cost.
 */
final readonly class AverageCosts
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return \Generator<int, BigDecimal> cost of one stock unit, by item */
    public function proven(): \Generator
    {
        /** @var iterable<array{item_id: int, kind: string, quantity: string, unit_cost: string|null}> $rows */
        $rows = $this->connection->iterateAssociative(
            "SELECT item_id, kind, quantity, unit_cost FROM stock_movement m
                WHERE EXISTS (SELECT 1 FROM stock_movement r WHERE r.item_id = m.item_id AND r.kind = 'receipt')
                ORDER BY item_id, id",
        );
        $item = null;
        $cost = null;
        $held = BigDecimal::zero();
        $isProvable = true;
        foreach ($rows as $row) {
            if ($item !== $row['item_id']) {
                if (null !== $item && null !== $cost && $isProvable) {
                    yield $item => $cost;
                }
                [$item, $cost, $held, $isProvable] = [$row['item_id'], null, BigDecimal::zero(), true];
            }
            $units = BigDecimal::of($row['quantity']);
            if (in_array($row['kind'], [MovementKind::Receipt->value, MovementKind::Opening->value], true)) {
                $isProvable = $isProvable && null !== $row['unit_cost'];
                $cost =
                    null === $row['unit_cost'] || !$units->isPositive()
                        ? $cost
                        : AverageCost::after($held, $cost, $units, BigDecimal::of($row['unit_cost']));
            }
            $held = $held->plus($units);
        }
        if (null !== $item && null !== $cost && $isProvable) {
            yield $item => $cost;
        }
    }
}
