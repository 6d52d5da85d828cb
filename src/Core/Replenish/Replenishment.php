<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * Decides about one item at one site: once the stock position (on hand, plus what comes in time, less promised) has
 * fallen to where its policy says so, how much to buy, and why. In the literature the (R, s, S) and (R, s, Q) systems,
 * Silver, Pyke & Peterson, chapter 7. What is wanted is a StockPosition, what is ordered of it a Requirement, what can
 * be bought of that RoundedToPacks; Explaining tells how.
 */
final readonly class Replenishment
{
    public function propose(Need $need, bool $askedFor = false): Proposal
    {
        $levels = Levels::of($need->policy, $need->forecast, $need->leadTime, $need->reviewDays, $need->economics);
        $position = new StockPosition($need, $levels);
        $requirement = new Requirement($need, $levels, $position, $askedFor);
        $rounded = new RoundedToPacks($need, $requirement, $position->reach);
        $forward = $this->forward($need);
        $perDay = $need->forecast->perDay();
        $waiting = CostOfWaiting::of($need, $position, $requirement, $rounded);

        return new Proposal(
            $this->reason($need, $position, $requirement, $rounded->packs->isPositive()),
            $requirement->due || $rounded->packs->isPositive() ? $requirement->ordered : $requirement->missing,
            $rounded->packs,
            $perDay > 0 ? max(0.0, $position->free->toFloat()) / $perDay : null,
            (new Explaining($need, $levels, $position, $requirement, $rounded))->explanation($forward),
            $waiting->missed,
            $waiting->total(),
            match (true) {
                $requirement->below => 0.0,
                $perDay > 0 => max(0.0, $position->position->minus($position->reorderPoint)->toFloat()) / $perDay,
                default => null,
            },
            $forward,
        );
    }

    private function reason(Need $need, StockPosition $position, Requirement $requirement, bool $bought): Reason
    {
        $withoutPlanned = $position->position->plus($position->plannedSoon);

        return match (true) {
            !$requirement->below && null !== $requirement->rise && $bought => Reason::PriceRise,
            !$requirement->below && $requirement->due => Reason::Asked,
            !$requirement->below => Reason::Covered,
            $need->promised->isPositive() && $need->onHand->isLessThan($need->promised) => Reason::Rush,
            !$need->onHand->isPositive() => Reason::Out,
            $position->free->isLessThan($position->safety) => Reason::BelowSafetyStock,
            $withoutPlanned->isGreaterThan($position->reorderPoint) => Reason::Planned,
            !$need->policy->kind->aimsAtService() => Reason::BelowMinimum,
            default => Reason::BelowReorderPoint,
        };
    }

    /** The first open order that comes after the shelf is empty, and sooner than anything ordered now could. */
    private function forward(Need $need): ?BringForward
    {
        $perDay = $need->forecast->perDay();
        if ($perDay <= 0) {
            return null;
        }
        $stock = $need->onHand->minus($need->promised)->toFloat();
        $arrivals = $need->coming->schedule();
        foreach ($need->coming->countedOn() as $order) {
            $day = $order->dayFrom($need->today);
            $before = 0.0;
            foreach ($arrivals as $on => $units) {
                $before += $on < $day ? $units : 0.0;
            }
            $lasts = $need->forecast->daysOf(max(0.0, $stock + $before)) ?? INF;
            $saves = $lasts < $day - 1 && $lasts + 1 < $need->leadTime->days;
            if ($saves && !$order->isHere && $order->daysLate($need->today) < 1) {
                return new BringForward(
                    $order->number,
                    $need->today->modify(sprintf('+%d days', max(1, (int) floor($lasts)))),
                    $order->due,
                );
            }
        }

        return null;
    }
}
