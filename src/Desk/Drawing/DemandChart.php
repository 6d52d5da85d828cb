<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Desk\Shell\Format;

/** Weekly sales as they were, and the forecast with its spread. */
final readonly class DemandChart
{
    public const WIDTH = 760;
    public const HEIGHT = 170;
    private const LEFT = 40;
    private const RIGHT = 752;
    private const TOP = 12;
    private const FOOT = 146;

    /**
     * @param list<array{x: float, y: float, width: float, height: float, mark: string, taken: float|null, day: string,
     *      kept: bool, words: string}> $weeks mark: what is odd about it, or nothing
     * @param list<array{float, string}>                                   $gridlines
     * @param list<array{float, string}>                                   $dates
     */
    private function __construct(
        public array $weeks,
        public string $forecast,
        public string $band,
        public string $innerBand,
        public array $gridlines,
        public array $dates,
        public float $todayX,
    ) {
    }

    /**
     * @param list<float> $sold weekly, oldest first
     * @param list<array{ago: int, kind: string, demand: float, taken: float|null, kept: bool}> $marks weeks that are
     *      not like the others
     */
    public static function of(
        array $sold,
        array $marks,
        Forecast $forecast,
        \DateTimeImmutable $today,
        int $ahead = 13,
    ): self {
        $means = [];
        for ($week = 0; $week < $ahead; ++$week) {
            $means[] = $forecast->week($week);
        }
        // One in ten weeks lies outside on either side; the inner band holds half of them.
        $quantile = static fn (float $mean, float $share): float => max(
            0.0,
            $forecast->shape->with($mean, $forecast->sigma, $forecast->errors)->quantile($share),
        );
        $odd = array_column($marks, null, 'ago');
        $usual = array_filter(
            $sold,
            static fn (int $i): bool => !isset($odd[count($sold) - $i]) || $odd[count($sold) - $i]['kept'],
            \ARRAY_FILTER_USE_KEY,
        );
        $most = max([1.0, ...$usual, ...array_map(static fn (float $mean): float => $quantile($mean, 0.9), $means)]);
        $count = count($sold) + $ahead;
        $slot = (self::RIGHT - self::LEFT) / max(1, $count);
        $y = static fn (float $value): float => round(
            self::FOOT - ((self::FOOT - self::TOP) * max(0.0, $value)) / $most,
            1,
        );
        $weeks = [];
        foreach ($sold as $i => $value) {
            $ago = count($sold) - $i;
            $top = max((float) self::TOP, $y($value));
            $weeks[] = [
                'x' => round(self::LEFT + $i * $slot + 1, 1),
                'y' => $top,
                'width' => round($slot - 2, 1),
                'height' => round(self::FOOT - $top, 1),
                'mark' => $odd[$ago]['kind'] ?? '',
                'taken' => isset($odd[$ago]['taken']) ? $y($odd[$ago]['taken']) : null,
                'kept' => $odd[$ago]['kept'] ?? false,
                'words' => sprintf(
                    'Week of %s: %s',
                    $today->modify(sprintf('-%d days', 7 * $ago))->format('j M Y'),
                    Format::number($value, $value === floor($value) ? 0 : 1),
                ),
                'day' => $today->modify(sprintf('-%d days', 7 * $ago))->format('Y-m-d'),
            ];
        }
        $line = $high = $low = $upper = $lower = [];
        foreach ($means as $i => $mean) {
            $x = round(self::LEFT + (count($sold) + $i + 0.5) * $slot, 1);
            $line[] = $x.','.$y($mean);
            $high[] = $x.','.$y($quantile($mean, 0.9));
            $low[] = $x.','.$y($quantile($mean, 0.1));
            $upper[] = $x.','.$y($quantile($mean, 0.75));
            $lower[] = $x.','.$y($quantile($mean, 0.25));
        }
        $gridlines = [];
        foreach ([0.0, $most / 2, $most] as $level) {
            $gridlines[] = [$y($level), Format::number($level, $most < 4 ? 1 : 0)];
        }
        $dates = [];
        for ($week = 0; $week < $count; $week += 8) {
            $dates[] = [
                round(self::LEFT + ($week + 0.5) * $slot, 1),
                $today->modify(sprintf('%+d days', 7 * ($week - count($sold))))->format('j M'),
            ];
        }

        return new self(
            $weeks,
            implode(' ', $line),
            implode(' ', [...$high, ...array_reverse($low)]),
            implode(' ', [...$upper, ...array_reverse($lower)]),
            $gridlines,
            $dates,
            round(self::LEFT + count($sold) * $slot, 1),
        );
    }
}
