<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

use TallBarrel\Core\InvalidValue;

/** Demand in whole units, 0, 1, 2 …, each with its probability. */
final readonly class Counts implements Distribution
{
    /** Probability left out at the far end. */
    private const TAIL = 1e-12;
    private const MOST = 200000;

    private float $mean;
    private float $deviation;
    /** @var list<float> probability of no more than so many */
    private array $until;
    /** @var list<float> expected units beyond so many */
    private array $beyond;

    /** @param non-empty-list<float> $probabilities of 0, 1, 2 … units; they add up to one */
    private function __construct(public array $probabilities)
    {
        $sum = $mean = $square = 0.0;
        $until = [];
        foreach ($probabilities as $units => $probability) {
            $until[] = $sum += $probability;
            $mean += $units * $probability;
            $square += $units * $units * $probability;
        }
        $this->mean = $mean;
        $this->deviation = sqrt(max(0.0, $square - $mean * $mean));
        $this->until = $until;
        $beyond = [];
        $loss = $mean;
        foreach ($until as $one) {
            $beyond[] = max(0.0, $loss);
            $loss -= 1 - $one;
        }
        $this->beyond = $beyond;
    }

    /**
     * @param list<float> $probabilities of 0, 1, 2 … units
     *
     * @throws InvalidValue if one is below zero or they add up to nothing
     */
    public static function of(array $probabilities): self
    {
        $sum = array_sum($probabilities);
        if ([] === $probabilities || min($probabilities) < 0 || $sum <= 0) {
            throw InvalidValue::because('Probabilities are 0 or more and add up to something.');
        }

        return new self(array_map(static fn (float $one): float => $one / $sum, $probabilities));
    }

    /** @throws InvalidValue if the mean is below zero */
    public static function poisson(float $mean): self
    {
        if ($mean < 0 || $mean > self::MOST / 4) {
            throw InvalidValue::because(
                sprintf('A Poisson mean of %g is out of range; expected 0 to %d.', $mean, self::MOST / 4),
            );
        }
        if (0.0 === $mean) {
            return new self([1.0]);
        }
        // From the mode outwards, so that nothing underflows.
        $mode = (int) floor($mean);

        return self::fromMode($mode, static fn (int $k): float => $mean / $k);
    }

    /**
     * The negative binomial distribution of a mean and a variance above it.
     *
     * @throws InvalidValue
     */
    public static function negativeBinomial(float $mean, float $variance): self
    {
        if ($mean <= 0 || $variance <= $mean || $mean > self::MOST / 4) {
            throw InvalidValue::because(
                sprintf(
                    'No negative binomial distribution has mean %g and variance %g; expected a mean above 0 and a '
                    .'variance above it.',
                    $mean,
                    $variance,
                ),
            );
        }
        $size = ($mean * $mean) / ($variance - $mean);
        $share = 1 - $mean / $variance;
        $mode = $size > 1 ? (int) floor((($size - 1) * $share) / (1 - $share)) : 0;

        return self::fromMode($mode, static fn (int $k): float => (($k - 1 + $size) / $k) * $share);
    }

    /**
     * Any distribution, cut into whole units: each unit gets what lies within half a unit of it, and zero all below.
     */
    public static function rounding(Distribution $distribution): self
    {
        if ($distribution instanceof self) {
            return $distribution;
        }
        $probabilities = [];
        $before = 0.0;
        for ($k = 0; $k < self::MOST; ++$k) {
            $until = $distribution->cumulative($k + 0.5);
            $probabilities[] = max(0.0, $until - $before);
            $before = $until;
            if ($until > 1 - self::TAIL) {
                break;
            }
        }

        return self::of($probabilities);
    }

    /** The sum of independent demands. */
    public function plus(self $other): self
    {
        $sum = array_fill(0, count($this->probabilities) + count($other->probabilities) - 1, 0.0);
        foreach ($this->probabilities as $i => $p) {
            if ($p > 0) {
                foreach ($other->probabilities as $j => $q) {
                    $sum[$i + $j] += $p * $q;
                }
            }
        }
        $gone = 0.0;
        $last = count($sum) - 1;
        while ($last > 0 && $gone + $sum[$last] < self::TAIL) {
            $gone += $sum[$last--];
        }

        return self::of(array_slice($sum, 0, $last + 1));
    }

    /** The demand of so many independent periods. */
    public function times(int $periods): self
    {
        $sum = new self([1.0]);
        for ($power = $this; $periods > 0; $periods >>= 1) {
            if (1 === ($periods & 1)) {
                $sum = $sum->plus($power);
            }
            $power = $periods > 1 ? $power->plus($power) : $power;
        }

        return $sum;
    }

    /**
     * One of several, each with its probability.
     *
     * @param non-empty-list<array{self, float}> $parts
     */
    public static function mixture(array $parts): self
    {
        $sum = [];
        foreach ($parts as [$part, $weight]) {
            foreach ($part->probabilities as $units => $probability) {
                $sum[$units] = ($sum[$units] ?? 0.0) + $weight * $probability;
            }
        }
        ksort($sum);

        return self::of(array_values($sum));
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
        return $units < 0 ? 0.0 : $this->until[(int) floor($units)] ?? 1.0;
    }

    public function quantile(float $probability): float
    {
        $low = 0;
        $high = count($this->until) - 1;
        while ($low < $high) {
            $middle = intdiv($low + $high, 2);
            if ($this->until[$middle] < $probability) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return (float) $low;
    }

    public function loss(float $units): float
    {
        if ($units < 0) {
            return $this->mean - $units;
        }
        $low = (int) floor($units);
        $here = $this->beyond[$low] ?? 0.0;

        return $here + ($units - $low) * (($this->beyond[$low + 1] ?? 0.0) - $here);
    }

    /** @param callable(int): float $ratio probability of k units over that of k − 1 */
    private static function fromMode(int $mode, callable $ratio): self
    {
        $up = [1.0];
        $down = [];
        for ($k = $mode + 1, $p = 1.0; $p > self::TAIL * 1e-3 && $k < self::MOST; ++$k) {
            $up[] = $p *= $ratio($k);
        }
        for ($k = $mode, $p = 1.0; $k >= 1; --$k) {
            $p /= $ratio($k);
            $down[] = $p > self::TAIL * 1e-3 ? $p : 0.0;
        }

        return self::of([...array_reverse($down), ...$up]);
    }
}
