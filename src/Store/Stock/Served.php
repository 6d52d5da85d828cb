<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** Demand in money at sales price, home currency: what was sold, and what is thought to have been missed. */
final readonly class Served
{
    /** @param float $margin of what was missed, over average cost */
    public function __construct(public string $of, public float $sold, public float $missed, public float $margin)
    {
    }

    /** 0 to 1; 1 where nothing was wanted. */
    public function share(): float
    {
        return $this->sold + $this->missed > 0 ? $this->sold / ($this->sold + $this->missed) : 1.0;
    }

    /** @param list<self> $parts */
    public static function together(array $parts, string $of = ''): self
    {
        return new self(
            $of,
            array_sum(array_map(static fn (self $one): float => $one->sold, $parts)),
            array_sum(array_map(static fn (self $one): float => $one->missed, $parts)),
            array_sum(array_map(static fn (self $one): float => $one->margin, $parts)),
        );
    }
}
