<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

/** Which family of distributions describes what may be wanted, once its mean and spread are known. */
enum Shape: string
{
    case Normal = 'normal';
    case Gamma = 'gamma';
    case Counts = 'counts';
    case Errors = 'errors';

    /** With a mean so many deviations above zero, a normal distribution hardly reaches below it. */
    private const FAR_FROM_ZERO = 3.0;
    /** So many errors can speak for themselves. */
    private const ENOUGH_ERRORS = 30;
    /** Up to so many expected units, whole units are counted. */
    private const FEW_UNITS = 60.0;
    /** 95 % point of the χ² distribution with two degrees of freedom. */
    private const CHI_SQUARE = 5.991;

    /**
     * Normal where that fits; the errors themselves where there are enough and they are not normal; for few whole units
     * negative binomial (or Poisson); for the rest gamma.
     *
     * @param float       $mean      units expected
     * @param float       $deviation of the errors, in units
     * @param list<float> $errors    made at this horizon
     */
    public static function fitting(float $mean, float $deviation, array $errors): self
    {
        if ($mean > self::FAR_FROM_ZERO * $deviation) {
            return count($errors) < self::ENOUGH_ERRORS || self::looksNormal($errors) ? self::Normal : self::Errors;
        }

        return $mean <= self::FEW_UNITS ? self::Counts : self::Gamma;
    }

    /** @param list<float> $standardised errors with mean 0 and deviation 1, for the shape that uses them */
    public function with(float $mean, float $deviation, array $standardised = []): Distribution
    {
        if ($mean <= 0 || $deviation <= 0) {
            return new Normal(max(0.0, $mean), 0.0);
        }

        return match ($this) {
            self::Normal => new Normal($mean, $deviation),
            self::Gamma => new Gamma($mean, $deviation),
            self::Counts => $mean > self::FEW_UNITS * 20
                ? new Gamma($mean, $deviation)
                : ($deviation ** 2 > $mean * 1.001
                    ? Counts::negativeBinomial($mean, $deviation ** 2)
                    : Counts::poisson($mean)),
            self::Errors => [] === $standardised
                ? new Normal($mean, $deviation)
                : Empirical::of(
                    array_map(static fn (float $error): float => max(0.0, $mean + $deviation * $error), $standardised),
                ),
        };
    }

    public function words(): string
    {
        return match ($this) {
            self::Normal => 'normal',
            self::Gamma => 'gamma',
            self::Counts => 'negative binomial',
            self::Errors => 'as the errors were',
        };
    }

    /**
     * Source: Jarque & Bera, Economics Letters 6(3), 1980: n/6 (S² + (K − 3)²/4) against χ² with two degrees.
     *
     * @param list<float> $errors
     */
    private static function looksNormal(array $errors): bool
    {
        $count = count($errors);
        $mean = array_sum($errors) / $count;
        $two = $three = $four = 0.0;
        foreach ($errors as $error) {
            $d = $error - $mean;
            $two += $d * $d;
            $three += $d ** 3;
            $four += $d ** 4;
        }
        if ($two <= 0) {
            return true;
        }
        $variance = $two / $count;
        $skewness = $three / $count / $variance ** 1.5;
        $kurtosis = $four / $count / $variance ** 2;

        return ($count / 6) * ($skewness ** 2 + ($kurtosis - 3) ** 2 / 4) < self::CHI_SQUARE;
    }
}
