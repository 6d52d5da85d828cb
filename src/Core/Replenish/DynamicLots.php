<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** Lot sizes for demand that changes from period to period and is known. */
final readonly class DynamicLots
{
    /**
     * @param list<float> $lots what is ordered in each period, 0 in most
     * @param float       $cost of ordering and holding
     */
    private function __construct(public array $lots, public float $cost)
    {
    }

    /**
     * The cheapest plan there is.
     *
     * Source: Wagner & Whitin, "Dynamic Version of the Economic Lot Size Model", Management Science 5(1), 1958.
     *
     * @param list<float>       $demand  stock units by period
     * @param list<float>|float $order   cost of an order, the same in each period or one for each
     * @param float             $holding cost of keeping one unit from one period to the next
     *
     * @throws InvalidValue
     */
    public static function wagnerWhitin(array $demand, array|float $order, float $holding): self
    {
        $count = self::check($demand, $order, $holding);
        $orders = is_float($order) ? array_fill(0, $count, $order) : $order;
        // $least[$t]: cheapest way to serve the first $t periods; $from[$t]: the period of its last order.
        $least = [0.0];
        $from = [];
        for ($end = 1; $end <= $count; ++$end) {
            $least[$end] = INF;
            $held = $units = 0.0;
            for ($start = $end - 1; $start >= 0; --$start) {
                // Ordering one period earlier holds all that comes after for one more.
                $held += $holding * $units;
                $units += $demand[$start];
                $cost = $least[$start] + ($units > 0 ? $orders[$start] : 0.0) + $held;
                if ($cost < $least[$end] - 1e-9) {
                    $least[$end] = $cost;
                    $from[$end] = $start;
                }
            }
        }
        $lots = array_fill(0, $count, 0.0);
        for ($end = $count; $end > 0; $end = $from[$end]) {
            $lots[$from[$end]] = (float) array_sum(array_slice($demand, $from[$end], $end - $from[$end]));
        }

        return new self(array_values($lots), $least[$count]);
    }

    /**
     * Each lot covers periods as long as the cost per period falls.
     *
     * Source: Silver & Meal, "A Heuristic for Selecting Lot Size Quantities for the Case of a Deterministic
     * Time-Varying
     * Demand Rate", Production and Inventory Management 14(2), 1973.
     *
     * @param list<float>       $demand
     * @param list<float>|float $order
     *
     * @throws InvalidValue
     */
    public static function silverMeal(array $demand, array|float $order, float $holding): self
    {
        $count = self::check($demand, $order, $holding);
        $lots = array_fill(0, $count, 0.0);
        $total = 0.0;
        for ($start = 0; $start < $count; $start = $end) {
            $end = $start + 1;
            if ($demand[$start] <= 0.0) {
                continue;
            }
            $cost = is_float($order) ? $order : $order[$start];
            for (; $end < $count; ++$end) {
                $longer = $cost + $holding * ($end - $start) * $demand[$end];
                if ($longer / ($end - $start + 1) > $cost / ($end - $start)) {
                    break;
                }
                $cost = $longer;
            }
            $lots[$start] = (float) array_sum(array_slice($demand, $start, $end - $start));
            $total += $cost;
        }

        return new self(array_values($lots), $total);
    }

    /** How many periods the first lot covers, 0 if nothing is ever wanted. */
    public function firstCovers(): int
    {
        $first = null;
        foreach ($this->lots as $period => $lot) {
            if ($lot > 0) {
                if (null !== $first) {
                    return $period;
                }
                $first = $period;
            }
        }

        return null === $first ? 0 : count($this->lots);
    }

    /**
     * @param list<float>       $demand
     * @param list<float>|float $order
     */
    private static function check(array $demand, array|float $order, float $holding): int
    {
        if (
            [] === $demand
            || $holding < 0
            || min($demand) < 0
            || (is_array($order) ? count($order) !== count($demand) || min($order) < 0 : $order < 0)
        ) {
            throw InvalidValue::because(
                'Lot sizes need demand of 0 or more, a cost of ordering of 0 or more for each period, and a holding '
                .'cost of 0 or more.',
            );
        }

        return count($demand);
    }
}
