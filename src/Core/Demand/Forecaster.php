<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Method\Intermittent;
use TallBarrel\Core\Demand\Method\MethodName;

/** Turns a weekly history into a forecast with its doubt, by a contest of methods over the horizon that matters. */
final readonly class Forecaster
{
    private const PERIOD = 52;
    private const WEEKS_AHEAD = 26;
    private const LONGEST_HORIZON = 13;
    /** Under so many units a week a weekly season of its own is noise. */
    private const ENOUGH_TO_SEE_A_SEASON = 2.0;
    private const FEW_ERRORS = 8;
    private const ERRORS_KEPT = 40;
    /** Two years back, an item sold in fewer weeks than FEW_TIMES is taken to be asked for one at a time. */
    private const LATELY = 104;
    private const FEW_TIMES = 3;
    private const ENOUGH_WEEKS = 26;
    /**
     * A forecast week is never above the best week on record by more than half: a trend fitted to two years can run
     * away.
     */
    private const AT_MOST_TIMES_RECORD = 1.5;

    /**
     * @param int               $horizon weeks from today until an order after the next one would arrive
     * @param PooledSeason|null $pooled  the category's season, by weeks ago
     */
    public function forecast(WeeklyHistory $history, int $horizon = 4, ?PooledSeason $pooled = null): Forecast
    {
        $history = $history->sinceFirstSale();
        $demand = $history->demand;
        $mean = $history->meanDemand();
        if (null === $mean) {
            return Forecast::none();
        }
        $seldom = self::seldom($history->last(self::LATELY)->demand);
        if (null !== $seldom) {
            return $seldom;
        }
        $horizon = max(1, min(self::LONGEST_HORIZON, $horizon));
        $outcome = Contest::over(
            $demand,
            $mean >= self::ENOUGH_TO_SEE_A_SEASON ? self::PERIOD : 1,
            $horizon,
            $pooled,
            null,
            true,
        );
        $most = self::AT_MOST_TIMES_RECORD * max([0.0, ...array_map(floatval(...), $demand)]);
        $weeks = array_map(
            static fn (float $week): float => min($week, $most),
            $outcome->ahead($demand, self::WEEKS_AHEAD),
        );
        if (max([0.0, ...$weeks]) - min([INF, ...$weeks]) < 1e-9) {
            // What sold within two years may be asked for again, ever less likely.
            $weeks = [
                $weeks[0] > 0.0
                    ? $weeks[0]
                    : Intermittent::of(Intermittent::TSB, 0.1)->roll($demand, [count($demand)], 1)[count($demand)][0],
            ];
        }
        $sums = $outcome->errors['sum'];
        [$first, $firsts] = [self::rootMeanSquare($sums[1] ?? []), count($sums[1] ?? [])];
        $atHorizon = $sums[$horizon] ?? [];
        // Few errors say little: then demand is taken to vary at least as much as chance arrivals would (Poisson).
        $expected = array_sum(
            array_slice([...$weeks, ...array_fill(0, $horizon, $weeks[count($weeks) - 1])], 0, $horizon),
        );
        if ($firsts < self::FEW_ERRORS) {
            $first = max($first, sqrt($expected / $horizon), self::deviation($demand, $mean));
        }
        $sigma =
            count($atHorizon) < self::FEW_ERRORS
                ? max($first * sqrt($horizon), sqrt($expected))
                : self::rootMeanSquare($atHorizon);
        $growth =
            $horizon > 1 && $first > 0 && $sigma > 0 ? max(0.4, min(1.0, log($sigma / $first) / log($horizon))) : 0.5;
        $shape = Shape::fitting($expected, $sigma, $atHorizon);
        $scores = $outcome->scores;
        uasort($scores, static fn (Score $a, Score $b): int => $a->deciding <=> $b->deciding);
        $contest = [];
        foreach ($scores as $name => $score) {
            $contest[] = [
                'method' => $name,
                'words' => MethodName::from($name)->words(),
                'mase' => round($score->mase, 3),
                'bias' => round($score->bias, 3),
                'used' => $name === $outcome->method->value || in_array($name, $outcome->parts, true),
            ];
        }
        $won = $outcome->scores[$outcome->method->value] ?? null;

        return new Forecast(
            $outcome->method->words(),
            $weeks,
            $sigma / $horizon ** $growth,
            self::offBy($demand, $outcome->errors['each'][1] ?? []),
            $growth,
            $shape,
            Shape::Errors === $shape && $sigma > 0
                ? array_map(
                    static fn (float $error): float => $error / $sigma,
                    array_slice($atHorizon, -self::ERRORS_KEPT),
                )
                : [],
            $contest,
            $won->bias ?? 0.0,
            $won->tracking ?? 0.0,
            $won?->mase,
            $horizon,
        );
    }

    /**
     * Where an item was wanted once or twice in two years there is nothing to fit: it is forecast to be asked for as
     * often
     * again, one unit at a time, so that neither a bulk week is carried on for ever nor the item forgotten (common
     * practice,
     * no source).
     *
     * @param list<?float> $demand
     */
    private static function seldom(array $demand): ?Forecast
    {
        $known = array_filter($demand, static fn (?float $value): bool => null !== $value);
        $sizes = array_filter($known, static fn (float $value): bool => $value > 0.0);
        if ([] === $sizes || count($sizes) >= self::FEW_TIMES || count($known) < self::ENOUGH_WEEKS) {
            return null;
        }
        $rate = (count($sizes) * min(1.0, ...$sizes)) / count($known);

        return new Forecast(
            sprintf('sold in %d of %d weeks', count($sizes), count($known)),
            [$rate],
            sqrt($rate),
            null,
            0.5,
            Shape::fitting(4 * $rate, 2 * sqrt($rate), []),
        );
    }

    /** The mean of a history somebody chose. */
    public function restingOn(WeeklyHistory $history, string $words): Forecast
    {
        $mean = $history->meanDemand();
        if (null === $mean) {
            return Forecast::none();
        }
        $sigma = max(self::deviation($history->demand, $mean), sqrt($mean));

        return new Forecast($words, [$mean], $sigma, null, 0.5, Shape::fitting(4 * $mean, 2 * $sigma, []));
    }

    /** What was wanted in the same weeks a year ago. */
    public function likeLastYear(WeeklyHistory $history): Forecast
    {
        $demand = $history->demand;
        $count = count($demand);
        $mean = $history->meanDemand();
        if (null === $mean) {
            return Forecast::none();
        }
        $weeks = $errors = [];
        for ($ahead = 0; $ahead < self::WEEKS_AHEAD; ++$ahead) {
            // The week itself and its neighbours, so that one odd week does not decide.
            $around = array_filter(
                [
                    $demand[$count - self::PERIOD + $ahead - 1] ?? null,
                    $demand[$count - self::PERIOD + $ahead] ?? null,
                    $demand[$count - self::PERIOD + $ahead + 1] ?? null,
                ],
                static fn (?float $value): bool => null !== $value,
            );
            $weeks[] = $count < self::PERIOD || [] === $around ? $mean : array_sum($around) / count($around);
        }
        for ($t = max(self::PERIOD, $count - self::PERIOD); $t < $count; ++$t) {
            if (isset($demand[$t], $demand[$t - self::PERIOD])) {
                $errors[] = $demand[$t] - $demand[$t - self::PERIOD];
            }
        }
        $sigma =
            count($errors) < self::FEW_ERRORS
                ? max(self::deviation($demand, $mean), sqrt($mean))
                : self::rootMeanSquare($errors);

        return new Forecast(
            'the same weeks last year',
            $weeks,
            $sigma,
            null,
            0.5,
            Shape::fitting(4 * $mean, 2 * $sigma, []),
        );
    }

    /** @param list<float> $errors */
    private static function rootMeanSquare(array $errors): float
    {
        return count($errors) < 2
            ? abs($errors[0] ?? 0.0)
            : sqrt(
                array_sum(
                    array_map(static fn (float $error): float => $error * $error, $errors),
                ) / (count($errors) - 1),
            );
    }

    /** @param list<?float> $demand */
    private static function deviation(array $demand, float $mean): float
    {
        $known = array_filter($demand, static fn (?float $value): bool => null !== $value);

        return count($known) < 2
            ? 0.0
            : sqrt(
                array_sum(array_map(static fn (float $value): float => ($value - $mean) ** 2, $known)) /
                    (count($known) - 1),
            );
    }

    /**
     * @param list<?float> $demand
     * @param list<float>  $errors one step ahead, oldest first
     */
    private static function offBy(array $demand, array $errors): ?float
    {
        $errors = array_slice($errors, -12);
        $known = array_slice(
            array_values(array_filter($demand, static fn (?float $value): bool => null !== $value)),
            -max(1, count($errors)),
        );
        $wanted = array_sum($known);

        return [] === $errors || $wanted <= 0 ? null : array_sum(array_map(abs(...), $errors)) / $wanted;
    }
}
