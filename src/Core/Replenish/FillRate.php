<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;

/**
 * The share of demand that is served at once from the shelf, under periodic review.
 *
 * Of what is wanted in one review period after an order could arrive, short is E[(D_{L+R} − y)⁺] − E[(D_L − y)⁺] when
 * the
 * stock position after ordering was y; averaged over the positions a policy leaves behind. Source: Hadley & Whitin,
 * "Analysis of Inventory Systems", 1963, chapter 5; Silver, Pyke & Peterson, chapter 7.
 */
final readonly class FillRate
{
    /** So much more than asked for is not wanted either: stock costs, too. */
    public const OVERSHOOT = 0.007;
    private const POINTS = 48;

    /**
     * @param float        $reorderPoint ordered at or below it
     * @param float        $lot          from the reorder point to the highest position after ordering
     * @param Distribution $untilNext    demand over lead time and review period
     * @param Distribution $lead         demand over the lead time
     * @param WayDown|null $way          from the level to the reorder point; null for fixed lots
     */
    public static function of(
        float $reorderPoint,
        float $lot,
        Distribution $untilNext,
        Distribution $lead,
        ?WayDown $way = null,
    ): float {
        $perReview = $untilNext->mean() - $lead->mean();
        if ($perReview <= 0) {
            return 1.0;
        }
        $short = static fn (float $position): float => max(0.0, $untilNext->loss($position) - $lead->loss($position));
        if (null !== $way) {
            $level = $reorderPoint + $lot;
            $mean = $way->mean(static fn (float $below): float => $short($level - $below));

            return max(0.0, 1 - $mean / $perReview);
        }
        // In lots every position above the reorder point is as likely; in whole units the first of them is one above.
        $points = max(1, min(self::POINTS, (int) round($lot)));
        $first = $reorderPoint + ($untilNext instanceof Counts ? 0.5 : 0.0);
        $sum = 0.0;
        for ($i = 0; $lot > 0 && $i < $points; ++$i) {
            $sum += $short($first + ($lot * ($i + 0.5)) / $points);
        }

        return max(0.0, 1 - $sum / $points / $perReview);
    }

    /**
     * The reorder point that reaches the share asked for, in stock units, 0 or more; where whole units would overshoot
     * by much, the one below if it is nearer.
     */
    public static function reorderPoint(
        float $share,
        float $lot,
        Distribution $untilNext,
        Distribution $lead,
        ?WayDown $way = null,
    ): float {
        $low = -$lot;
        $high = $untilNext->mean() + 4 * $untilNext->deviation() + 1;
        while (self::of($high, $lot, $untilNext, $lead, $way) < $share && $high < 1e9) {
            $high *= 2;
        }
        $whole = $untilNext instanceof Counts;
        $close = $whole ? 0.5 : 1e-4 * ($high + 1);
        while ($high - $low > $close) {
            $middle = $whole ? floor(($low + $high) / 2) : ($low + $high) / 2;
            if ($middle <= $low) {
                break;
            }
            if (self::of($middle, $lot, $untilNext, $lead, $way) < $share) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        if ($whole) {
            $high = ceil($high);
            $over = self::of($high, $lot, $untilNext, $lead, $way) - $share;
            $high -=
                $over > self::OVERSHOOT
                && $share - self::of($high - 1, $lot, $untilNext, $lead, $way) < $over
                    ? 1
                    : 0;
        }

        return max(0.0, $high);
    }
}
