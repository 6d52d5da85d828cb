<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;

/**
 * The share of cycles, each from one arrival to the next, that pass without a shortage: an order is there in time if
 * what the position had fallen to when it was placed covers the demand of its lead time.
 *
 * Source: Silver, Pyke & Peterson, chapter 7: service P1 under periodic review, the undershoot included.
 */
final readonly class CycleService
{
    /** So near to the share asked for is near enough. */
    private const CLOSE = 0.0005;

    /** @param Distribution $lead demand over the lead time, stock units */
    public static function of(float $reorderPoint, Undershoot $undershoot, Distribution $lead): float
    {
        $covered = 0.0;
        foreach ($undershoot->places as [$below, $probability]) {
            $left = $reorderPoint - $below;
            $covered += $left < 0 ? 0.0 : $probability * $lead->cumulative($left);
        }

        return $covered;
    }

    /**
     * The reorder point that reaches the share asked for, in stock units, 0 or more; where whole units would
     * overshoot by much, the one below if it is nearer.
     *
     * @param float        $share   above 0 and below 1
     * @param float        $lot     stock units between the reorder point and the highest position after ordering; 0
     *      where it is ordered up to a level at every review
     * @param Distribution $untilNext demand over lead time and review period
     * @param Distribution $lead      demand over the lead time
     * @param Distribution $perReview demand from one review to the next
     * @param bool         $toLevel   ordered up to a level, and not in fixed lots
     */
    public static function reorderPoint(
        float $share,
        float $lot,
        Distribution $untilNext,
        Distribution $lead,
        Distribution $perReview,
        bool $toLevel,
    ): float {
        if ($lot <= 0) {
            // An order is placed only where something was wanted since the one before.
            $none = $perReview instanceof Counts ? $perReview->cumulative(0) : 0.0;
            $service = static fn (float $level): float => $level < 0 || $none >= 1
                ? 0.0
                : ($untilNext->cumulative($level) - $none * $lead->cumulative($level)) / (1 - $none);
        } else {
            $undershoot = Undershoot::of($perReview, $lot, $toLevel);
            $service = static fn (float $point): float => self::of($point, $undershoot, $lead);
        }
        $whole = $untilNext instanceof Counts;

        return self::least($service, $share, $untilNext->mean() + 4 * $untilNext->deviation() + 1, $whole);
    }

    /** @param callable(float): float $service rising with the point */
    private static function least(callable $service, float $share, float $high, bool $whole): float
    {
        $above = $service($high) - $share;
        while ($above < 0 && $high < 1e9) {
            $high *= 2;
            $above = $service($high) - $share;
        }
        $low = 0.0;
        $under = $service($low) - $share;
        if ($under >= 0) {
            return $low;
        }
        $high = $whole ? ceil($high) : $high;
        $close = $whole ? 1.0 : 1e-4 * ($high + 1);
        $before = 0;
        while ($high - $low > $close && ($whole || $above > self::CLOSE)) {
            // By halves in whole units, else by the straight line between; an end that stays counts half (Illinois).
            $middle = $whole
                ? floor(($low + $high) / 2)
                : $high - (($high - $low) * $above) / ($above - $under);
            $there = $service($middle) - $share;
            if ($there < 0) {
                [$low, $under, $above] = [$middle, $there, -1 === $before ? $above / 2 : $above];
                $before = -1;
            } else {
                [$high, $above, $under] = [$middle, $there, 1 === $before ? $under / 2 : $under];
                $before = 1;
            }
        }
        if (!$whole) {
            return $high;
        }
        $over = $service($high) - $share;

        return $over > FillRate::OVERSHOOT && $share - $service($low) < $over ? $low : $high;
    }
}
