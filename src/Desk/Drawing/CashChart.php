<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Settling\CashCalendar;
use TallBarrel\Core\Settling\CashKind;
use TallBarrel\Core\Settling\CashWeek;
use TallBarrel\Desk\Shell\Format;

/** What is to be paid each week as stacked bars, and above them what is left: at least, and at most. */
final readonly class CashChart
{
    private const WIDTH = 1180;
    private const LEFT = 60;
    private const BARS = 120;
    private const LINES = 130;
    private const TOP = 14;

    /**
     * @param list<array{x: float, y: float, width: float, height: float, kind: string, title: string}> $bars
     * @param list<array{float, string}>                                                                $names
     * @param list<array{float, string}>                                                                $scale of bars
     * @param list<array{float, string}>                                                                $levels of lines
     */
    private function __construct(
        public int $width,
        public int $height,
        public array $bars,
        public array $names,
        public array $scale,
        public array $levels,
        public string $high,
        public string $low,
        public ?float $nothing,
    ) {
    }

    public static function of(CashCalendar $calendar): self
    {
        $hasCash = null !== ($calendar->weeks[0] ?? null)?->high;
        $slot = (self::WIDTH - self::LEFT - 10) / CashCalendar::WEEKS;
        $floor = self::TOP + ($hasCash ? self::LINES + 20 : 0) + self::BARS;
        $most = max([1.0, ...array_map(self::paid(...), $calendar->weeks)]);
        $bars = $names = [];
        foreach ($calendar->weeks as $n => $week) {
            $y = (float) $floor;
            foreach (CashKind::cases() as $kind) {
                $sum = max(0.0, ($week->sums[$kind->value] ?? null)?->amount->toFloat() ?? 0.0);
                $tall = self::BARS * $sum / $most;
                if ($tall > 0) {
                    $y -= $tall;
                    $bars[] = [
                        'x' => round(self::LEFT + $n * $slot + 3, 1), 'y' => round($y, 1),
                        'width' => round($slot - 6, 1), 'height' => round($tall, 1), 'kind' => $kind->value,
                        'title' => $week->monday->format('j M').': '.Format::number($sum).' '.$kind->words(),
                    ];
                }
            }
            if (0 === $n % 2) {
                $names[] = [round(self::LEFT + ($n + 0.5) * $slot, 1), $week->monday->format('j M')];
            }
        }
        [$high, $low, $levels, $nothing] = $hasCash ? self::lines($calendar, $slot) : ['', '', [], null];

        return new self(self::WIDTH, $floor + 22, $bars, $names, [
            [(float) $floor, '0'], [(float) ($floor - self::BARS), self::short($most)],
        ], $levels, $high, $low, $nothing);
    }

    /** @return array{string, string, list<array{float, string}>, float} */
    private static function lines(CashCalendar $calendar, float $slot): array
    {
        $values = [0.0];
        foreach ($calendar->weeks as $week) {
            array_push($values, $week->high?->amount->toFloat() ?? 0.0, $week->low?->amount->toFloat() ?? 0.0);
        }
        [$least, $most] = [min($values), max($values)];
        $y = static fn (float $value): float => round(
            self::TOP + self::LINES * (1 - ($value - $least) / max(1.0, $most - $least)),
            1,
        );
        $line = static function (string $which) use ($calendar, $slot, $y): string {
            $points = [];
            foreach ($calendar->weeks as $n => $week) {
                $value = ('high' === $which ? $week->high : $week->low)?->amount->toFloat() ?? 0.0;
                $points[] = round(self::LEFT + ($n + 0.5) * $slot, 1).','.$y($value);
            }

            return implode(' ', $points);
        };

        return [$line('high'), $line('low'), array_map(
            static fn (float $level): array => [$y($level), self::short($level)],
            array_values(array_unique([$least, 0.0, $most])),
        ), $y(0.0)];
    }

    private static function paid(CashWeek $week): float
    {
        $sum = 0.0;
        foreach ($week->sums as $one) {
            $sum += max(0.0, $one->amount->toFloat());
        }

        return $sum;
    }

    private static function short(float $value): string
    {
        return abs($value) >= 1000 ? Format::number($value / 1000, 1).'k' : Format::number($value);
    }
}
