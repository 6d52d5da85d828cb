<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Quantity\Unit;

/**
 * The rule: once the stock position (on hand, plus on order, less promised) is at or below the reorder point, order up
 * to the order-up-to level. In the literature the (R, s, S) system, Silver, Pyke & Peterson, chapter 7.
 *
 * Every term is rounded to what the stock unit can be counted in before it is added, so that the lines of the
 * explanation add up to the need that is shown.
 */
final readonly class OrderUpTo
{
    public function propose(Need $need): Proposal
    {
        $forecast = $need->forecast;
        $lead = $need->leadTime->days;
        $deviation = SafetyStock::deviation($forecast->sigmaOver($lead + $need->reviewDays), $forecast->perDay(), $need->leadTime->spread);
        $safety = self::counted(SafetyStock::forCycleService($need->service, $deviation), $need->unit, RoundingMode::Up);
        $untilNext = self::counted($forecast->over($lead + $need->reviewDays), $need->unit, RoundingMode::HalfUp);
        $cover = max($need->coverDays, $need->reviewDays);
        $wanted = self::counted($forecast->over($lead + $cover), $need->unit, RoundingMode::HalfUp);
        $reorderPoint = $untilNext->plus($safety);
        $upTo = $wanted->plus($safety);

        $coming = BigDecimal::zero();
        $late = [];
        foreach ($need->onOrder as $order) {
            if ($order->countsOn($need->today)) {
                $coming = $coming->plus($order->stockUnits);
            } else {
                $late[] = $order;
            }
        }
        $position = $need->onHand->plus($coming)->minus($need->promised);
        $due = $position->isLessThan($reorderPoint) || ($position->isEqualTo($reorderPoint) && $reorderPoint->isPositive());
        $missing = BigDecimal::max($upTo->minus($position), BigDecimal::zero());
        $packs = $due ? $need->rule->packsFor($missing) : BigDecimal::zero();

        $lines = [
            new ExplanationLine(sprintf('Forecast over %s d delivery + %d d until the next order', self::days($lead), $cover), '', self::figure($wanted)),
            new ExplanationLine(sprintf('Safety stock, %s %% of deliveries in time, ± %s d', self::percent($need->service), self::days($need->leadTime->spread)), '+', self::figure($safety)),
            new ExplanationLine('On hand', '−', self::figure($need->onHand)),
            new ExplanationLine('On order, counted on', '−', self::figure($coming)),
            new ExplanationLine('Promised to customers', '+', self::figure($need->promised)),
        ];
        $difference = $upTo->minus($position);
        $lines[] = $due
            ? new ExplanationLine('Needed', '', self::figure($missing).' '.$need->unit->symbol(), true)
            : new ExplanationLine(
                $difference->isPositive() ? 'Could be filled up by' : 'More than wanted by', '',
                self::figure($difference->abs()).' '.$need->unit->symbol(), true,
            );
        if ($due) {
            $lines[] = new ExplanationLine(
                sprintf('In what can be bought: %s (%s)', $need->rule->pack->label(), $need->rule->pack->toPacks($missing)->toScale(1, RoundingMode::HalfUp)),
                '', self::figure($packs).' '.$need->rule->pack->named($packs),
            );
        }
        $notes = [];
        foreach ($late as $order) {
            $notes[] = sprintf('%s, %s %s, is %d days late and no longer counted on.', $order->number, self::figure($order->stockUnits), $need->unit->symbol(), $order->daysLate($need->today));
        }
        if (!$due) {
            $notes[] = sprintf('Nothing is due: %s %s in stock and on order is above the reorder point of %s.', self::figure($position), $need->unit->symbol(), self::figure($reorderPoint));
        }
        $perDay = $forecast->perDay();

        return new Proposal(
            $this->reason($need, $due, $safety),
            $missing,
            $packs,
            $perDay > 0 ? max(0.0, $need->onHand->minus($need->promised)->toFloat()) / $perDay : null,
            new Explanation($lines, $notes, $safety->toFloat(), $reorderPoint->toFloat(), $upTo->toFloat(), $lead),
        );
    }

    private function reason(Need $need, bool $due, BigDecimal $safety): Reason
    {
        return match (true) {
            !$due => Reason::Covered,
            $need->promised->isPositive() && $need->onHand->isLessThan($need->promised) => Reason::Rush,
            !$need->onHand->isPositive() => Reason::Out,
            $need->onHand->minus($need->promised)->isLessThan($safety) => Reason::BelowSafetyStock,
            default => Reason::BelowReorderPoint,
        };
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

    private static function percent(float $share): string
    {
        return rtrim(rtrim(number_format(100 * $share, 1), '0'), '.');
    }
}
