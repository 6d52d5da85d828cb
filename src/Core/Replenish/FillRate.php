<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;
use TallBarrel\Core\Demand\Distribution\StandardNormal;

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
     * @param bool         $toLevel      ordered up to a level, and not in fixed lots
     * @param Renewal|null $renewal      of the demand of a review period in whole units, where it is known exactly
     */
    public static function of(
        float $reorderPoint,
        float $lot,
        Distribution $untilNext,
        Distribution $lead,
        bool $toLevel,
        ?Renewal $renewal = null,
    ): float {
        $perReview = $untilNext->mean() - $lead->mean();
        if ($perReview <= 0) {
            return 1.0;
        }
        $short = static fn (float $position): float => max(0.0, $untilNext->loss($position) - $lead->loss($position));
        if ($toLevel && null !== $renewal) {
            $sum = $visits = 0.0;
            for ($j = 0, $end = max(1, (int) round($lot)); $j < $end; ++$j) {
                $sum += $renewal->at($j) * $short($reorderPoint + $lot - $j);
                $visits += $renewal->at($j);
            }

            return max(0.0, 1 - $sum / $visits / $perReview);
        }
        $points = max(1, min(self::POINTS, (int) round($lot)));
        // The positions are those above the reorder point; in whole units the first of them is one above.
        $first = $reorderPoint + ($untilNext instanceof Counts ? 0.5 : 0.0);
        $sum = 0.0;
        for ($i = 0; $lot > 0 && $i < $points; ++$i) {
            $sum += $short($first + ($lot * ($i + 0.5)) / $points);
        }
        $mean = $lot > 0 ? $sum / $points : 0.0;
        if ($toLevel) {
            // Every cycle begins at the level itself; below it positions are passed with the renewal rate 1/μ, in all
            // x/μ − (1 − cv²)/2 times (Smith, Proceedings of the Royal Society of Edinburgh A 64, 1954).
            $variance = max(0.0, $untilNext->deviation() ** 2 - $lead->deviation() ** 2);
            $uneven = min(1.0, $variance / $perReview ** 2);
            $below =
                $lot < 1.5 * $perReview && $uneven < 0.05 && $uneven > 0
                    ? // With a short and even way down, hardly a second position is passed.
                    StandardNormal::cumulative(($lot / $perReview - 1) / sqrt($uneven))
                    : max(0.0, $lot / $perReview - (1 - $uneven) / 2);
            $mean = ($short($reorderPoint + $lot) + $below * $mean) / (1 + $below);
        }

        return max(0.0, 1 - $mean / $perReview);
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
        bool $toLevel,
        ?Renewal $renewal = null,
    ): float {
        $low = -$lot;
        $high = $untilNext->mean() + 4 * $untilNext->deviation() + 1;
        while (self::of($high, $lot, $untilNext, $lead, $toLevel, $renewal) < $share && $high < 1e9) {
            $high *= 2;
        }
        $whole = $untilNext instanceof Counts;
        $close = $whole ? 0.5 : 1e-4 * ($high + 1);
        while ($high - $low > $close) {
            $middle = $whole ? floor(($low + $high) / 2) : ($low + $high) / 2;
            if ($middle <= $low) {
                break;
            }
            if (self::of($middle, $lot, $untilNext, $lead, $toLevel, $renewal) < $share) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        if ($whole) {
            $high = ceil($high);
            $over = self::of($high, $lot, $untilNext, $lead, $toLevel, $renewal) - $share;
            $high -=
                $over > self::OVERSHOOT
                && $share - self::of($high - 1, $lot, $untilNext, $lead, $toLevel, $renewal) < $over
                    ? 1
                    : 0;
        }

        return max(0.0, $high);
    }
}
