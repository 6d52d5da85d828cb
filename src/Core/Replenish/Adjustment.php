<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** A person knows better than the forecast, for a reason and until a day. */
final readonly class Adjustment
{
    public function __construct(public float $percent, public \DateTimeImmutable $until, public string $reason)
    {
    }

    public function factor(): float
    {
        return 1 + $this->percent / 100;
    }

    /** Weeks from today it still holds, begun ones counted whole. */
    public function weeksFrom(\DateTimeImmutable $today): int
    {
        return (int) ceil(((int) $today->diff($this->until)->days) / 7);
    }
}
