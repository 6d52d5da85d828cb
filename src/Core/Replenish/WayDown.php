<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;

/**
 * Where a stock position stands between two orders up to a level, and how often: at the level itself, and then wherever
 * demand from review to review leaves it, until it has come down to the reorder point.
 *
 * Source: the renewal function of the demand of a review period, Karlin, "The Application of Renewal Theory to the
 * Study of Inventory Policies", 1958; Hadley & Whitin, "Analysis of Inventory Systems", 1963, chapter 5.
 */
final readonly class WayDown
{
    /** After so many steps down it has forgotten where it began, and every place is as likely as the next. */
    private const MOST_STEPS = 1500;
    /** Places that stand for all of them. */
    private const PLACES = 48;

    /** @param non-empty-list<array{float, float}> $places stock units below the level, how often it is there */
    private function __construct(public array $places)
    {
    }

    /**
     * @param Distribution $perReview demand from one review to the next, stock units
     * @param float        $lot       stock units between the reorder point and the level
     */
    public static function of(Distribution $perReview, float $lot): self
    {
        $steps = DemandSteps::of($perReview);
        if ($steps->probabilities[0] >= 1.0) {
            return new self([[0.0, 1.0]]);
        }
        $renewal = new Renewal(Counts::of($steps->probabilities));
        $down = max(1, (int) round($lot / $steps->step));
        $known = min($down, self::MOST_STEPS);
        // The first is the level itself, and stands alone.
        $places = [[0.0, $renewal->at(0)]];
        $group = max(1, (int) ceil(($known - 1) / self::PLACES));
        $weight = $moment = 0.0;
        for ($j = 1; $j < $known; ++$j) {
            $visits = $renewal->at($j);
            $weight += $visits;
            $moment += $visits * $j;
            if ($weight > 0 && (0 === $j % $group || $j === $known - 1)) {
                $places[] = [($moment / $weight) * $steps->step, $weight];
                $weight = $moment = 0.0;
            }
        }
        $mean = 0.0;
        foreach ($steps->probabilities as $k => $probability) {
            $mean += $k * $probability;
        }
        for ($from = $known; $mean > 0 && $from < $down; $from = $until) {
            $until = min($down, $from + (int) ceil(($down - $known) / self::PLACES));
            $places[] = [(($from + $until - 1) / 2) * $steps->step, ($until - $from) / $mean];
        }

        return new self($places);
    }

    /**
     * Over all places.
     *
     * @param callable(float): float $of something of the stock units below the level
     */
    public function mean(callable $of): float
    {
        $sum = $visits = 0.0;
        foreach ($this->places as [$below, $often]) {
            $sum += $often * $of($below);
            $visits += $often;
        }

        return $sum / $visits;
    }
}
