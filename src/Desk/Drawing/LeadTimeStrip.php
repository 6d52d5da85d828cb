<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Drawing;

/** Lead times met, a dot each, against what was promised. */
final readonly class LeadTimeStrip
{
    public const WIDTH = 340;
    public const HEIGHT = 64;
    private const LEFT = 8;
    private const RIGHT = 332;
    private const LINE = 40;

    /**
     * @param list<array{x: float, y: float, days: int}> $dots
     * @param list<array{float, string}>                 $ticks
     */
    private function __construct(
        public array $dots,
        public array $ticks,
        public float $promisedX,
        public int $promised,
        public int $count,
    ) {
    }

    /**
     * @param list<int> $met     days from sending to booking in
     * @param int|null  $longest where several strips are to have one scale, from 0 to this
     */
    public static function of(array $met, int $promised, ?int $longest = null): ?self
    {
        if ([] === $met) {
            return null;
        }
        $most = ($longest ?? max($promised, ...$met)) + 2;
        $least = null === $longest ? max(0, min($promised, ...$met) - 2) : 0;
        $x = static fn (int $days): float => round(
            self::LEFT + ((self::RIGHT - self::LEFT) * ($days - $least)) / max(1, $most - $least),
            1,
        );
        $seen = $dots = [];
        foreach ($met as $days) {
            $seen[$days] = ($seen[$days] ?? 0) + 1;
            $dots[] = ['x' => $x($days), 'y' => self::LINE - 7.0 * ($seen[$days] - 1), 'days' => $days];
        }
        $ticks = [];
        foreach (array_unique([$least, $promised, $most]) as $days) {
            $ticks[] = [$x($days), $days.' d'];
        }

        return new self($dots, $ticks, $x($promised), $promised, count($met));
    }
}
