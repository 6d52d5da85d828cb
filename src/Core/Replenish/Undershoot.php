<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;

/**
 * How far below its reorder point a stock position has fallen when it is looked at and ordered: between two reviews
 * demand does not stop at the point. The whole of it goes missing where only the lead time is covered.
 *
 * Source: Silver, Pyke & Peterson, "Inventory Management and Production Planning and Scheduling", chapter 7; the
 * overshoot of a renewal process, Karlin, "The Application of Renewal Theory to the Study of Inventory Policies",
 * 1958. Worked out in steps: whole units where demand comes in few of them, else as many as the range needs.
 */
final readonly class Undershoot
{
    /** After so many steps down a renewal process has forgotten where it began. */
    private const MOST_STEPS = 1500;
    /** Places that stand for the steps where these are not whole units. */
    private const PLACES = 16;

    /** @param list<array{float, float}> $places stock units below the point, and how likely */
    private function __construct(public array $places)
    {
    }

    /**
     * @param Distribution $perReview demand from one review to the next, stock units
     * @param float        $lot       stock units between the reorder point and the highest position after ordering
     * @param bool         $toLevel   ordered up to a level, and not in fixed lots
     */
    public static function of(Distribution $perReview, float $lot, bool $toLevel): self
    {
        $inSteps = DemandSteps::of($perReview);
        [$demand, $step] = [$inSteps->probabilities, $inSteps->step];
        $steps = max(1, (int) round($lot / $step));
        $below = $toLevel ? self::fromLevel($demand, $steps) : self::fromLots($demand, $steps);
        $sum = array_sum($below);
        // Whole units are exact; of steps, neighbours are put together, each group at its mean.
        $least = $perReview instanceof Counts && 1.0 === $step ? 0.0 : $sum / self::PLACES;
        $places = [];
        $weight = $moment = 0.0;
        foreach ($below as $steps => $probability) {
            $weight += $probability;
            $moment += $steps * $probability;
            if ($weight > $least) {
                $places[] = [($moment / $weight) * $step, $weight / $sum];
                $weight = $moment = 0.0;
            }
        }
        if ($weight > 0) {
            $places[] = [($moment / $weight) * $step, $weight / $sum];
        }

        return new self([] === $places ? [[0.0, 1.0]] : $places);
    }

    /** Mean of it, stock units. */
    public function mean(): float
    {
        return array_sum(array_map(static fn (array $place): float => $place[0] * $place[1], $this->places));
    }

    /**
     * The way down begins at the level each time: a position is left by the demand that jumps over the point.
     *
     * @param non-empty-list<float> $demand
     *
     * @return list<float>
     */
    private static function fromLevel(array $demand, int $steps): array
    {
        $longest = count($demand) - 1;
        $renewal = new Renewal(Counts::of($demand));
        $below = array_fill(0, max(1, $longest), 0.0);
        // A place in the middle of a long way stands for those before it, where what sells in twelves is as far on.
        if ($steps > self::MOST_STEPS) {
            $steps = self::MOST_STEPS + ($steps - self::MOST_STEPS) % self::inThese($demand);
        }
        for ($j = max(0, $steps - $longest); $j < $steps; ++$j) {
            $visits = $renewal->at($j);
            for ($u = 0, $i = $steps - $j; $i <= $longest; ++$i, ++$u) {
                $below[$u] += $visits * $demand[$i];
            }
        }

        return array_values($below);
    }

    /**
     * The number of steps that all demand is a multiple of.
     *
     * @param list<float> $demand
     */
    private static function inThese(array $demand): int
    {
        $common = 0;
        foreach ($demand as $steps => $probability) {
            if ($probability > 0) {
                for ($other = $steps; $other > 0; [$common, $other] = [$other, $common % $other]) {
                }
            }
        }

        return max(1, $common);
    }

    /**
     * In lots every position above the point is as likely as the other.
     *
     * @param non-empty-list<float> $demand
     *
     * @return list<float>
     */
    private static function fromLots(array $demand, int $steps): array
    {
        $longest = count($demand) - 1;
        $more = array_fill(0, $longest + 2, 0.0);
        for ($k = $longest; $k >= 0; --$k) {
            $more[$k] = $more[$k + 1] + $demand[$k];
        }
        $below = [];
        for ($u = 0; $u < max(1, $longest); ++$u) {
            $below[] = ($more[$u + 1] ?? 0.0) - ($more[$u + 1 + $steps] ?? 0.0);
        }

        return $below;
    }
}
