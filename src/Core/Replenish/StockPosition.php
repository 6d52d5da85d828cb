<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/**
 * What there is and what is wanted, in stock units: each term is rounded to what the unit can be counted in before it
 * is added, so that the lines of an explanation add up to the need that is shown.
 */
final readonly class StockPosition
{
    /** Days until an order of the next chance would be here. */
    public float $horizon;
    /** Days that an order of now has to last. */
    public float $reach;
    public BigDecimal $safety;
    /** Planned for the days until an order of the next chance would be here. */
    public BigDecimal $plannedSoon;
    /** At or below it, it is ordered; the planned demand is in it. */
    public BigDecimal $reorderPoint;
    /** On hand less promised. */
    public BigDecimal $free;
    /** Free, and what comes before an order of the next chance would. */
    public BigDecimal $position;
    /** What comes within reach. */
    public BigDecimal $coming;
    /** Expected use within reach, or the level of a policy without a forecast. */
    public BigDecimal $level;
    /** @var list<array{PlannedDemand, BigDecimal}> within reach */
    public array $planned;
    /** What should be there: level, safety stock and planned demand. */
    public BigDecimal $upTo;
    /** What is wanted beyond what there is; below zero where there is more. */
    public BigDecimal $target;

    public function __construct(Need $need, Levels $levels)
    {
        $unit = $need->unit;
        $serves = $need->policy->kind->aimsAtService();
        $lead = $need->leadTime->days;
        $this->horizon = $lead + $need->reviewDays;
        // A fixed lot and the policies without a forecast look as far as the next order, the others as far as this one
        // lasts.
        $this->reach = $serves && null === $levels->lot
            ? $lead + max($levels->coverDays, (float) $need->reviewDays)
            : $this->horizon;
        $this->safety = $unit->count($levels->safety, RoundingMode::Up);
        $this->plannedSoon = $unit->count(
            PlannedDemand::until($need->planned, $need->today, $this->horizon),
            RoundingMode::Up,
        );
        $point = $serves
            ? $unit->count($levels->untilNext, RoundingMode::HalfUp)->plus($this->safety)
            : $unit->count($levels->reorderPoint, RoundingMode::HalfUp);
        $this->reorderPoint = $point->plus($this->plannedSoon);
        $this->free = $need->onHand->minus($need->promised);
        $this->position = $this->free->plus($need->coming->within($this->horizon));
        $this->coming = $need->coming->within($this->reach);
        $this->level = $unit->count(
            $serves ? $need->forecast->over($this->reach) : $levels->orderUpTo,
            RoundingMode::HalfUp,
        );
        $planned = [];
        foreach ($need->planned as $one) {
            if ($one->isWithin($need->today, $this->reach)) {
                $planned[] = [$one, $unit->count($one->stockUnits, RoundingMode::Up)];
            }
        }
        $this->planned = $planned;
        $upTo = $serves ? $this->level->plus($this->safety) : $this->level;
        foreach ($planned as [, $amount]) {
            $upTo = $upTo->plus($amount);
        }
        $this->upTo = $upTo;
        $this->target = $upTo->minus($need->onHand)->minus($this->coming)->plus($need->promised);
    }

    /** Whether the policy has it ordered. */
    public function isBelow(PolicyKind $kind): bool
    {
        return match ($kind) {
            PolicyKind::MinMax, PolicyKind::Par => $this->position->isLessThan($this->reorderPoint),
            PolicyKind::ByHand => false,
            PolicyKind::Periodic, PolicyKind::LotForLot => $this->target->isPositive(),
            default => $this->position->isLessThan($this->reorderPoint)
                || ($this->position->isEqualTo($this->reorderPoint) && $this->reorderPoint->isPositive()),
        };
    }
}
