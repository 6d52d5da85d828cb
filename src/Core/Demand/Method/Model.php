<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** A forecasting method with its parameters settled, ready to be carried along a series. */
interface Model
{
    /**
     * Goes along the series once and forecasts from each origin, knowing only the values before it.
     *
     * @param list<?float> $demand  one value a period, null where unknown
     * @param list<int>    $origins rising positions; the origin n of a series of n values forecasts what comes after it
     * @param int          $ahead   how many periods to forecast from each
     *
     * @return array<int, list<float>> expected values by origin
     */
    public function roll(array $demand, array $origins, int $ahead): array;
}
