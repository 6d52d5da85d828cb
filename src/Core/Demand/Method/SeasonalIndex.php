<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * A season as factors (or terms) by phase, found by classical decomposition: the series against its centred moving
 * average, averaged by phase. With a long period each phase is smoothed with its neighbours, since two or three years
 * say little about a single week; and the whole is drawn towards no season as far as chance explains it.
 *
 * Source: Macaulay, "The Smoothing of Time Series", NBER 1931 (ratio to moving average); the drawing together follows
 * James & Stein 1961 as applied to seasonal factors by Miller & Williams, International Journal of Forecasting 19,
 * 2003.
 */
final readonly class SeasonalIndex
{
    private const LONG_PERIOD = 24;
    /** Weights of a phase and its neighbours in a long period. */
    private const KERNEL = [-3 => 1.0, -2 => 2.0, -1 => 3.0, 0 => 4.0, 1 => 3.0, 2 => 2.0, 3 => 1.0];

    /** @param list<float> $terms by phase, counted from the first value of the series */
    private function __construct(public Season $kind, public array $terms)
    {
    }

    /** @param list<float> $factors by phase */
    public static function of(array $factors, Season $kind = Season::Multiplicative): self
    {
        return new self($kind, $factors);
    }

    /** Two periods show a season; of a long one a single period does, since neighbouring phases bear each other out. */
    public static function canBeSeen(int $values, int $period): bool
    {
        return $values >= ($period >= self::LONG_PERIOD ? 1 : 2) * $period;
    }

    /**
     * @param list<?float> $demand
     *
     * @return self|null null where there is too little to see a season
     */
    public static function found(array $demand, int $period, Season $kind): ?self
    {
        $values = [];
        $last = 0.0;
        foreach ($demand as $value) {
            $values[] = $last = $value ?? $last;
        }
        if (!self::canBeSeen(count($values), $period)) {
            return null;
        }
        $additive = Season::Additive === $kind;
        $by = [];
        // With less than two periods there is no moving average for each phase: the mean of the last period stands for
        // it.
        $level = array_sum(array_slice($values, -$period)) / $period;
        $trends =
            count($values) >= 2 * $period
                ? self::centredAverages($values, $period)
                : array_fill(count($values) - $period, $period, $level);
        foreach ($trends as $t => $trend) {
            if (null !== $demand[$t] && ($additive || $trend > 1e-9)) {
                $by[$t % $period][] = $additive ? $values[$t] - $trend : $values[$t] / $trend;
            }
        }
        if (count($by) < $period) {
            return null;
        }
        ksort($by);
        $raw = array_map(static fn (array $some): float => array_sum($some) / count($some), $by);
        $terms = $period >= self::LONG_PERIOD ? self::smoothed($raw, $period) : $raw;
        $mean = array_sum($terms) / $period;
        $within = $free = $between = 0.0;
        foreach ($by as $phase => $some) {
            foreach ($some as $one) {
                $within += ($one - $terms[$phase]) ** 2;
            }
            $free += count($some);
            $between += ($terms[$phase] - $mean) ** 2;
        }
        $perPhase = ($free / $period) * ($period >= self::LONG_PERIOD ? 16 / 4 : 1);
        $noise = $within / max($period / 2, $free - $period) / max(1.0, $perPhase);
        $signal = $between / max(1, $period - 1);
        $belief = $signal > 1e-12 ? max(0.0, 1 - $noise / $signal) : 0.0;

        return new self(
            $kind,
            array_values(
                array_map(
                    static fn (float $term): float => $additive
                        ? ($term - $mean) * $belief
                        : max(0.02, 1 + ($term / max($mean, 1e-9) - 1) * $belief),
                    $terms,
                ),
            ),
        );
    }

    /**
     * @param list<float> $values
     *
     * @return array<int, float> moving averages over a period by position, for an even period half a period's weight at
     *      both ends
     */
    public static function centredAverages(array $values, int $period): array
    {
        $half = intdiv($period, 2);
        $even = 0 === $period % 2;
        $averages = [];
        $sum = 0.0;
        for ($t = 0; $t < $period; ++$t) {
            $sum += $values[$t];
        }
        for ($t = $half, $end = count($values) - $half; $t < $end; ++$t) {
            // $sum holds the period that starts half a period back.
            if ($even) {
                $averages[$t] = ($sum + ($values[$t + $half] - $values[$t - $half]) / 2) / $period;
            } else {
                $averages[$t] = $sum / $period;
            }
            $leaves = $t - $half;
            if (isset($values[$leaves + $period])) {
                $sum += $values[$leaves + $period] - $values[$leaves];
            }
        }

        return $averages;
    }

    /**
     * @param array<int, float> $raw
     *
     * @return array<int, float>
     */
    private static function smoothed(array $raw, int $period): array
    {
        $smooth = [];
        foreach ($raw as $phase => $ignored) {
            $sum = 0.0;
            foreach (self::KERNEL as $step => $weight) {
                $sum += $weight * $raw[($phase + $step + $period) % $period];
            }
            $smooth[$phase] = $sum / 16;
        }

        return $smooth;
    }
}
