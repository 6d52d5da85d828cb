<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * Chooses between smoothing with and without a season by a contest over the last year: each method forecasts one week
 * ahead, knowing only what came before, and the one with the smaller squared error is used. Without two years of
 * history, or where little sells, there is no season to learn and simple smoothing it is.
 */
final readonly class Forecaster
{
    private const PERIOD = 52;
    private const WEEKS_AHEAD = 26;
    /** Under so many units a week a weekly season is noise. */
    private const ENOUGH_TO_SEE_A_SEASON = 2.0;
    /** A season must beat simple smoothing by this share of the squared error before it is believed. */
    private const CLEARLY = 0.97;
    /** Parameters are searched until the squared error changes by less than this share. */
    private const CLOSE_ENOUGH = 1e-3;

    public function forecast(WeeklyHistory $history): Forecast
    {
        $demand = $history->sinceFirstSale()->demand;
        $known = array_filter($demand, static fn (?float $value): bool => null !== $value);
        if ([] === $known) {
            return Forecast::none();
        }
        $simple = SimpleSmoothing::fit($demand);
        $seasonal = $this->seasonal($demand, array_sum($known) / count($known));
        $from = count($demand) - self::PERIOD;
        if (null !== $seasonal && self::squares($seasonal->errors, $from) < self::CLEARLY * self::squares($simple->errors, $from)) {
            return new Forecast(
                'Holt–Winters, '.$seasonal->kind->value.' season', self::capped($seasonal->forecast(self::WEEKS_AHEAD), $demand),
                self::deviation($seasonal->errors, 3), self::offBy($demand, $seasonal->errors),
            );
        }

        return new Forecast('simple smoothing', [max(0.0, $simple->level)], self::deviation($simple->errors, 1), self::offBy($demand, $simple->errors));
    }

    /** @param list<?float> $demand */
    private function seasonal(array $demand, float $mean): ?HoltWinters
    {
        if ($mean < self::ENOUGH_TO_SEE_A_SEASON || count($demand) < 2 * self::PERIOD) {
            return null;
        }
        $best = self::fit($demand, Season::Additive);
        foreach ($demand as $week => $value) {
            if (null !== $value && $value <= 0.0 && $week < 2 * self::PERIOD) {
                return $best;
            }
        }
        $multiplied = self::fit($demand, Season::Multiplicative);

        return $multiplied->sse < $best->sse ? $multiplied : $best;
    }

    /**
     * The last year must be news to the method: three years allow the classical start from the first two, two years only
     * a start from the first.
     *
     * @param list<?float> $demand
     */
    private static function fit(array $demand, Season $kind): HoltWinters
    {
        return count($demand) >= 3 * self::PERIOD
            ? HoltWinters::fit($demand, self::PERIOD, $kind, null, self::CLOSE_ENOUGH)
            : HoltWinters::fitFromFirstPeriod($demand, self::PERIOD, $kind, self::CLOSE_ENOUGH);
    }

    /**
     * A forecast week is never above the best week on record by more than half: a trend fitted to two years can run away.
     *
     * @param list<float>  $weeks
     * @param list<?float> $demand
     *
     * @return list<float>
     */
    private static function capped(array $weeks, array $demand): array
    {
        $most = 1.5 * max([0.0, ...array_map(floatval(...), $demand)]);

        return array_map(static fn (float $week): float => min($week, $most), $weeks);
    }

    /** @param list<?float> $errors */
    private static function squares(array $errors, int $from): float
    {
        $sum = 0.0;
        foreach ($errors as $week => $error) {
            if ($week >= $from && null !== $error) {
                $sum += $error * $error;
            }
        }

        return $sum;
    }

    /** @param list<?float> $errors */
    private static function deviation(array $errors, int $parameters): float
    {
        $known = array_filter(array_slice($errors, -self::PERIOD), static fn (?float $error): bool => null !== $error);
        $free = count($known) - $parameters;

        return $free < 1 ? 0.0 : sqrt(array_sum(array_map(static fn (float $error): float => $error * $error, $known)) / $free);
    }

    /**
     * @param list<?float> $demand
     * @param list<?float> $errors
     */
    private static function offBy(array $demand, array $errors): ?float
    {
        $off = $wanted = 0.0;
        $weeks = 0;
        for ($week = count($demand) - 1; $week >= 0 && $weeks < 12; --$week) {
            if (null !== $demand[$week] && null !== $errors[$week]) {
                $off += abs($errors[$week]);
                $wanted += $demand[$week];
                ++$weeks;
            }
        }

        return $wanted > 0 ? $off / $wanted : null;
    }
}
