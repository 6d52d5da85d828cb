<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * Errors of forecasts, in units of what the naive method missed in the past.
 *
 * Sources: Hyndman & Koehler, "Another Look at Measures of Forecast Accuracy", International Journal of Forecasting
 * 22(4), 2006 (MASE); Makridakis, Spiliotis & Assimakopoulos, International Journal of Forecasting 38(4), 2022 (RMSSE);
 * Brown, "Smoothing, Forecasting and Prediction", 1963 (tracking signal).
 */
final readonly class ErrorScale
{
    /** Mean absolute error of the (seasonal) naive method; 1 where it never missed. */
    public float $meanAbsolute;
    private float $meanSquare;

    /** @param list<?float> $past what the scale is taken from */
    public function __construct(array $past, int $period)
    {
        $lag = count($past) > $period ? $period : 1;
        $absolute = $square = 0.0;
        $count = 0;
        for ($t = $lag, $end = count($past); $t < $end; ++$t) {
            if (null !== $past[$t] && null !== $past[$t - $lag]) {
                $step = $past[$t] - $past[$t - $lag];
                $absolute += abs($step);
                $square += $step * $step;
                ++$count;
            }
        }
        $this->meanAbsolute = $absolute > 0 ? $absolute / $count : 1.0;
        $this->meanSquare = $square > 0 ? $square / $count : 1.0;
    }

    /**
     * @param list<?float>             $demand
     * @param array<int, list<float>>  $rolled     forecasts by origin
     * @param bool                     $cumulative whether errors of the running sum decide, or those of each value
     */
    public function score(array $demand, array $rolled, bool $cumulative): Score
    {
        $absolute = $square = $sum = $wanted = $deciding = 0.0;
        $first = $firstAbsolute = 0.0;
        $count = $firsts = $decided = 0;
        $end = count($demand);
        foreach ($rolled as $origin => $means) {
            $running = 0.0;
            foreach ($means as $h => $mean) {
                $at = $origin + $h;
                if ($at >= $end) {
                    break;
                }
                $came = $demand[$at];
                if (null === $came) {
                    continue;
                }
                $came = \floatval($came);
                $error = \floatval($mean) - $came;
                $off = $error < 0.0 ? -$error : $error;
                $absolute += $off;
                $square += $error * $error;
                $sum += $error;
                $wanted += $came;
                ++$count;
                $running += $error;
                if (0 === $h) {
                    $first += $error;
                    $firstAbsolute += $off;
                    ++$firsts;
                }
                if ($cumulative) {
                    $deciding += ($running * $running) / ($h + 1);
                    ++$decided;
                }
            }
        }
        if (0 === $count) {
            return new Score(INF, INF, INF, 0.0, 0.0);
        }

        return new Score(
            sqrt($cumulative ? $deciding / $decided : $square / $count),
            $absolute / $count / $this->meanAbsolute,
            sqrt($square / $count / $this->meanSquare),
            $wanted > 0 ? $sum / $wanted : 0.0,
            $firstAbsolute > 0 ? -$first / ($firstAbsolute / $firsts) : 0.0,
        );
    }

    /**
     * Errors (demand − forecast) by how far ahead they were made.
     *
     * @param list<?float>            $demand
     * @param array<int, list<float>> $rolled
     *
     * @return array{each: array<int, list<float>>, sum: array<int, list<float>>} of each value and of the running sum,
     *      by steps ahead from 1
     */
    public static function errors(array $demand, array $rolled): array
    {
        $each = $sum = [];
        $end = count($demand);
        foreach ($rolled as $origin => $means) {
            $running = 0.0;
            foreach ($means as $h => $mean) {
                $at = $origin + $h;
                if ($at >= $end || null === $demand[$at]) {
                    break;
                }
                $error = $demand[$at] - $mean;
                $running += $error;
                $each[$h + 1][] = $error;
                $sum[$h + 1][] = $running;
            }
        }

        return ['each' => $each, 'sum' => $sum];
    }
}
