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

    public function words(): string
    {
        $times = 1.0 === $this->factor ? '' : sprintf(', × %g', $this->factor);

        return sprintf('Too new for a history of its own: expected to sell like %s%s.', $this->code, $times);
    }
}
