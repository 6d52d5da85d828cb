<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/**
 * Smallest value of a function over a box, without derivatives: the simplex method of Nelder & Mead, "A Simplex Method
 * for Function Minimization", The Computer Journal 7(4), 1965, with points outside the box moved onto its edge.
 */
final readonly class Minimum
{
    /**
     * @param callable(list<float>): float $of        the function
     * @param list<float>                  $start     first guess
     * @param list<float>                  $low       lower edge of each coordinate
     * @param list<float>                  $high      upper edge of each coordinate
     * @param float                        $tolerance stop when the simplex's values differ by less than this share
     *
     * @return array{list<float>, float} the point and its value
     */
    public static function find(
        callable $of,
        array $start,
        array $low,
        array $high,
        float $tolerance = 1e-8,
        int $most = 400,
    ): array {
        $size = count($start);
        $simplex = [[$start, $of($start)]];
        for ($i = 0; $i < $size; ++$i) {
            $point = $start;
            $step = 0.25 * ($high[$i] - $low[$i]);
            $point[$i] = max($low[$i], $point[$i] + $step > $high[$i] ? $point[$i] - $step : $point[$i] + $step);
            $point = array_values($point);
            $simplex[] = [$point, $of($point)];
        }
        $calls = $size + 1;
        $simplex = self::inOrder($simplex);
        while ($calls < $most) {
            [$best, $worst] = [$simplex[0], $simplex[$size]];
            if ($worst[1] - $best[1] <= $tolerance * (abs($best[1]) + 1e-12)) {
                break;
            }
            $centre = array_fill(0, $size, 0.0);
            for ($k = 0; $k < $size; ++$k) {
                foreach ($simplex[$k][0] as $i => $value) {
                    $centre[$i] += $value / $size;
                }
            }
            $along = static function (float $by) use ($centre, $worst, $low, $high): array {
                $point = [];
                foreach ($centre as $i => $value) {
                    $at = $value + $by * ($worst[0][$i] - $value);
                    $point[] = $at < $low[$i] ? $low[$i] : ($at > $high[$i] ? $high[$i] : $at);
                }

                return $point;
            };
            $reflected = $along(-1.0);
            $value = $of($reflected);
            ++$calls;
            if ($value < $best[1]) {
                $expanded = $along(-2.0);
                $further = $of($expanded);
                ++$calls;
                $simplex[$size] = $further < $value ? [$expanded, $further] : [$reflected, $value];
            } elseif ($value < $simplex[$size - 1][1]) {
                $simplex[$size] = [$reflected, $value];
            } else {
                $contracted = $along($value < $worst[1] ? -0.5 : 0.5);
                $nearer = $of($contracted);
                ++$calls;
                if ($nearer < min($value, $worst[1])) {
                    $simplex[$size] = [$contracted, $nearer];
                } else {
                    for ($k = 1; $k <= $size; ++$k) {
                        $point = [];
                        foreach ($simplex[$k][0] as $i => $coordinate) {
                            $point[] = ($coordinate + $best[0][$i]) / 2;
                        }
                        $simplex[$k] = [$point, $of($point)];
                        ++$calls;
                    }
                    $simplex = self::inOrder($simplex);
                    continue;
                }
            }
            // The others are in order: only the new one has to find its place.
            for ($k = $size; $k > 0 && $simplex[$k][1] < $simplex[$k - 1][1]; --$k) {
                [$simplex[$k], $simplex[$k - 1]] = [$simplex[$k - 1], $simplex[$k]];
            }
        }

        return $simplex[0];
    }

    /**
     * @param list<array{list<float>, float}> $simplex
     *
     * @return list<array{list<float>, float}> the smallest value first
     */
    private static function inOrder(array $simplex): array
    {
        usort($simplex, static fn (array $a, array $b): int => $a[1] <=> $b[1]);

        return $simplex;
    }
}
