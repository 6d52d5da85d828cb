<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * Safety stock for a cycle service level: z × the standard deviation of demand until the order after this one arrives.
 *
 * Source: Silver, Pyke & Peterson, "Inventory Management and Production Planning and Scheduling", chapter 7, with demand
 * and lead time varying independently: σ² = D σ_d² + d² σ_L².
 */
final readonly class SafetyStock
{
    /**
     * Standard deviation of demand over a time that varies itself, in stock units.
     *
     * @param float $sigmaOfDemand standard deviation of demand over the mean time, in stock units
     * @param float $demandPerDay  stock units a day
     * @param float $spreadOfDays  standard deviation of the time, in days
     */
    public static function deviation(float $sigmaOfDemand, float $demandPerDay, float $spreadOfDays): float
    {
        return sqrt($sigmaOfDemand ** 2 + ($demandPerDay * $spreadOfDays) ** 2);
    }

    /** Stock units, never below zero: a wanted service under one half buys no safety. */
    public static function forCycleService(float $service, float $deviation): float
    {
        return max(0.0, NormalDistribution::quantile($service) * $deviation);
    }
}
