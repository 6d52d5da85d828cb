<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/**
 * Plays a stock policy period by period: deliveries arrive, the position is reviewed and ordered, demand comes, and
 * what
 * is held or owed at the end of the period costs. With a lead time of 0 an order serves the demand of its own period.
 */
final readonly class Simulation
{
    private function __construct(
        /** Share of demand served at once. */
        public float $fillRate,
        /** Share of replenishment cycles, from arrival to arrival, in which nothing was owed or lost. */
        public float $cycleService,
        /** Stock units held at the end of a period. */
        public float $averageStock,
        /** Stock units owed at the end of a period. */
        public float $averageOwed,
        public int $orders,
        public float $averageOrder,
        /** Periods in which something was short. */
        public int $stockOuts,
        public float $costPerPeriod,
        public float $demand,
        public int $periods,
    ) {
    }

    /**
     * @param callable(int): StockPolicy $policy     in force at the review of a period, counted from 0
     * @param callable(int): float       $demand     of a period, stock units
     * @param callable(int): int         $leadTime   of an order placed in a period, in periods
     * @param int                        $review     periods from one review to the next
     * @param bool                       $backorders what is short is owed; otherwise the sale is lost
     * @param int                        $warmUp     first periods that are played but not counted
     * @param float|null $startStock stock units on hand at the start; the highest level of the first policy when null
     *
     * @throws InvalidValue if there is nothing to play
     */
    public static function run(
        int $periods,
        callable $policy,
        callable $demand,
        callable $leadTime,
        int $review = 1,
        float $orderCost = 0.0,
        float $holding = 0.0,
        float $shortage = 0.0,
        bool $backorders = true,
        int $warmUp = 0,
        ?float $startStock = null,
    ): self {
        if ($periods < 1 || $review < 1) {
            throw InvalidValue::because(
                sprintf('%d periods reviewed every %d cannot be played; expected 1 or more.', $periods, $review),
            );
        }
        $stock = $startStock ?? max(0.0, $policy(0)->highest());
        $onOrder = 0.0;
        /** @var array<int, float> $arriving */
        $arriving = [];
        $wanted = $short = $held = $owed = $cost = $ordered = 0.0;
        $orders = $stockOuts = $cycles = $shortCycles = 0;
        $shortInCycle = false;
        for ($period = 0, $end = $periods + $warmUp; $period < $end; ++$period) {
            $counts = $period >= $warmUp;
            $price = 0.0;
            $size = 0.0;
            if (0 === $period % $review) {
                $size = $policy($period)->orderAt($stock + $onOrder);
                if ($size > 0) {
                    $arrives = $period + max(0, $leadTime($period));
                    $arriving[$arrives] = ($arriving[$arrives] ?? 0.0) + $size;
                    $onOrder += $size;
                    $price = $orderCost;
                }
            }
            if (isset($arriving[$period])) {
                $stock += $arriving[$period];
                $onOrder -= $arriving[$period];
                unset($arriving[$period]);
                if ($counts) {
                    ++$cycles;
                    $shortCycles += $shortInCycle ? 1 : 0;
                }
                $shortInCycle = false;
            }
            $now = $demand($period);
            $missing = max(0.0, $now - max(0.0, $stock));
            $stock -= $now;
            // What is still owed from a cycle before is short in this one too.
            $shortInCycle = $shortInCycle || $stock < -1e-9;
            if (!$backorders && $stock < 0) {
                $stock = 0.0;
            }
            if ($counts) {
                $wanted += $now;
                $short += $missing;
                $held += max(0.0, $stock);
                $owed += max(0.0, -$stock);
                $cost +=
                    $price + $holding * max(0.0, $stock) + $shortage * ($backorders ? max(0.0, -$stock) : $missing);
                $stockOuts += $missing > 1e-9 ? 1 : 0;
                if ($size > 0) {
                    ++$orders;
                    $ordered += $size;
                }
            }
        }

        return new self(
            $wanted > 0 ? 1 - $short / $wanted : 1.0,
            $cycles > 0 ? 1 - $shortCycles / $cycles : ($short > 0 ? 0.0 : 1.0),
            $held / $periods,
            $owed / $periods,
            $orders,
            $orders > 0 ? $ordered / $orders : 0.0,
            $stockOuts,
            $cost / $periods,
            $wanted,
            $periods,
        );
    }
}
