<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;

/**
 * Stock expected at the end of each coming day, with and without the proposed order. Day 0 is today.
 *
 * What was promised to customers beyond what is there stays owed, below zero, until something comes in; whoever else
 * finds
 * the shelf empty goes without and owes nothing.
 */
final readonly class Projection
{
    /** One in ten outcomes lies below the band, one in ten above it. */
    private const BAND = 1.2815515655446004;

    /**
     * @param list<ProjectedDay> $days     today first
     * @param int|null           $outOnDay first day with nothing left if nothing more is ordered
     * @param float              $missed   stock units owed or wanted and not there, in all, if nothing more is ordered
     */
    private function __construct(public array $days, public ?int $outOnDay, public float $missed)
    {
    }

    /**
     * @param float             $onHand   stock units on hand, less those promised
     * @param array<int, float> $arrivals stock units on open orders by day from today
     * @param float             $proposed stock units of the proposal
     * @param int               $onDay    day the proposal would arrive
     * @param int               $days     how far to look, 0 or more
     * @param array<int, float> $leaving  stock units of planned demand by day from today
     */
    public static function over(
        int $days,
        float $onHand,
        array $arrivals,
        Forecast $forecast,
        float $proposed,
        int $onDay,
        array $leaving = [],
    ): self {
        $projected = [];
        $without = $with = $onHand;
        $out = $onHand <= 0 ? 0 : null;
        $before = $planned = 0.0;
        $missed = max(0.0, -$onHand);
        for ($day = 0; $day <= max(0, $days); ++$day) {
            $planned += $leaving[$day] ?? 0.0;
            $until = $forecast->over($day) + $planned;
            $leaves = $until - $before;
            $before = $until;
            $in = $arrivals[$day] ?? 0.0;
            $ordered = $day === $onDay ? $proposed : 0.0;
            [$without, $short] = self::take($without + $in, $leaves);
            [$with] = self::take($with + $in + $ordered, $leaves);
            $missed += $short;
            $spread = self::BAND * $forecast->sigmaOver($day);
            $projected[] = new ProjectedDay(
                $in,
                $ordered,
                $leaves,
                $without,
                $with,
                max(min(0.0, $with), $with - $spread),
                $with + $spread,
            );
            if (null === $out && $without <= 0.0) {
                $out = $day;
            }
        }

        return new self($projected, $out, $missed);
    }

    /** @return array{float, float} what is left of the stock, and what was wanted and not there */
    private static function take(float $stock, float $leaves): array
    {
        $left = max(min(0.0, $stock), $stock - $leaves);

        return [$left, $leaves - ($stock - $left)];
    }
}
