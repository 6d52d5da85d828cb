<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Replenish\ProjectedDay;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Desk\Shell\Format;

/** The stock projected day by day, with and without the order, against its levels. */
final readonly class StockChart
{
    public const WIDTH = 374;
    public const HEIGHT = 190;
    private const LEFT = 42;
    private const RIGHT = 366;
    private const TOP = 26;
    private const FOOT = 158;
    /** Of the height, at least, where something is owed. */
    private const OWED_ROOM = 0.14;

    /**
     * @param list<array{float, string}> $gridlines y and label
     * @param list<array{float, string}> $dates     x and label
     * @param list<array{float, string}> $days      left edge and what is read there
     */
    private function __construct(
        public string $with,
        public string $without,
        public string $band,
        public array $gridlines,
        public array $dates,
        public ?float $safety,
        public ?float $reorder,
        public ?float $arrivalX,
        public ?float $outX,
        public float $foot,
        public float $zero,
        public array $days,
        public float $dayWidth,
    ) {
    }

    public static function of(
        Projection $projection,
        float $safety,
        float $reorder,
        \DateTimeImmutable $today,
        ?int $arrivalDay,
    ): self {
        $levels = static fn (string $which): array => array_column($projection->days, $which);
        $days = count($projection->days) - 1;
        $most = max([1.0, ...$levels('high'), $reorder]);
        // What is owed lies below zero.
        $least = min([0.0, ...$levels('low'), ...$levels('without')]);
        $step = self::roundStep($most / 3);
        $ceiling = $step * ceil($most / $step);
        $floor = $least < 0 ? min($least, -self::OWED_ROOM * $ceiling) : 0.0;
        $x = static fn (int $day): float => round(self::LEFT + ((self::RIGHT - self::LEFT) * $day) / max(1, $days), 1);
        $y = static fn (float $level): float => round(
            self::FOOT - (self::FOOT - self::TOP) * min(1.0, ($level - $floor) / ($ceiling - $floor)),
            1,
        );
        $line = static function (array $levels) use ($x, $y): string {
            $points = [];
            foreach (array_values($levels) as $day => $level) {
                $points[] = $x($day).','.$y(is_float($level) ? $level : 0.0);
            }

            return implode(' ', $points);
        };
        $gridlines = [];
        for ($level = 0.0; $level <= $ceiling + 1e-9; $level += $step) {
            $gridlines[] = [$y($level), Format::number($level, $step < 1 ? 1 : 0)];
        }
        $dates = [];
        foreach ([0, (int) round($days / 3), (int) round((2 * $days) / 3), $days] as $day) {
            $dates[] = [$x($day), $today->modify(sprintf('+%d days', $day))->format('j M')];
        }

        return new self(
            $line($levels('with')),
            $line($levels('without')),
            $line($levels('high')).' '.implode(' ', array_reverse(explode(' ', $line($levels('low'))))),
            $gridlines,
            $dates,
            $safety > 0 ? $y($safety) : null,
            $reorder > 0 ? $y($reorder) : null,
            null !== $arrivalDay && $arrivalDay <= $days ? $x($arrivalDay) : null,
            null !== $projection->outOnDay ? $x($projection->outOnDay) : null,
            self::FOOT,
            $y(0.0),
            array_map(
                static fn (int $day, ProjectedDay $left): array => [
                    round($x($day) - (self::RIGHT - self::LEFT) / (2 * max(1, $days)), 1),
                    sprintf(
                        '%s: %s left%s',
                        $today->modify(sprintf('+%d days', $day))->format('D j M'),
                        Format::number($left->with, $most < 10 ? 1 : 0),
                        $left->in + $left->proposed > 0
                            ? sprintf(', %s in', Format::number($left->in + $left->proposed, $most < 10 ? 1 : 0))
                            : '',
                    ),
                ],
                array_keys($projection->days),
                $projection->days,
            ),
            round((self::RIGHT - self::LEFT) / max(1, $days), 2),
        );
    }

    private static function roundStep(float $step): float
    {
        $power = 10 ** floor(log10(max($step, 0.1)));
        foreach ([1, 2, 2.5, 5, 10] as $nice) {
            if ($step <= $nice * $power) {
                return $nice * $power;
            }
        }

        return 10 * $power;
    }
}
