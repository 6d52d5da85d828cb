<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

use TallBarrel\Core\InvalidValue;

/** The standard normal distribution. */
final readonly class StandardNormal
{
    public static function density(float $z): float
    {
        return exp((-$z * $z) / 2) / sqrt(2 * \M_PI);
    }

    /**
     * Probability of a value up to z, to about 1e-15: the series of Marsaglia, "Evaluating the Normal Distribution",
     * Journal of Statistical Software 11(4), 2004; beyond ±7 the asymptotic expansion of the tail
     * (Abramowitz & Stegun 1964, 26.2.12).
     */
    public static function cumulative(float $z): float
    {
        if ($z < -7.0) {
            $square = $z * $z;

            return (self::density($z) / -$z) *
                (1 - 1 / $square + 3 / $square ** 2 - 15 / $square ** 3 + 105 / $square ** 4);
        }
        if ($z > 7.0) {
            return 1.0 - self::cumulative(-$z);
        }
        $sum = $term = $z;
        $before = 0.0;
        for ($i = 3; $sum !== $before; $i += 2) {
            $before = $sum;
            $term *= ($z * $z) / $i;
            $sum += $term;
        }

        return 0.5 + $sum * self::density($z);
    }

    /**
     * The value that is not exceeded with the probability given, by Newton's method on cumulative().
     *
     * @param float $probability above 0 and below 1
     *
     * @throws InvalidValue
     */
    public static function quantile(float $probability): float
    {
        if ($probability <= 0.0 || $probability >= 1.0) {
            throw InvalidValue::because(
                sprintf('A probability of %g has no quantile; expected above 0 and below 1.', $probability),
            );
        }
        $z = 0.0;
        for ($i = 0; $i < 200; ++$i) {
            $step = max(-1.0, min(1.0, (self::cumulative($z) - $probability) / max(self::density($z), 1e-300)));
            $z -= $step;
            if (abs($step) < 1e-13) {
                break;
            }
        }

        return $z;
    }

    /**
     * Unit normal loss G(k) = φ(k) − k (1 − Φ(k)): the units short of k standard deviations, expected.
     * Source: Silver, Pyke & Peterson, "Inventory Management and Production Planning and Scheduling", appendix on the
     * unit normal distribution.
     */
    public static function loss(float $k): float
    {
        return self::density($k) - $k * self::cumulative(-$k);
    }
}
