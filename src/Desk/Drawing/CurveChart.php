<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Desk\Shell\Format;

/** Service against money in stock, with the setting in force and the one being tried. */
final readonly class CurveChart
{
    public const WIDTH = 520;
    public const HEIGHT = 250;
    private const LEFT = 52;
    private const RIGHT = 506;
    private const TOP = 14;
    private const FOOT = 206;

    /**
     * @param list<array{x: float, y: float, label: string, served: float, stock: float}> $dots
     * @param list<array{float, float}>                      $across  x and money
     * @param list<array{float, string}>                     $up      y and label
     * @param array{x: float, y: float}|null                 $today
     * @param array{x: float, y: float}|null                 $tried
     */
    private function __construct(
        public string $line,
        public string $band,
        public array $dots,
        public array $across,
        public array $up,
        public ?array $today,
        public ?array $tried,
    ) {
    }

    /** @param list<array{level: float, served: float, stock: float, low: float, high: float, ...}> $points by level */
    public static function of(array $points, float $today, float $tried): self
    {
        if ([] === $points) {
            return new self('', '', [], [], [], null, null);
        }
        $stocks = array_column($points, 'stock');
        $most = max(1.0, ...$stocks) * 1.06;
        $least = min($stocks) * 0.9;
        $low = max(0.0, floor(20 * min(1.0, ...array_column($points, 'served'), ...array_column($points, 'low'))) / 20);
        $x = static fn (float $stock): float => round(
            self::LEFT + ((self::RIGHT - self::LEFT) * ($stock - $least)) / max(1e-9, $most - $least),
            1,
        );
        $y = static fn (float $share): float => round(
            self::FOOT - ((self::FOOT - self::TOP) * ($share - $low)) / max(1e-9, 1 - $low),
            1,
        );
        $line = $over = $under = $dots = [];
        $marks = ['today' => null, 'tried' => null];
        foreach ($points as $point) {
            $at = ['x' => $x($point['stock']), 'y' => $y($point['served'])];
            $line[] = $at['x'].','.$at['y'];
            $over[] = $at['x'].','.$y($point['high']);
            array_unshift($under, $at['x'].','.$y($point['low']));
            $dots[] = $at + [
                'label' => rtrim(rtrim(Format::number(100 * $point['level'], 1), '0'), '.'),
                'served' => $point['served'],
                'stock' => $point['stock'],
            ];
            foreach (['today' => $today, 'tried' => $tried] as $mark => $level) {
                if (abs($point['level'] - $level) < 1e-6) {
                    $marks[$mark] = $at;
                }
            }
        }
        $across = $up = [];
        foreach (range(0, 3) as $i) {
            $stock = $least + ($i * ($most - $least)) / 3;
            $across[] = [$x($stock), $stock];
        }
        // The scale begins at a multiple of 5 %, so that fifths of it are whole.
        foreach (range(0, 5) as $i) {
            $share = $low + ($i * (1 - $low)) / 5;
            $up[] = [$y($share), Format::number(100 * $share, 0).' %'];
        }

        return new self(
            implode(' ', $line),
            implode(' ', [...$over, ...$under]),
            $dots,
            $across,
            $up,
            $marks['today'],
            $marks['tried'],
        );
    }
}
