<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\InvalidValue;

/**
 * Holt–Winters smoothing of level, trend and season.
 *
 * Source: Winters, "Forecasting Sales by Exponentially Weighted Moving Averages", Management Science 6(3), 1960, in the
 * form and with the start values of R's stats::HoltWinters: a classical decomposition of the first two periods, a
 * straight line through its trend, smoothing from the second period on. Unknown values leave the state to its forecast.
 */
final readonly class HoltWinters
{
    /**
     * @param list<float>  $season seasonal terms of the period that comes next, in order
     * @param list<?float> $errors one-step errors by position, null during the first period and where unknown
     */
    private function __construct(
        public Season $kind,
        public float $alpha,
        public float $beta,
        public float $gamma,
        public float $level,
        public float $trend,
        public array $season,
        public float $sse,
        public array $errors,
    ) {
    }

    /**
     * @param list<?float>                     $demand     at least two periods
     * @param int                              $period     values in one season, 2 or more
     * @param array{float, float, float}|null  $parameters α, β, γ between 0 and 1; fitted by least squares when null
     *
     * @param float $tolerance share of the squared error at which the search for parameters stops
     *
     * @throws InvalidValue if there is too little history
     */
    public static function fit(array $demand, int $period, Season $kind = Season::Additive, ?array $parameters = null, float $tolerance = 1e-8): self
    {
        if ($period < 2 || count($demand) < 2 * $period) {
            throw InvalidValue::because(sprintf('Holt–Winters needs two whole periods; %d values are fewer than 2 × %d.', count($demand), $period));
        }
        $start = self::classicalStart(self::filled(array_slice($demand, 0, 2 * $period)), $period, $kind);

        return self::fitted($demand, $period, $kind, $start, $parameters, $tolerance);
    }

    /**
     * The same, but knowing only the first period at the start, so that every error after it was made without having
     * seen the value: an honest contest against other methods on two years of history.
     *
     * @param list<?float> $demand
     */
    public static function fitFromFirstPeriod(array $demand, int $period, Season $kind, float $tolerance = 1e-8): self
    {
        if (count($demand) < $period + 4) {
            throw InvalidValue::because(sprintf('%d values are too few for a contest over a period of %d.', count($demand), $period));
        }
        $first = self::filled(array_slice($demand, 0, $period));
        $level = array_sum($first) / $period;
        $season = array_map(static fn (float $value): float => Season::Additive === $kind ? $value - $level : $value / max($level, 1e-9), $first);

        return self::fitted($demand, $period, $kind, [$level, 0.0, $season], null, $tolerance);
    }

    /**
     * @return list<float> expected values of the next so many positions, never below zero
     */
    public function forecast(int $ahead): array
    {
        $period = count($this->season);
        $means = [];
        for ($h = 1; $h <= $ahead; ++$h) {
            $season = $this->season[($h - 1) % $period];
            $base = $this->level + $h * $this->trend;
            $means[] = max(0.0, Season::Additive === $this->kind ? $base + $season : $base * $season);
        }

        return $means;
    }

    /**
     * @param list<?float>                                  $demand
     * @param array{float, float, list<float>}              $start
     * @param array{float, float, float}|null               $parameters
     */
    private static function fitted(array $demand, int $period, Season $kind, array $start, ?array $parameters, float $tolerance): self
    {
        if (null === $parameters) {
            $found = Minimum::find(static fn (array $point): float => self::run($demand, $period, $kind, $start, $point[0], $point[1], $point[2], false)[0], [0.3, 0.1, 0.1], 0.0, 1.0, $tolerance, $tolerance > 1e-6 ? 60 : 600)[0];
            $parameters = [$found[0], $found[1], $found[2]];
        }
        [$sum, $level, $trend, $season, $errors] = self::run($demand, $period, $kind, $start, $parameters[0], $parameters[1], $parameters[2], true);
        $turned = count($demand) % $period;

        return new self(
            $kind, $parameters[0], $parameters[1], $parameters[2], $level, $trend,
            [...array_slice($season, $turned), ...array_slice($season, 0, $turned)],
            $sum, $errors,
        );
    }

    /**
     * @param list<?float>                     $demand
     * @param array{float, float, list<float>} $start
     *
     * @return array{float, float, float, list<float>, list<?float>} squared errors, level, trend, season by phase, errors
     */
    private static function run(array $demand, int $period, Season $kind, array $start, float $alpha, float $beta, float $gamma, bool $keep): array
    {
        [$level, $trend, $season] = $start;
        /** @var array<int, float> $season */
        $sse = 0.0;
        $errors = $keep ? array_fill(0, $period, null) : [];
        $end = count($demand);
        $additive = Season::Additive === $kind;
        for ($t = $period, $phase = 0; $t < $end; ++$t, ++$phase) {
            if ($phase === $period) {
                $phase = 0;
            }
            $base = $level + $trend;
            $term = $season[$phase];
            $observed = $demand[$t];
            if (null === $observed) {
                $level = $base;
                if ($keep) {
                    $errors[] = null;
                }
                continue;
            }
            $error = $observed - ($additive ? $base + $term : $base * $term);
            $sse += $error * $error;
            if ($keep) {
                $errors[] = $error;
            }
            $before = $level;
            if ($additive) {
                $level = $alpha * ($observed - $term) + (1 - $alpha) * $base;
                $season[$phase] = $gamma * ($observed - $level) + (1 - $gamma) * $term;
            } else {
                $level = $alpha * $observed / ($term > 1e-9 ? $term : 1e-9) + (1 - $alpha) * $base;
                $season[$phase] = $gamma * $observed / ($level > 1e-9 ? $level : 1e-9) + (1 - $gamma) * $term;
            }
            $trend = $beta * ($level - $before) + (1 - $beta) * $trend;
        }

        return [$sse, $level, $trend, array_values($season), $errors];
    }

    /**
     * @param list<float> $first the first two periods
     *
     * @return array{float, float, list<float>} level, trend, season
     */
    private static function classicalStart(array $first, int $period, Season $kind): array
    {
        $half = intdiv($period, 2);
        $length = 2 * $period;
        $trend = [];
        for ($t = $half; $t < $length - $half; ++$t) {
            $sum = 0.0;
            if (0 === $period % 2) {
                $sum = ($first[$t - $half] + $first[$t + $half]) / 2;
                for ($k = $t - $half + 1; $k < $t + $half; ++$k) {
                    $sum += $first[$k];
                }
            } else {
                for ($k = $t - $half; $k <= $t + $half; ++$k) {
                    $sum += $first[$k];
                }
            }
            $trend[$t] = $sum / $period;
        }
        $sums = $counts = array_fill(0, $period, 0.0);
        foreach ($trend as $t => $value) {
            $sums[$t % $period] += Season::Additive === $kind ? $first[$t] - $value : $first[$t] / max($value, 1e-9);
            $counts[$t % $period] += 1.0;
        }
        $figure = [];
        foreach ($sums as $phase => $sum) {
            $figure[] = $sum / max(1.0, $counts[$phase]);
        }
        $mean = array_sum($figure) / $period;
        $season = array_map(static fn (float $term): float => Season::Additive === $kind ? $term - $mean : $term / max($mean, 1e-9), $figure);

        // Least squares through the trend, numbered from 1 as R does.
        $points = array_values($trend);
        $n = count($points);
        $meanX = ($n + 1) / 2;
        $meanY = array_sum($points) / $n;
        $xy = $xx = 0.0;
        foreach ($points as $i => $value) {
            $xy += ($i + 1 - $meanX) * ($value - $meanY);
            $xx += ($i + 1 - $meanX) ** 2;
        }
        $slope = $xx > 0 ? $xy / $xx : 0.0;

        return [$meanY - $slope * $meanX, $slope, $season];
    }

    /**
     * @param list<?float> $values
     *
     * @return list<float> unknown values replaced by the nearest known ones on both sides, averaged
     */
    private static function filled(array $values): array
    {
        $filled = [];
        $before = null;
        foreach ($values as $i => $value) {
            if (null === $value) {
                $after = null;
                for ($k = $i + 1, $end = count($values); $k < $end && null === $after; ++$k) {
                    $after = $values[$k];
                }
                $value = (($before ?? $after ?? 0.0) + ($after ?? $before ?? 0.0)) / 2;
            } else {
                $before = $value;
            }
            $filled[] = $value;
        }

        return $filled;
    }
}
