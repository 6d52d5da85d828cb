<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

/** Normal demand. */
final readonly class Normal implements Distribution
{
    public function __construct(private float $mean, private float $deviation)
    {
    }

    public function mean(): float
    {
        return $this->mean;
    }

    public function deviation(): float
    {
        return $this->deviation;
    }

    public function cumulative(float $units): float
    {
        return $this->deviation > 0
            ? StandardNormal::cumulative(($units - $this->mean) / $this->deviation)
            : ($units >= $this->mean
                ? 1.0
                : 0.0);
    }

    public function quantile(float $probability): float
    {
        return $this->mean + ($this->deviation > 0 ? $this->deviation * StandardNormal::quantile($probability) : 0.0);
    }

    public function loss(float $units): float
    {
        return $this->deviation > 0
            ? $this->deviation * StandardNormal::loss(($units - $this->mean) / $this->deviation)
            : max(0.0, $this->mean - $units);
    }
}
