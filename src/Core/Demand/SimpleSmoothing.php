<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\InvalidValue;

/**
 * Simple exponential smoothing: level ← level + α (observed − level), started at the first observation.
 *
 * Source: Brown, "Statistical Forecasting for Inventory Control", 1959; the start and the fitted α agree with
 * R's stats::HoltWinters(x, beta = FALSE, gamma = FALSE).
 */
final readonly class SimpleSmoothing
{
    /**
     * @param list<?float> $errors one-step errors (observed − forecast) by week, null where there is none
     */
    private function __construct(public float $alpha, public float $level, public float $sse, public array $errors)
    {
    }

    /**
     * @param list<?float> $demand one value a week, null where unknown
     * @param float|null   $alpha  between 0 and 1; fitted by least squares of one-step errors when null
     *
     * @throws InvalidValue if no week is known
     */
    public static function fit(array $demand, ?float $alpha = null): self
    {
        $first = null;
        foreach ($demand as $week => $value) {
            if (null !== $value) {
                $first = $week;
                break;
            }
        }
        if (null === $first) {
            throw InvalidValue::because('There is no known week to smooth.');
        }
        $alpha ??= self::bestAlpha($demand, $first);
        $level = (float) $demand[$first];
        $errors = array_fill(0, $first + 1, null);
        $sse = 0.0;
        for ($week = $first + 1, $end = count($demand); $week < $end; ++$week) {
            $error = null;
            if (null !== $demand[$week]) {
                $error = $demand[$week] - $level;
                $level += $alpha * $error;
                $sse += $error * $error;
            }
            $errors[] = $error;
        }

        return new self($alpha, $level, $sse, $errors);
    }

    /** @param list<?float> $demand */
    private static function bestAlpha(array $demand, int $first): float
    {
        $start = (float) $demand[$first];
        $known = array_values(array_filter(array_slice($demand, $first + 1), static fn (?float $value): bool => null !== $value));

        return Minimum::find(static function (array $point) use ($start, $known): float {
            $level = $start;
            $sum = 0.0;
            foreach ($known as $value) {
                $error = $value - $level;
                $level += $point[0] * $error;
                $sum += $error * $error;
            }

            return $sum;
        }, [0.3], 0.0, 1.0)[0][0];
    }
}
