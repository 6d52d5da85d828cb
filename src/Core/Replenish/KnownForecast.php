<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;

/** A forecast and what it rests on: with the same key it need not be made again. */
final readonly class KnownForecast
{
    public function __construct(public string $key, public Forecast $forecast)
    {
    }
}
