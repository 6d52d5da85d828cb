<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

/** One of several demands, each with its probability: demand over a lead time that varies. */
final readonly class Mixture implements Distribution
{
    /** @param non-empty-list<array{Distribution, float}> $parts with their probabilities, which add up to one */
    public function __construct(private array $parts)
    {
    }

    public function mean(): float
    {
        return $this->sum(static fn (Distribution $part): float => $part->mean());
    }

    public function deviation(): float
    {
        $mean = $this->mean();

        return sqrt(
            $this->sum(static fn (Distribution $part): float => $part->deviation() ** 2 + ($part->mean() - $mean) ** 2),
        );
    }

    public function cumulative(float $units): float
    {
        return $this->sum(static fn (Distribution $part): float => $part->cumulative($units));
    }

    public function quantile(float $probability): float
    {
        $each = array_map(static fn (array $part): float => $part[0]->quantile($probability), $this->parts);
        $low = min($each);
        $high = max($each);
        for ($i = 0; $i < 60 && $high - $low > 1e-9 * (abs($high) + 1e-9); ++$i) {
            $middle = ($low + $high) / 2;
            if ($this->cumulative($middle) < $probability) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return $high;
    }

    public function loss(float $units): float
    {
        return $this->sum(static fn (Distribution $part): float => $part->loss($units));
    }

    /** @param callable(Distribution): float $of */
    private function sum(callable $of): float
    {
        $sum = 0.0;
        foreach ($this->parts as [$part, $weight]) {
            $sum += $weight * $of($part);
        }

        return $sum;
    }
}
