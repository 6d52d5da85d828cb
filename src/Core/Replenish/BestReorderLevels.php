<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\InvalidValue;

/**
 * The cheapest (s, S) for demand that stays as it is: order up to S whenever the position is at or below s, at a fixed
 * cost for each order, a cost for each unit held at the end of a period, and one for each unit owed.
 *
 * Source: Zheng & Federgruen, "Finding Optimal (s, S) Policies Is About as Simple as Evaluating a Single Policy",
 * Operations Research 39(4), 1991.
 */
final readonly class BestReorderLevels
{
    private function __construct(public int $reorderPoint, public int $orderUpTo, public float $costPerPeriod)
    {
    }

    /**
     * @param Counts $perPeriod demand of one period
     * @param Counts $untilHere demand from ordering until the end of the period in which the order is of use: lead time
     *      and one period
     *
     * @throws InvalidValue if a cost is below zero or nothing is ever wanted
     */
    public static function of(
        Counts $perPeriod,
        Counts $untilHere,
        float $orderCost,
        float $holding,
        float $shortage,
    ): self {
        if ($orderCost < 0 || $holding <= 0 || $shortage <= 0 || $perPeriod->mean() <= 0) {
            throw InvalidValue::because(
                sprintf(
                    'No best levels for order cost %g, holding %g, shortage %g and a mean demand of %g; expected 0 '
                    .'or more for the first and above 0 for the others.',
                    $orderCost,
                    $holding,
                    $shortage,
                    $perPeriod->mean(),
                ),
            );
        }
        $cost = [];
        $oneStep = static function (int $position) use (&$cost, $untilHere, $holding, $shortage): float {
            return $cost[$position] ??=
                $holding * ($position - $untilHere->mean()) + ($holding + $shortage) * $untilHere->loss($position);
        };
        $renewal = new Renewal($perPeriod);
        $average = static function (int $s, int $top) use ($renewal, $oneStep, $orderCost): float {
            $sum = $orderCost;
            $length = 0.0;
            for ($j = 0; $j < $top - $s; ++$j) {
                $visits = $renewal->at($j);
                $sum += $visits * $oneStep($top - $j);
                $length += $visits;
            }

            return $sum / $length;
        };
        $lowest = (int) $untilHere->quantile($shortage / ($shortage + $holding));
        $best = $s = $lowest;
        do {
            --$s;
            $reached = $average($s, $best);
        } while ($reached > $oneStep($s));
        for ($top = $best + 1; $oneStep($top) <= $reached; ++$top) {
            if ($average($s, $top) < $reached) {
                $best = $top;
                while ($average($s, $best) <= $oneStep($s + 1)) {
                    ++$s;
                }
                $reached = $average($s, $best);
            }
        }

        return new self($s, $best, $reached);
    }

    /** What a period costs under given levels: the function that is minimised. */
    public static function costOf(
        int $reorderPoint,
        int $orderUpTo,
        Counts $perPeriod,
        Counts $untilHere,
        float $orderCost,
        float $holding,
        float $shortage,
    ): float {
        $renewal = new Renewal($perPeriod);
        $sum = $orderCost;
        $length = 0.0;
        for ($j = 0; $j < $orderUpTo - $reorderPoint; ++$j) {
            $position = $orderUpTo - $j;
            $sum +=
                $renewal->at($j) *
                ($holding * ($position - $untilHere->mean()) + ($holding + $shortage) * $untilHere->loss($position));
            $length += $renewal->at($j);
        }

        return $sum / $length;
    }
}
