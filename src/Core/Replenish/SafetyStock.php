<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;

/** What is kept against doubt, so that the service aimed at is reached. */
final readonly class SafetyStock
{
    /**
     * From the distribution of demand until the order after this one arrives, lead time included.
     *
     * @param float $lot     stock units between the reorder point and the highest position after ordering
     * @param bool  $toLevel ordered up to a level, and not in fixed lots
     *
     * @return float stock units, 0 or more
     */
    public static function for(
        ServiceTarget $target,
        Forecast $forecast,
        LeadTime $leadTime,
        int $reviewDays,
        float $lot,
        bool $toLevel,
    ): float {
        $untilNext = $forecast->distribution($leadTime->days + $reviewDays, $leadTime->spread);
        if ($untilNext->mean() <= 0 || $untilNext->deviation() <= 0) {
            return 0.0;
        }
        $lead = $forecast->distribution($leadTime->days, $leadTime->spread);
        $perReview = $forecast->shape->with(
            $untilNext->mean() - $lead->mean(),
            sqrt(max(0.0, $untilNext->deviation() ** 2 - $lead->deviation() ** 2)),
            $forecast->errors,
        );
        $point = $target->isFill()
            ? FillRate::reorderPoint(
                $target->level,
                $lot,
                $untilNext,
                $lead,
                $toLevel ? WayDown::of($perReview, $lot) : null,
            )
            : CycleService::reorderPoint($target->level, $lot, $untilNext, $lead, $perReview, $toLevel);

        return max(0.0, $point - $untilNext->mean());
    }
}
