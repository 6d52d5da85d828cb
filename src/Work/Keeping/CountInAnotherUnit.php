<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\RequisitionState;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemUses;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;
use TallBarrel\Store\Stock\Balances;
use TallBarrel\Store\Stock\CostHistory;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;

/**
 * An item that was booked in one unit is counted in another from now on: one of the old is so many of the new. Stock,
 * sales, plans, offers, packs, levels, prices and costs follow; what stands in the ledger stays, and a movement makes
 * up the difference.
 */
final readonly class CountInAnotherUnit
{
    /** Quantities in stock units, by table. */
    private const QUANTITIES = [
        'sales_day' => ['quantity'],
        'planned_demand' => ['quantity'],
        'customer_promise' => ['quantity'],
        'requisition' => ['quantity'],
        'item_pack' => ['quantity'],
        'offer' => ['pack_content'],
    ];

    public function __construct(
        private EntityManagerInterface $entities,
        private Connection $connection,
        private Balances $balances,
        private Ledger $ledger,
        private ItemUses $uses,
        private WhatMoved $moved,
        private AllOrNothing $whole,
        private Audit $audit,
        private CostHistory $costs,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param BigDecimal $factor new units in one old unit, such as 4 for a set that becomes pieces
     *
     * @throws InvalidValue if the factor is not above zero, or leaves parts of what is counted whole
     * @throws Refused      while the item is on order, asked for, agreed on or in a price list that is not settled
     */
    public function count(Item $item, Unit $unit, BigDecimal $factor, Person $by): void
    {
        if (!$factor->isPositive() || $factor->isGreaterThan(1_000_000)) {
            throw InvalidValue::because(
                sprintf('One %s cannot be %s %s.', $item->unit->symbol(), $factor, $unit->symbol()),
            );
        }
        $open = array_values(array_filter(
            $this->uses->open($item->id),
            static fn (string $one): bool => !str_starts_with($one, 'the promise'),
        ));
        $open = [...$open, ...$this->agreed($item)];
        if ([] !== $open) {
            throw new Refused(sprintf('%s is still in %s; finish that first.', $item->code, implode(', ', $open)));
        }
        $this->whole->take(function () use ($item, $unit, $factor, $by): void {
            $old = $item->unit;
            $cost = $this->moveStock($item, $unit, $factor, $by);
            $this->refuseParts($item, $unit, $factor);
            foreach (self::QUANTITIES as $table => $columns) {
                foreach ($columns as $column) {
                    $this->connection->executeStatement(
                        sprintf('UPDATE %1$s SET %2$s = %2$s * ? WHERE item_id = ?', $table, $column),
                        [$factor->toString(), $item->id],
                    );
                }
            }
            // Levels in units follow; those in days or money do not.
            foreach (['item_policy', 'site_policy'] as $table) {
                $this->connection->executeStatement(
                    "UPDATE $table SET amount = amount * ?, minimum = minimum * ?
                     WHERE item_id = ? AND kind IN ('fixed-quantity', 'min-max', 'par')",
                    [$factor->toFloat(), $factor->toFloat(), $item->id],
                );
            }
            $this->connection->executeStatement(
                'UPDATE item SET unit = ?, sales_price = ROUND(sales_price / ?, 2), weight_kg = weight_kg / ?,
                    volume = volume / ?, standard_cost = standard_cost / ?, average_cost = ?,
                        version = version + 1 WHERE id = ?',
                [$unit->value, ...array_fill(0, 4, $factor->toString()), $cost?->toString(), $item->id],
            );
            $this->costs->note([$item->id]);
            // What was proposed is in the old unit; the next planning proposes anew.
            $this->connection->executeStatement('DELETE FROM proposal WHERE item_id = ?', [$item->id]);
            $this->moved->note([$item->id]);
            $this->audit->note($by, 'item '.$item->code, sprintf(
                'Counted in %s: one %s is %s',
                $unit->symbol(),
                $old->symbol(),
                $factor->strippedOfTrailingZeros(),
            ));
        });
        $this->entities->clear();
    }

    /** @return list<string> agreements, agreed prices and price lists that still speak of it in the old unit */
    private function agreed(Item $item): array
    {
        /** @var list<string> $found */
        $found = $this->connection->fetchFirstColumn(
            "SELECT CONCAT('the agreement ', number) FROM agreement
                WHERE item_id = :item AND NOT ended AND last_day >= :today
             UNION SELECT CONCAT('the price list ', p.filename) FROM price_list p
                JOIN price_list_row r ON r.list_id = p.id
                WHERE r.item_id = :item AND p.settled_at IS NULL
             UNION SELECT CONCAT('the agreed price “', name, '”') FROM price_term
                WHERE item_id = :item AND (last_day IS NULL OR last_day >= :today)
             LIMIT 5",
            ['item' => $item->id, 'today' => $this->clock->now()->format('Y-m-d')],
        );

        return $found;
    }

    /** @throws InvalidValue if somebody was promised, or asked for, what would be a part of one */
    private function refuseParts(Item $item, Unit $unit, BigDecimal $factor): void
    {
        if ($unit->isDivisible()) {
            return;
        }
        /** @var list<string> $asked */
        $asked = $this->connection->fetchFirstColumn(
            'SELECT quantity FROM open_promise WHERE item_id = :item
             UNION SELECT quantity FROM requisition WHERE item_id = :item AND state = :asked',
            ['item' => $item->id, 'asked' => RequisitionState::Asked->value],
        );
        foreach ($asked as $quantity) {
            self::whole(BigDecimal::of($quantity), $item->unit, $unit, $factor);
        }
    }

    /** @throws InvalidValue if so many of the old unit are no whole number of the new, and it is counted whole */
    private static function whole(BigDecimal $quantity, Unit $old, Unit $new, BigDecimal $factor): BigDecimal
    {
        $now = $quantity->multipliedBy($factor)->strippedOfTrailingZeros();
        if (!$new->isDivisible() && $now->getScale() > 0) {
            throw InvalidValue::because(sprintf(
                '%s %s would be %s %s, which is counted in whole units.',
                $quantity->strippedOfTrailingZeros(),
                $old->symbol(),
                $now,
                $new->symbol(),
            ));
        }

        return $now;
    }

    /** @return BigDecimal|null average cost of one of the new units */
    private function moveStock(Item $item, Unit $unit, BigDecimal $factor, Person $by): ?BigDecimal
    {
        $cost = $item->averageCost()?->dividedBy($factor, 6, RoundingMode::HalfUp);
        $day = $this->clock->now()->setTime(0, 0);
        $words = sprintf('%s → %s', $item->unit->symbol(), $unit->symbol());
        $postings = [];
        foreach ($this->balances->lockedOf($item->id) as $held) {
            $now = self::whole($held->quantity, $item->unit, $unit, $factor);
            $postings[] = new Posting(
                $item->id,
                $held->site,
                MovementKind::Unit,
                $now->minus($held->quantity),
                $cost,
                $day,
                $words,
                null,
                $held->lot,
                $held->state,
            );
        }
        $site = $this->connection->fetchOne('SELECT MIN(id) FROM site');
        if ([] === $postings && null !== $cost && is_numeric($site)) {
            // Nothing is there, but what it cost is in another unit from now on.
            $postings[] = new Posting(
                $item->id,
                (int) $site,
                MovementKind::Unit,
                BigDecimal::zero(),
                $cost,
                $day,
                $words,
                null,
            );
        }
        $this->ledger->enter($postings, $by->id);

        return $cost;
    }
}
