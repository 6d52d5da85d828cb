<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
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

    /** Movements that take with them what they once cost. */
    private const GOING = [
        MovementKind::Returned->value,
        MovementKind::ReceiptBack->value,
    ];

    /** Before the key of a receipt’s movement it is the key of its opposite. */
    public const BACK = 'back-';

    public function __construct(private Connection $connection)
    {
    }

    public static function bringsCost(string $kind): bool
    {
        return in_array($kind, self::COSTED, true);
    }

    /** What goes over to the double it is joined with leaves the cost of what is left as it is. */
    private static function leaves(string $kind, BigDecimal $units): bool
    {
        return MovementKind::Joined->value === $kind && !$units->isPositive();
    }

    /** Cost of one stock unit of an item; null where not all it rests on has a cost. */
    public function of(int $item): ?BigDecimal
    {
        foreach ($this->proven($item) as $cost) {
            return $cost;
        }

        return null;
    }

    /**
     * @param int|null $only an item; null for all
     *
     * @return \Generator<int, BigDecimal> cost of one stock unit, by item
     */
    public function proven(?int $only = null): \Generator
    {
        $last = null;
        foreach ($this->steps($only) as $step) {
            if (null !== $last && $last[0] !== $step[0]) {
                yield from self::isProven($last);
            }
            $last = $step;
        }
        yield from null === $last ? [] : self::isProven($last);
    }

    /** @return \Generator<int, array{int, string, BigDecimal}> item, day, and what one stock unit costs from then on */
    public function changes(): \Generator
    {
        [$of, $known] = [null, null];
        foreach ($this->steps(null) as [$item, $day, $cost, $isProvable]) {
            [$of, $known] = [$item, $of === $item ? $known : null];
            if ($isProvable && null !== $cost && true !== $known?->isEqualTo($cost)) {
                yield [$item, $day, $known = $cost];
            }
        }
    }

    /**
     * @param array{int, string, BigDecimal|null, bool} $step
     *
     * @return iterable<int, BigDecimal>
     */
    private static function isProven(array $step): iterable
    {
        return null !== $step[2] && $step[3] ? [$step[0] => $step[2]] : [];
    }

    /**
     * The ledger of each item that was ever received, movement by movement.
     *
     * @return \Generator<int, array{int, string, BigDecimal|null, bool}> item, day, cost after it, and whether all
     *                                                                    it rests on is known
     */
    private function steps(?int $only): \Generator
    {
        /** @var iterable<array{item_id: int, kind: string, quantity: string, unit_cost: string|null, day: string,
         *      idempotency_key: string|null}> $rows */
        $rows = $this->connection->iterateAssociative(
            "SELECT item_id, kind, quantity, unit_cost, day, idempotency_key FROM stock_movement m
                WHERE EXISTS (SELECT 1 FROM stock_movement r WHERE r.item_id = m.item_id AND r.kind = 'receipt')
                AND (:item IS NULL OR item_id = :item)
                ORDER BY item_id, id",
            ['item' => $only],
        );
        $undone = $this->takenBack();
        $item = null;
        $cost = null;
        $held = BigDecimal::zero();
        $isProvable = true;
        foreach ($rows as $row) {
            if ($item !== $row['item_id']) {
                [$item, $cost, $held, $isProvable] = [$row['item_id'], null, BigDecimal::zero(), true];
            }
            if (isset($undone[$row['idempotency_key'] ?? ''])) {
                continue;
            }
            $units = BigDecimal::of($row['quantity']);
            if (MovementKind::Unit->value === $row['kind']) {
                $cost = null === $row['unit_cost'] ? $cost : BigDecimal::of($row['unit_cost']);
            } elseif (MovementKind::Charge->value === $row['kind']) {
                $cost = $cost?->plus($row['unit_cost'] ?? 0);
            } elseif (in_array($row['kind'], self::GOING, true) && null !== $cost && null !== $row['unit_cost']) {
                $cost = AverageCost::without($held, $cost, $units->negated(), BigDecimal::of($row['unit_cost']));
            } elseif (self::bringsCost($row['kind']) && !self::leaves($row['kind'], $units)) {
                $isProvable = $isProvable && null !== $row['unit_cost'];
                $cost =
                    null === $row['unit_cost'] || !$units->isPositive()
                        ? $cost
                        : AverageCost::after($held, $cost, $units, BigDecimal::of($row['unit_cost']));
            }
            $held = $held->plus($units);
            yield [$item, $row['day'], $cost, $isProvable];
        }
    }

    /** @return array<string, int> keys of movements that took each other back: as if neither had been */
    private function takenBack(): array
    {
        /** @var list<string> $backs */
        $backs = $this->connection->fetchFirstColumn(
            'SELECT idempotency_key FROM stock_movement WHERE idempotency_key LIKE ? AND kind = ?',
            [self::BACK.'%', MovementKind::ReceiptBack->value],
        );
        /** @var list<string> $booked */
        $booked = [] === $backs ? [] : $this->connection->fetchFirstColumn(
            'SELECT idempotency_key FROM stock_movement WHERE idempotency_key IN (?)',
            [array_map(static fn (string $key): string => substr($key, strlen(self::BACK)), $backs)],
            [ArrayParameterType::STRING],
        );

        /** @var list<string> $charges on lines that were taken back; the charges had to be before */
        $charges = [] === $backs ? [] : $this->connection->fetchFirstColumn(
            "SELECT CONCAT('charge-', c.number, '-', p.part, x.n) FROM landed_charge c
             JOIN (SELECT charge_id, came_id, ROW_NUMBER() OVER (PARTITION BY charge_id ORDER BY id) - 1 n
                FROM landed_charge_line) x ON x.charge_id = c.id
             JOIN (SELECT 'c' part UNION SELECT 'b') p
             WHERE c.taken_back IS NOT NULL AND x.came_id NOT IN (SELECT id FROM standing_receipt_line)",
        );

        return array_flip([
            ...$booked,
            ...array_map(static fn (string $key): string => self::BACK.$key, $booked),
            ...$charges,
        ]);
    }
}
