<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Distribution\StandardNormal;

/** Quantiles of each coming value, opened as far as the errors at each distance were. */
final readonly class Fan
{
    private const ENOUGH = 4;
    private const LEAST_FREEDOM = 3.0;

    /**
     * @param list<float> $levels probabilities above 0 and below 1
     *
     * @return array<int|string, list<float>> by probability, a value for each step ahead; never below zero
     */
    public static function of(Outcome $outcome, array $levels): array
    {
        $deviations = self::deviations($outcome);
        // Errors that overlap tell less than as many that do not; 1.2 of them count (by trial, on R's own series).
        $horizon = count($outcome->means);
        $freedom = max(self::LEAST_FREEDOM, 1.2 * count($outcome->errors['each'][1] ?? []) / max(1, $horizon));
        $quantiles = [];
        foreach ($outcome->means as $h => $mean) {
            $errors = $outcome->errors['each'][$h + 1] ?? ($outcome->errors['each'][1] ?? []);
            $deviation = $deviations[$h];
            $scale = self::rootMeanSquare($errors);
            $shape = Shape::fitting($mean, $deviation, $errors);
            // Where the spread is nearly all there is, whole units cannot be assumed of a series of any kind.
            $shape = Shape::Counts === $shape && $mean > 20 ? Shape::Gamma : $shape;
            $standardised = Shape::Errors === $shape && $scale > 0
                ? array_map(static fn (float $error): float => $error / $scale, $errors)
                : [];
            foreach ($levels as $level) {
                $wider = $deviation * self::doubt($level, $freedom);
                $quantiles[(string) $level][] = max(0.0, $shape->with($mean, $wider, $standardised)->quantile($level));
            }
        }

        return $quantiles;
    }

    /**
     * How much further out a quantile lies because the deviation is itself only estimated: Student's t against the
     * normal distribution. Source of the expansion: Abramowitz & Stegun, "Handbook of Mathematical Functions", 1964,
     * 26.7.5.
     */
    private static function doubt(float $level, float $freedom): float
    {
        $z = StandardNormal::quantile($level);
        if (abs($z) < 1e-9) {
            return 1.0;
        }
        $square = $z * $z;

        return 1
            + ($square + 1) / (4 * $freedom)
            + (5 * $square ** 2 + 16 * $square + 3) / (96 * $freedom ** 2)
            + (3 * $square ** 3 + 19 * $square ** 2 + 17 * $square - 15) / (384 * $freedom ** 3);
    }

    /**
     * Standard deviation of the error by steps ahead: a power of the distance through those that were seen, since each
     * alone rests on few errors.
     *
     * @return list<float>
     */
    private static function deviations(Outcome $outcome): array
    {
        $x = $y = [];
        foreach ($outcome->errors['each'] as $steps => $errors) {
            $seen = self::rootMeanSquare($errors);
            if (count($errors) >= self::ENOUGH && $seen > 0) {
                $x[] = log($steps);
                $y[] = log($seen);
            }
        }
        $count = count($x);
        if (0 === $count) {
            $firsts = $outcome->errors['each'][1] ?? [];
            $first = self::rootMeanSquare($firsts);
            if (count($firsts) >= self::ENOUGH && 0.0 === $first) {
                // It never missed: there is nothing to doubt.
                return array_fill(0, count($outcome->means), 0.0);
            }

            return array_map(
                static fn (int $h): float => max($first, $outcome->scale) * sqrt($h + 1),
                array_keys($outcome->means),
            );
        }
        $meanX = array_sum($x) / $count;
        $meanY = array_sum($y) / $count;
        $xy = $xx = 0.0;
        foreach ($x as $i => $one) {
            $xy += ($one - $meanX) * ($y[$i] - $meanY);
            $xx += ($one - $meanX) ** 2;
        }
        $growth = $xx > 0 ? max(0.0, min(1.0, $xy / $xx)) : 0.5;

        return array_map(
            static fn (int $h): float => exp($meanY + $growth * (log($h + 1) - $meanX)),
            array_keys($outcome->means),
        );
    }

    /** @param list<float> $errors */
    private static function rootMeanSquare(array $errors): float
    {
        return [] === $errors
            ? 0.0
            : sqrt(array_sum(array_map(static fn (float $error): float => $error * $error, $errors)) / count($errors));
    }
}
