<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Demand\Forecast;

/** Weekly sales as they were, and the forecast with its spread. */
final readonly class DemandChart
{
    public const WIDTH = 760;
    public const HEIGHT = 170;
    private const LEFT = 40;
    private const RIGHT = 752;
    private const TOP = 12;
    private const FOOT = 146;
    private const BAND = 1.2815515655446004;

    /**
     * @param list<array{x: float, y: float, width: float, height: float}> $weeks
     * @param list<array{float, string}>                                   $gridlines
     * @param list<array{float, string}>                                   $dates
     */
    private function __construct(public array $weeks, public string $forecast, public string $band, public array $gridlines, public array $dates, public float $todayX)
    {
    }

    /** @param list<float> $sold weekly, oldest first */
    public static function of(array $sold, Forecast $forecast, \DateTimeImmutable $today, int $ahead = 13): self
    {
        $means = [];
        for ($week = 0; $week < $ahead; ++$week) {
            $means[] = $forecast->over(7 * ($week + 1)) - $forecast->over(7 * $week);
        }
        $spread = self::BAND * $forecast->sigma;
        $most = max([1.0, ...$sold, ...array_map(static fn (float $mean): float => $mean + $spread, $means)]);
        $count = count($sold) + $ahead;
        $slot = (self::RIGHT - self::LEFT) / max(1, $count);
        $y = static fn (float $value): float => round(self::FOOT - (self::FOOT - self::TOP) * max(0.0, $value) / $most, 1);
        $weeks = [];
        foreach ($sold as $i => $value) {
            $weeks[] = ['x' => round(self::LEFT + $i * $slot + 1, 1), 'y' => $y($value), 'width' => round($slot - 2, 1), 'height' => round(self::FOOT - $y($value), 1)];
        }
        $line = $high = $low = [];
        foreach ($means as $i => $mean) {
            $x = round(self::LEFT + (count($sold) + $i + .5) * $slot, 1);
            $line[] = $x.','.$y($mean);
            $high[] = $x.','.$y($mean + $spread);
            $low[] = $x.','.$y($mean - $spread);
        }
        $gridlines = [];
        foreach ([0.0, $most / 2, $most] as $level) {
            $gridlines[] = [$y($level), number_format($level, $most < 4 ? 1 : 0)];
        }
        $dates = [];
        for ($week = 0; $week < $count; $week += 8) {
            $dates[] = [round(self::LEFT + ($week + .5) * $slot, 1), $today->modify(sprintf('%+d days', 7 * ($week - count($sold))))->format('j M')];
        }

        return new self($weeks, implode(' ', $line), implode(' ', [...$high, ...array_reverse($low)]), $gridlines, $dates, round(self::LEFT + count($sold) * $slot, 1));
    }
}
