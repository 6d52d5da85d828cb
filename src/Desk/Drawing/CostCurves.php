<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Desk\Shell\Format;

/** Landed cost of one stock unit over how many are ordered, a curve for each supplier, broken where a price begins. */
final readonly class CostCurves
{
    public const WIDTH = 576;
    public const HEIGHT = 222;
    private const LEFT = 56;
    private const RIGHT = 566;
    private const TOP = 18;
    private const FOOT = 186;
    private const STYLES = ['a', 'b', 'c', 'd', 'e', 'f'];

    /**
     * @param list<array{style: string, name: string, lines: list<string>, rings: list<array{float, float}>,
     *      nameX: float, nameY: float}> $curves
     * @param array<string, list<array{float, float}>> $table units and cost where a price begins or a stretch ends, by
     *      name
     * @param list<array{float, string}> $across x and label
     * @param list<array{float, float, int}> $up y, cost and its decimals
     */
    private function __construct(
        public array $curves,
        public array $across,
        public array $up,
        public float $needX,
        public float $needLeft,
        public array $table,
    ) {
    }

    /**
     * @param array<int, list<list<array{float, float}>>> $curves by offer
     * @param array<int, string>                          $names  by offer
     */
    public static function of(array $curves, array $names, float $need): self
    {
        $points = array_merge([], ...array_merge([], ...array_values($curves)));
        if ([] === $points) {
            return new self([], [], [], 0.0, 0.0, []);
        }
        $quantities = array_column($points, 0);
        $costs = array_column($points, 1);
        sort($costs);
        // A tiny order can cost many times the usual; the scale leaves the worst of it out.
        $middle = $costs[(int) (count($costs) / 2)];
        $most = min(max($costs), 2.2 * $middle);
        $least = min($costs) - 0.08 * ($most - min($costs));
        $from = min($quantities);
        $to = max($need * 1.05, ...$quantities);
        $x = static fn (float $units): float => round(
            self::LEFT + ((self::RIGHT - self::LEFT) * log(max($units, $from) / $from)) / max(1e-9, log($to / $from)),
            1,
        );
        $y = static fn (float $cost): float => round(
            self::FOOT - ((self::FOOT - self::TOP) * ($cost - $least)) / max(1e-9, $most - $least),
            1,
        );
        $drawn = [];
        $taken = [];
        $k = 0;
        foreach ($curves as $offer => $stretches) {
            $lines = $rings = [];
            $labelAt = null;
            foreach ($stretches as $i => $stretch) {
                $inside = array_values(
                    array_filter($stretch, static fn (array $point): bool => $point[1] <= $most * 1.0001),
                );
                if ([] === $inside) {
                    continue;
                }
                $lines[] = implode(
                    ' ',
                    array_map(static fn (array $point): string => $x($point[0]).','.$y($point[1]), $inside),
                );
                if ($i > 0) {
                    $rings[] = [$x($inside[0][0]), $y($inside[0][1])];
                }
                $labelAt ??= [$x($inside[0][0]), $y($inside[0][1])];
            }
            if (null !== $labelAt) {
                $labelY = max(self::TOP + 4, $labelAt[1] - 6);
                foreach ($taken as [$tx, $ty]) {
                    if (abs($tx - $labelAt[0]) < 90 && abs($ty - $labelY) < 13) {
                        $labelY = $ty + 14;
                    }
                }
                $labelX = min(self::RIGHT - 70, $labelAt[0] + 8);
                $taken[] = [$labelAt[0], $labelY];
                $drawn[] = [
                    'style' => self::STYLES[$k++ % count(self::STYLES)],
                    'name' => $names[$offer] ?? '',
                    'lines' => $lines,
                    'rings' => $rings,
                    'nameX' => $labelX,
                    'nameY' => $labelY,
                ];
            }
        }
        $across = [];
        $lastX = -100.0;
        foreach (self::ticks($from, $to, $need) as $tick) {
            if ($x($tick) - $lastX >= 46 && (abs($x($tick) - $x($need)) >= 46 || $tick === $need)) {
                $across[] = [$x($tick), Format::number($tick)];
                $lastX = $x($tick);
            }
        }
        $up = [];
        $step = self::step(($most - $least) / 4);
        for ($cost = ceil($least / $step) * $step; $cost <= $most; $cost += $step) {
            $up[] = [$y($cost), $cost, $step < 0.01 ? 3 : ($step < 1 || $most < 20 ? 2 : 0)];
        }

        $table = [];
        foreach ($curves as $offer => $stretches) {
            $ends = array_map(
                static fn (array $stretch): array => count($stretch) > 1
                    ? [$stretch[0], $stretch[count($stretch) - 1]]
                    : $stretch,
                $stretches,
            );
            $table[$names[$offer] ?? ''] = array_merge([], ...$ends);
        }

        return new self(
            $drawn,
            $across,
            $up,
            $x($need),
            $x($need) > 440 ? $x($need) - 6 : $x($need) + 6,
            $table,
        );
    }

    /** @return list<float> */
    private static function ticks(float $from, float $to, float $need): array
    {
        $ticks = [$need];
        for ($power = 10 ** floor(log10(max(1.0, $from))); $power <= $to; $power *= 10) {
            foreach ([1, 2, 5] as $times) {
                if ($times * $power >= $from && $times * $power <= $to) {
                    $ticks[] = $times * $power;
                }
            }
        }
        sort($ticks);

        return $ticks;
    }

    private static function step(float $about): float
    {
        $power = 10 ** floor(log10(max(1e-6, $about)));
        foreach ([1, 2, 5, 10] as $times) {
            if ($times * $power >= $about) {
                return $times * $power;
            }
        }

        return 10 * $power;
    }
}
