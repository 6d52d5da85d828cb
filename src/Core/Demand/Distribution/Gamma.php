<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

use TallBarrel\Core\InvalidValue;

/**
 * Gamma demand: never below zero, leaning to the right. Its use for lead-time demand: Burgin, "The Gamma Distribution
 * and
 * Inventory Control", Operational Research Quarterly 26(3), 1975.
 */
final readonly class Gamma implements Distribution
{
    private float $shape;
    private float $scale;

    /** @throws InvalidValue unless both are above zero */
    public function __construct(private float $mean, private float $deviation)
    {
        if ($mean <= 0 || $deviation <= 0) {
            throw InvalidValue::because(
                sprintf(
                    'No gamma distribution has mean %g and deviation %g; expected both above 0.',
                    $mean,
                    $deviation,
                ),
            );
        }
        $this->shape = ($mean / $deviation) ** 2;
        $this->scale = $deviation ** 2 / $mean;
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
        return $units <= 0 ? 0.0 : self::lower($this->shape, $units / $this->scale);
    }

    public function quantile(float $probability): float
    {
        $low = 0.0;
        $high = $this->mean + 10 * $this->deviation;
        while ($this->cumulative($high) < $probability) {
            $high *= 2;
        }
        for ($i = 0; $i < 60 && $high - $low > 1e-9 * ($high + 1e-9); ++$i) {
            $middle = ($low + $high) / 2;
            if ($this->cumulative($middle) < $probability) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }

        return ($low + $high) / 2;
    }

    /** From x f(x; k) = kθ f(x; k + 1): E[(D − x)⁺] = μ (1 − F(x; k + 1)) − x (1 − F(x; k)). */
    public function loss(float $units): float
    {
        return $units <= 0
            ? $this->mean - $units
            : max(
                0.0,
                $this->mean * (1 - self::lower($this->shape + 1, $units / $this->scale)) -
                    $units * (1 - self::lower($this->shape, $units / $this->scale)),
            );
    }

    /**
     * The regularised lower incomplete gamma function P(a, x): its series below a + 1, its continued fraction above.
     * Source: Abramowitz & Stegun 1964, 6.5.29 and 6.5.31.
     */
    private static function lower(float $a, float $x): float
    {
        $front = exp($a * log($x) - $x - self::logGamma($a));
        if ($x < $a + 1) {
            $term = $sum = 1 / $a;
            for ($n = 1; $n < 10000 && $term > $sum * 1e-15; ++$n) {
                $term *= $x / ($a + $n);
                $sum += $term;
            }

            return min(1.0, $front * $sum);
        }
        $b = $x + 1 - $a;
        $c = 1e300;
        $d = 1 / $b;
        $fraction = $d;
        for ($n = 1; $n < 10000; ++$n) {
            $numerator = -$n * ($n - $a);
            $b += 2;
            $d = 1 / ($numerator * $d + $b);
            $c = $b + $numerator / $c;
            $change = $c * $d;
            $fraction *= $change;
            if (abs($change - 1) < 1e-15) {
                break;
            }
        }

        return max(0.0, 1 - $front * $fraction);
    }

    /**
     * Logarithm of the gamma function by Stirling's series (Abramowitz & Stegun 1964, 6.1.41), raised to where it
     * holds.
     */
    public static function logGamma(float $x): float
    {
        $shift = 0.0;
        while ($x < 12) {
            $shift += log($x);
            ++$x;
        }
        $inverse = 1 / ($x * $x);

        return ($x - 0.5) * log($x) -
            $x +
            0.5 * log(2 * \M_PI) +
            (1 / 12 - $inverse * (1 / 360 - $inverse * (1 / 1260 - $inverse / 1680))) / $x -
            $shift;
    }
}
