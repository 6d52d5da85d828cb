<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\WeeklyHistory;

/** Another item that a new one is expected to sell like. */
final readonly class SellsLike
{
    /** @param float $factor how much of it: 1.2 for a fifth more */
    public function __construct(public string $code, public WeeklyHistory $history, public float $factor)
    {
    }
}
