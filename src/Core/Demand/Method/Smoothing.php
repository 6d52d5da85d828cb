<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

use TallBarrel\Core\InvalidValue;

/**
 * Exponential smoothing of level, trend and season, any of the last two left out.
 *
 * Sources: Brown, "Statistical Forecasting for Inventory Control", 1959 (level); Holt, "Forecasting Trends and
 * Seasonals
 * by Exponentially Weighted Moving Averages", ONR Memorandum 52, 1957 (trend); Winters, Management Science 6(3), 1960
 * (season); Gardner & McKenzie, "Forecasting Trends in Time Series", Management Science 31(10), 1985 (damping).
 *
 * The start values of the level alone and of Holt–Winters are those of R's stats::HoltWinters: the first value; and a
 * classical decomposition of the first two periods with a straight line through its trend, smoothing from the second
 * period on. A trend without season starts on the line through the first values. Unknown values leave the state to its
 * forecast.
 *
 * A state is its level, slope, season by phase, and the position of the first value to smooth.
 *
 * @phpstan-type State array{float, float, array<int, float>, int}
 */
final readonly class Smoothing implements Model
{
    /** First guesses and edges of α, β, γ and φ. */
    private const GUESS = [0.3, 0.1, 0.1, 0.9];
    private const LOW = [0.0, 0.0, 0.0, 0.8];
    private const HIGH = [1.0, 1.0, 1.0, 0.98];
    private const LINE_THROUGH = 10;

    /** @param State $start */
    private function __construct(
        public Trend $trend,
        public ?Season $kind,
        public int $period,
        public float $alpha,
        public float $beta,
        public float $gamma,
        public float $phi,
        public float $sse,
        private array $start,
    ) {
    }

    /**
     * @param list<?float>     $demand     one value a period, null where unknown; with a season at least two periods
     * @param int              $period     values in one season, 2 or more; ignored without one
     * @param list<float>|null $parameters those of α, β, γ, φ that the form has, in this order; fitted by least squares
     *      of one-step errors when null
     * @param float            $tolerance  share of the squared error at which the search for parameters stops
     * @param int              $most       evaluations after which it stops in any case
     *
     * @throws InvalidValue if there is too little history
     */
    public static function fit(
        array $demand,
        Trend $trend = Trend::None,
        ?Season $kind = null,
        int $period = 1,
        ?array $parameters = null,
        float $tolerance = 1e-8,
        int $most = 600,
    ): self {
        if (null !== $kind && ($period < 2 || count($demand) < 2 * $period)) {
            throw InvalidValue::because(
                sprintf('A season needs two whole periods; %d values are fewer than 2 × %d.', count($demand), $period),
            );
        }
        $start =
            null === $kind
                ? self::plainStart($demand, $trend)
                : self::classicalStart(self::filled(array_slice($demand, 0, 2 * $period)), $period, $kind);
        if (Trend::None === $trend) {
            $start[1] = 0.0;
        }
        $has = [true, Trend::None !== $trend, null !== $kind, Trend::Damped === $trend];
        $which = array_keys(array_filter($has));
        $pick = static fn (float ...$from): array => array_map(static fn (int $one): float => $from[$one], $which);
        $squares = static function (array $point) use ($demand, $kind, $period, $start, $which): float {
            [$alpha, $beta, $gamma, $phi] = self::whole($which, $point);

            return self::run($demand, $kind, $period, $start, $alpha, $beta, $gamma, $phi, [], 0)[0];
        };
        $point =
            $parameters ??
            Minimum::find(
                $squares,
                $pick(...self::GUESS),
                $pick(...self::LOW),
                $pick(...self::HIGH),
                $tolerance,
                $most,
            )[0];
        [$alpha, $beta, $gamma, $phi] = self::whole($which, $point);

        return new self(
            $trend,
            $kind,
            $period,
            $alpha,
            $beta,
            $gamma,
            $phi,
            self::run($demand, $kind, $period, $start, $alpha, $beta, $gamma, $phi, [], 0)[0],
            $start,
        );
    }

    /**
     * α, β, γ and φ, those that the form lacks filled in.
     *
     * @param list<int>    $which of the four the point holds
     * @param list<float>  $point
     *
     * @return array{float, float, float, float}
     */
    private static function whole(array $which, array $point): array
    {
        $all = [0.0, 0.0, 0.0, 1.0];
        foreach ($which as $i => $one) {
            $all[$one] = $point[$i];
        }

        return [$all[0], $all[1], $all[2], $all[3]];
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        return self::run(
            $demand,
            $this->kind,
            $this->period,
            $this->start,
            $this->alpha,
            $this->beta,
            $this->gamma,
            $this->phi,
            $origins,
            $ahead,
        )[1];
    }

    /**
     * The state at the end of a series.
     *
     * @param list<?float> $demand
     *
     * @return array{level: float, slope: float, season: array<int, float>} the season by phase, counted from the first
     *      value
     */
    public function state(array $demand): array
    {
        $run = self::run(
            $demand,
            $this->kind,
            $this->period,
            $this->start,
            $this->alpha,
            $this->beta,
            $this->gamma,
            $this->phi,
            [],
            0,
        );

        return ['level' => $run[2], 'slope' => $run[3], 'season' => $run[4]];
    }

    /**
     * @param list<?float> $demand
     * @param State        $start
     * @param list<int>    $origins
     *
     * @return array{float, array<int, list<float>>, float, float, array<int, float>} squared errors, forecasts by
     *      origin, level, slope, season
     */
    private static function run(
        array $demand,
        ?Season $kind,
        int $period,
        array $start,
        float $alpha,
        float $beta,
        float $gamma,
        float $phi,
        array $origins,
        int $ahead,
    ): array {
        // What comes out of an array is a float to the compiler only where it is said to be one: that halves the time.
        [$level, $slope, $season, $first] = $start;
        $level = \floatval($level);
        $slope = \floatval($slope);
        $sse = 0.0;
        $rolled = [];
        $next = $origins[0] ?? -1;
        $nextOrigin = 0;
        while ($next >= 0 && $next < $first) {
            // Before its start the method knows nothing but the start itself.
            $rolled[$next] = self::ahead($kind, $level, $slope, $season, 0, $period, $phi, $ahead);
            $next = $origins[++$nextOrigin] ?? -1;
        }
        $keepLevel = 1.0 - $alpha;
        $keepSlope = (1.0 - $beta) * $phi;
        $keepSeason = 1.0 - $gamma;
        $end = count($demand);
        if (null === $kind && 0.0 === $slope && 0.0 === $beta) {
            // The level alone, which is fitted most often: the same sum without what stays nothing.
            for ($t = $first; $t < $end; ++$t) {
                if ($t === $next) {
                    $rolled[$t] = array_fill(0, $ahead, $level > 0.0 ? $level : 0.0);
                    $next = $origins[++$nextOrigin] ?? -1;
                }
                $observed = $demand[$t];
                if (null !== $observed) {
                    $error = \floatval($observed) - $level;
                    $sse += $error * $error;
                    $level += $alpha * $error;
                }
            }
            if ($end === $next) {
                $rolled[$end] = array_fill(0, $ahead, $level > 0.0 ? $level : 0.0);
            }

            return [$sse, $rolled, $level, 0.0, []];
        }
        if (null === $kind) {
            for ($t = $first; $t < $end; ++$t) {
                if ($t === $next) {
                    $rolled[$t] = self::ahead(null, $level, $slope, [], 0, 1, $phi, $ahead);
                    $next = $origins[++$nextOrigin] ?? -1;
                }
                $base = $level + $phi * $slope;
                $observed = $demand[$t];
                if (null === $observed) {
                    $level = $base;
                    $slope *= $phi;
                    continue;
                }
                $error = \floatval($observed) - $base;
                $sse += $error * $error;
                $before = $level;
                $level = $base + $alpha * $error;
                $slope = $beta * ($level - $before) + $keepSlope * $slope;
            }
            if ($end === $next) {
                $rolled[$end] = self::ahead(null, $level, $slope, [], 0, 1, $phi, $ahead);
            }

            return [$sse, $rolled, $level, $slope, []];
        }
        $additive = Season::Additive === $kind;
        $phase = $first % $period;
        for ($t = $first; $t < $end; ++$t, ++$phase) {
            if ($phase === $period) {
                $phase = 0;
            }
            if ($t === $next) {
                $rolled[$t] = self::ahead($kind, $level, $slope, $season, $phase, $period, $phi, $ahead);
                $next = $origins[++$nextOrigin] ?? -1;
            }
            $base = $level + $phi * $slope;
            $observed = $demand[$t];
            if (null === $observed) {
                $level = $base;
                $slope *= $phi;
                continue;
            }
            $observed = \floatval($observed);
            $term = \floatval($season[$phase]);
            $before = $level;
            if ($additive) {
                $error = $observed - $base - $term;
                $level = $alpha * ($observed - $term) + $keepLevel * $base;
                $season[$phase] = $gamma * ($observed - $level) + $keepSeason * $term;
            } else {
                $error = $observed - $base * $term;
                $level = ($alpha * $observed) / ($term > 1e-9 ? $term : 1e-9) + $keepLevel * $base;
                $season[$phase] = ($gamma * $observed) / ($level > 1e-9 ? $level : 1e-9) + $keepSeason * $term;
            }
            $sse += $error * $error;
            $slope = $beta * ($level - $before) + $keepSlope * $slope;
        }
        if ($end === $next) {
            $rolled[$end] = self::ahead($kind, $level, $slope, $season, $phase % $period, $period, $phi, $ahead);
        }

        return [$sse, $rolled, $level, $slope, $season];
    }

    /**
     * @param array<int, float> $season
     *
     * @return list<float>
     */
    private static function ahead(
        ?Season $kind,
        float $level,
        float $slope,
        array $season,
        int $phase,
        int $period,
        float $phi,
        int $ahead,
    ): array {
        $means = [];
        $run = 0.0;
        $damping = 1.0;
        for ($h = 0; $h < $ahead; ++$h) {
            $damping *= $phi;
            $run += $damping;
            $base = $level + $run * $slope;
            if (null !== $kind) {
                $term = $season[($phase + $h) % $period];
                $base = Season::Additive === $kind ? $base + $term : $base * $term;
            }
            $means[] = $base > 0.0 ? $base : 0.0;
        }

        return $means;
    }

    /**
     * @param list<?float> $demand
     *
     * @return State
     */
    private static function plainStart(array $demand, Trend $trend): array
    {
        // The first known values are enough, and mostly the very first: the rest of the series is not looked at.
        $known = [];
        $wanted = Trend::None === $trend ? 1 : self::LINE_THROUGH;
        foreach ($demand as $t => $value) {
            if (null !== $value) {
                $known[$t] = $value;
                if (count($known) === $wanted) {
                    break;
                }
            }
        }
        $first = array_key_first($known);
        if (null === $first) {
            throw InvalidValue::because('There is no known value to smooth.');
        }
        if (Trend::None === $trend) {
            return [$known[$first], 0.0, [], $first + 1];
        }
        [$intercept, $slope] = self::line($known, $first);

        return [$intercept - $slope, $slope, [], $first];
    }

    /**
     * @param list<float> $first the first two periods
     *
     * @return State
     */
    private static function classicalStart(array $first, int $period, Season $kind): array
    {
        $trend = SeasonalIndex::centredAverages($first, $period);
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
        $season = array_map(
            static fn (float $term): float => Season::Additive === $kind ? $term - $mean : $term / max($mean, 1e-9),
            $figure,
        );
        // Numbered from 1 at the first trend value, as R does.
        [$intercept, $slope] = self::line($trend, (int) array_key_first($trend));

        return [$intercept - $slope, $slope, $season, $period];
    }

    /**
     * Least squares through points numbered from 0 at the position given.
     *
     * @param array<int, float> $points by position
     *
     * @return array{float, float} value at that position, slope
     */
    private static function line(array $points, int $from): array
    {
        $count = count($points);
        $meanX = array_sum(array_keys($points)) / $count - $from;
        $meanY = array_sum($points) / $count;
        $xy = $xx = 0.0;
        foreach ($points as $t => $value) {
            $xy += ($t - $from - $meanX) * ($value - $meanY);
            $xx += ($t - $from - $meanX) ** 2;
        }
        $slope = $xx > 0 ? $xy / $xx : 0.0;

        return [$meanY - $slope * $meanX, $slope];
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
                $value = (($before ?? ($after ?? 0.0)) + ($after ?? ($before ?? 0.0))) / 2;
            } else {
                $before = $value;
            }
            $filled[] = $value;
        }

        return $filled;
    }
}
