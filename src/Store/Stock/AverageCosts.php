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
    /** Movements that bring a cost of their own. */
    private const COSTED = [
        MovementKind::Receipt->value,
        MovementKind::Opening->value,
        MovementKind::Joined->value,
    ];

    public function __construct(private Connection $connection)
    {
    }

    /** What goes over to the double it is joined with leaves the cost of what is left as it is. */
    private static function leaves(string $kind, BigDecimal $units): bool
    {
        return MovementKind::Joined->value === $kind && !$units->isPositive();
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
            if (MovementKind::Unit->value === $row['kind']) {
                $cost = null === $row['unit_cost'] ? $cost : BigDecimal::of($row['unit_cost']);
            } elseif (MovementKind::Returned->value === $row['kind'] && null !== $cost && null !== $row['unit_cost']) {
                $cost = AverageCost::without($held, $cost, $units->negated(), BigDecimal::of($row['unit_cost']));
            } elseif (in_array($row['kind'], self::COSTED, true) && !self::leaves($row['kind'], $units)) {
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
