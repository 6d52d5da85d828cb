<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Unit;

/**
 * Decides about one item at one site: once the stock position (on hand, plus what comes in time, less promised) has
 * fallen to where its policy says so, how much to buy, and why. In the literature the (R, s, S) and (R, s, Q) systems,
 * Silver, Pyke & Peterson, chapter 7.
 *
 * Every term is rounded to what the stock unit can be counted in before it is added, so that the lines of the
 * explanation add up to the need that is shown.
 */
final readonly class Replenishment
{
    /** Longest time anything is bought ahead. */
    private const LONGEST_AHEAD_DAYS = 182;

    public function propose(Need $need, bool $askedFor = false): Proposal
    {
        $forecast = $need->forecast;
        $unit = $need->unit;
        $lead = $need->leadTime->days;
        $horizon = $lead + $need->reviewDays;
        $levels = Levels::of($need->policy, $forecast, $need->leadTime, $need->reviewDays, $need->economics);
        $kind = $need->policy->kind;
        $serves = $kind->aimsAtService();
        $cover = max($levels->coverDays, (float) $need->reviewDays);
        // A fixed lot and the policies without a forecast look as far as the next order, the others as far as this one
        // lasts.
        $reach = $serves && null === $levels->lot ? $lead + $cover : $horizon;

        $plannedSoon = self::counted(
            PlannedDemand::until($need->planned, $need->today, $horizon),
            $unit,
            RoundingMode::Up,
        );
        $reorderPoint = $serves
            ? self::counted($levels->untilNext, $unit, RoundingMode::HalfUp)
                ->plus(self::counted($levels->safety, $unit, RoundingMode::Up))
                ->plus($plannedSoon)
            : self::counted($levels->reorderPoint, $unit, RoundingMode::HalfUp)->plus($plannedSoon);
        $comingSoon = $need->coming->within($horizon);
        $coming = $need->coming->within($reach);
        $without = $need->onHand->minus($need->promised);
        $position = $without->plus($comingSoon);

        $lines = [];
        $target = BigDecimal::zero();
        $add = static function (string $label, string $sign, BigDecimal $amount) use (&$lines, &$target): void {
            $lines[] = new ExplanationLine($label, $sign, self::figure($amount));
            $target = '−' === $sign ? $target->minus($amount) : $target->plus($amount);
        };
        if ($serves) {
            $expected = self::counted($forecast->over($reach), $unit, RoundingMode::HalfUp);
            $add(
                null === $levels->lot
                    ? sprintf(
                        'Forecast over %s d delivery + %s d, %s',
                        self::days($lead),
                        self::days($cover),
                        $levels->coverWords,
                    )
                    : sprintf(
                        'Forecast over %s d delivery + %d d until the next order',
                        self::days($lead),
                        $need->reviewDays,
                    ),
                '',
                $expected,
            );
            $add(
                sprintf(
                    'Safety stock, %s, delivery ± %s d',
                    $need->policy->target->words(),
                    self::days($need->leadTime->spread),
                ),
                '+',
                self::counted($levels->safety, $unit, RoundingMode::Up),
            );
        } else {
            $add(
                PolicyKind::Par === $kind
                    ? 'Par level'
                    : (PolicyKind::MinMax === $kind
                        ? sprintf('Maximum, once under %s', self::figure($reorderPoint->minus($plannedSoon)))
                        : 'Ordered only by hand'),
                '',
                self::counted($levels->orderUpTo, $unit, RoundingMode::HalfUp),
            );
        }
        foreach ($need->planned as $planned) {
            if ($planned->isWithin($need->today, $reach)) {
                $add(
                    sprintf('%s, %s (planned)', $planned->name, $planned->day->format('D j M')),
                    '+',
                    self::counted($planned->stockUnits, $unit, RoundingMode::Up),
                );
            }
        }
        $upTo = $target;
        $add('On hand', '−', $need->onHand);
        $add('On order, here in time', '−', $coming);
        $add('Promised to customers', '+', $need->promised);

        $below = match ($kind) {
            PolicyKind::MinMax, PolicyKind::Par => $position->isLessThan($reorderPoint),
            PolicyKind::ByHand => false,
            PolicyKind::Periodic, PolicyKind::LotForLot => $target->isPositive(),
            default => $position->isLessThan($reorderPoint)
                || ($position->isEqualTo($reorderPoint) && $reorderPoint->isPositive()),
        };
        $rise = $this->lastChanceBeforeRise($need);
        $due = $below || ($askedFor && $target->isPositive());
        $missing = BigDecimal::max($target, BigDecimal::zero());
        $short = $missing;
        $lines[] = $due
            ? new ExplanationLine('Needed', '', self::figure($missing).' '.$unit->symbol(), true)
            : new ExplanationLine(
                $target->isPositive() ? 'Could be filled up by' : 'More than wanted by',
                '',
                self::figure($target->abs()).' '.$unit->symbol(),
                true,
            );
        if ($due && null !== $levels->lot) {
            $lot = BigDecimal::max(self::counted($levels->lot, $unit, RoundingMode::Up), BigDecimal::one());
            $lots = BigDecimal::max($missing->dividedBy($lot, 0, RoundingMode::Up), BigDecimal::one());
            $missing = $lot->multipliedBy($lots);
            $lines[] = new ExplanationLine(sprintf('In lots of %s', self::figure($lot)), '', self::figure($missing));
        }
        $ordered = $due ? $missing : BigDecimal::zero();
        $ahead =
            null === $rise
                ? BigDecimal::zero()
                : self::counted($this->boughtAhead($need, $reach, $rise), $unit, RoundingMode::Down);
        // Bought ahead without being due, it must be worth a pack.
        if (
            null !== $rise
            && $ahead->isPositive()
            && ($due || $need->rule->pack->content->isLessThanOrEqualTo($ahead->plus($target)))
        ) {
            $ordered = $due ? $ordered->plus($ahead) : BigDecimal::max($ahead->plus($target), BigDecimal::zero());
            $lines[] = new ExplanationLine(
                sprintf('Bought ahead: %s %% dearer from %s', self::days(100 * $rise[0]), $rise[1]->format('j M')),
                '+',
                self::figure($ahead),
            );
        }
        if ($ordered->isPositive() && null !== $need->economics->shelfDays) {
            $sells = self::counted(
                $forecast->over($lead + $need->economics->shelfDays) +
                    PlannedDemand::until($need->planned, $need->today, $lead + $need->economics->shelfDays),
                $unit,
                RoundingMode::Down,
            );
            $most = BigDecimal::max($sells->minus($without)->minus($coming), BigDecimal::zero());
            if ($ordered->isGreaterThan($most)) {
                $lines[] = new ExplanationLine(
                    sprintf('Less, so that it sells within its %d days', $need->economics->shelfDays),
                    '−',
                    self::figure($ordered->minus($most)),
                );
                $ordered = $most;
            }
        }
        $rule =
            $need->wholePacks && $need->rule->split
                ? BuyingRule::of($need->rule->pack, $need->rule->minimum, $need->rule->multiple)
                : $need->rule;
        $packs = $rule->packsFor($ordered);
        if ($packs->isPositive()) {
            $lines[] = new ExplanationLine(
                sprintf(
                    'In what can be bought: %s (%s)',
                    $rule->pack->label(),
                    $rule->pack->toPacks($ordered)->toScale(1, RoundingMode::HalfUp),
                ),
                '',
                self::figure($packs).' '.$rule->pack->named($packs),
            );
            [$more, $from] = $this->upToBreak($need, $rule->pack->toStockUnits($packs)->toFloat(), $reach);
            if ($more > 0) {
                $packs = $rule->packsFor(number_format($more, 3, '.', ''));
                $lines[] = new ExplanationLine(
                    sprintf('Up to the price break at %s', self::figure(self::counted($from, $unit, RoundingMode::Up))),
                    '',
                    self::figure($packs).' '.$rule->pack->named($packs),
                );
            }
        }

        $untilNext = $forecast->distribution($horizon, $need->leadTime->spread);
        $shortIfNot = max(
            0.0,
            $untilNext->loss($position->minus($plannedSoon)->toFloat()) -
                $untilNext->loss(max(0.0, $reorderPoint->minus($plannedSoon)->toFloat())),
        );
        $reason = $this->reason(
            $need,
            $below,
            $askedFor && $due,
            null !== $rise && $packs->isPositive() && !$below,
            self::counted($levels->safety, $unit, RoundingMode::Up),
            $position->plus($plannedSoon)->isGreaterThan($reorderPoint),
        );
        $perDay = $forecast->perDay();
        $forward = $this->forward($need);
        $notes = [];
        foreach ($need->coming->givenUp() as $order) {
            $notes[] = sprintf(
                '%s, %s %s, is %d days late and not counted on.',
                $order->number,
                self::figure($order->stockUnits),
                $unit->symbol(),
                $order->daysLate($need->today),
            );
        }
        foreach ($need->coming->after($reach) as $order) {
            $notes[] = sprintf(
                '%s, %s %s, comes only on %s and does not help until then.',
                $order->number,
                self::figure($order->stockUnits),
                $unit->symbol(),
                $order->due->format('D j M'),
            );
        }
        if (null !== $forward) {
            $notes[] = sprintf(
                '%s, due %s, would save the day if it came by %s: ask to bring it forward.',
                $forward->order,
                $forward->due->format('D j M'),
                $forward->by->format('D j M'),
            );
        }
        if (null !== $levels->lotCheck && $due) {
            $notes[] = $levels->lotCheck;
        }
        if (!$due && !$packs->isPositive()) {
            $notes[] =
                PolicyKind::ByHand === $kind
                    ? 'It is ordered only by hand.'
                    : sprintf(
                        'Nothing is due: %s %s in stock and coming in time %s of %s.',
                        self::figure($position),
                        $unit->symbol(),
                        $serves ? 'is above the reorder point' : 'is not below the minimum',
                        self::figure($reorderPoint),
                    );
        }

        return new Proposal(
            $reason,
            $due || $packs->isPositive() ? $ordered : $short,
            $packs,
            $perDay > 0 ? max(0.0, $without->toFloat()) / $perDay : null,
            new Explanation(
                $lines,
                $notes,
                self::counted($levels->safety, $unit, RoundingMode::Up)->toFloat(),
                $reorderPoint->toFloat(),
                BigDecimal::max($upTo, $reorderPoint)->toFloat(),
                $lead,
            ),
            $shortIfNot,
            $shortIfNot * $need->economics->margin(),
            $serves || PolicyKind::MinMax === $kind
                ? max(0.0, floor($without->minus(BigDecimal::max($upTo, $reorderPoint))->toFloat()))
                : 0.0,
            $below ? 0.0 : ($perDay > 0 ? max(0.0, $position->minus($reorderPoint)->toFloat()) / $perDay : null),
            $forward,
        );
    }

    private function reason(
        Need $need,
        bool $below,
        bool $asked,
        bool $rise,
        BigDecimal $safety,
        bool $onlyForPlanned,
    ): Reason {
        return match (true) {
            !$below && $rise => Reason::PriceRise,
            !$below && $asked => Reason::Asked,
            !$below => Reason::Covered,
            $need->promised->isPositive() && $need->onHand->isLessThan($need->promised) => Reason::Rush,
            !$need->onHand->isPositive() => Reason::Out,
            $need->onHand->minus($need->promised)->isLessThan($safety) => Reason::BelowSafetyStock,
            $onlyForPlanned => Reason::Planned,
            !$need->policy->kind->aimsAtService() => Reason::BelowMinimum,
            default => Reason::BelowReorderPoint,
        };
    }

    /** @return array{float, \DateTimeImmutable}|null the rise, if the next chance to order comes after it */
    private function lastChanceBeforeRise(Need $need): ?array
    {
        $rise = $need->economics->priceRise;

        return null !== $rise
            && $rise[0] > 0
            && $rise[1] > $need->today
            && $rise[1] <= $need->today->modify(sprintf('+%d days', $need->reviewDays))
            ? $rise
            : null;
    }

    /**
     * Bought ahead as long as holding it costs less than the rise: for (c₂ − c₁) / (c₁ r) years.
     * Source: Silver, Pyke & Peterson, section 5.6 on announced price increases, without its smaller terms in the lot
     * size.
     *
     * @param array{float, \DateTimeImmutable} $rise
     */
    private function boughtAhead(Need $need, float $reach, array $rise): float
    {
        $share = $need->economics->holdingShare;
        $days = $share > 0 ? min(self::LONGEST_AHEAD_DAYS, (365 * $rise[0]) / $share) : 0.0;

        return max(0.0, $need->forecast->over($reach + $days) - $need->forecast->over($reach));
    }

    /**
     * @return array{float, float} stock units to buy instead to reach the next price break, and where it begins; zeros
     *      where it does not pay
     */
    private function upToBreak(Need $need, float $units, float $reach): array
    {
        $economics = $need->economics;
        if ($economics->incremental) {
            // Such a break has no edge to reach: one more unit costs the same on either side of it, or less.
            return [0.0, 0.0];
        }
        $perDay = $need->forecast->perDay();
        $price = null;
        foreach ($economics->breaks as [$from, $breakPrice]) {
            if ($from <= $units || null === $price) {
                $price = $breakPrice;
                continue;
            }
            $more = $from - $units;
            $days = $perDay > 0 ? $more / $perDay : INF;
            $fits = $days + $reach <= min(self::LONGEST_AHEAD_DAYS, $economics->shelfDays ?? self::LONGEST_AHEAD_DAYS);
            // The surplus waits until this order is used up, then half as long as it lasts itself.
            $holding =
                (($more * $breakPrice * $economics->holdingShare) / 365) * ($units / max($perDay, 1e-9) + $days / 2);
            if ($fits && $from * $breakPrice + $holding < $units * $price + $more * $price) {
                return [$from, $from];
            }
        }

        return [0.0, 0.0];
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
            if ($lasts < $day - 1 && $lasts + 1 < $need->leadTime->days && $order->daysLate($need->today) < 1) {
                return new BringForward(
                    $order->number,
                    $need->today->modify(sprintf('+%d days', max(1, (int) floor($lasts)))),
                    $order->due,
                );
            }
        }

        return null;
    }

    private static function counted(float $stockUnits, Unit $unit, RoundingMode $mode): BigDecimal
    {
        // A ten-thousandth of a unit is a rounding error of the floats, not demand.
        return BigDecimal::of(number_format($stockUnits, 4, '.', ''))->toScale($unit->isDivisible() ? 1 : 0, $mode);
    }

    private static function figure(BigDecimal $amount): string
    {
        $amount = $amount->strippedOfTrailingZeros();

        return number_format($amount->toFloat(), max(0, $amount->getScale()));
    }

    private static function days(float $days): string
    {
        return rtrim(rtrim(number_format($days, 1), '0'), '.');
    }
}
