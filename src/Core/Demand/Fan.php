<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Distribution\Shape;

/** Quantiles of each coming value, opened as far as the errors at each distance were. */
final readonly class Fan
{
    private const ENOUGH = 4;

    /**
     * @param list<float> $levels probabilities above 0 and below 1
     *
     * @return array<int|string, list<float>> by probability, a value for each step ahead; never below zero
     */
    public static function of(Outcome $outcome, array $levels): array
    {
        $deviations = self::deviations($outcome);
        $quantiles = [];
        foreach ($outcome->means as $h => $mean) {
            $errors = $outcome->errors['each'][$h + 1] ?? ($outcome->errors['each'][1] ?? []);
            $deviation = $deviations[$h];
            $scale = self::rootMeanSquare($errors);
            $shape = Shape::fitting($mean, $deviation, $errors);
            // Where the spread is nearly all there is, whole units cannot be assumed of a series of any kind.
            $shape = Shape::Counts === $shape && $mean > 20 ? Shape::Gamma : $shape;
            $distribution = $shape->with(
                $mean,
                $deviation,
                Shape::Errors === $shape && $scale > 0
                    ? array_map(static fn (float $error): float => $error / $scale, $errors)
                    : [],
            );
            foreach ($levels as $level) {
                $quantiles[(string) $level][] = max(0.0, $distribution->quantile($level));
            }
        }

        return $quantiles;
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
            $first = self::rootMeanSquare($outcome->errors['each'][1] ?? []);

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
