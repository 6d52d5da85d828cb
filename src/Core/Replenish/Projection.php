<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;

/** Stock expected at the end of each coming day, with and without the proposed order. Day 0 is today. */
final readonly class Projection
{
    /** One in ten outcomes lies below the band, one in ten above it. */
    private const BAND = 1.2815515655446004;

    /**
     * @param list<float> $without  stock units if nothing more is ordered, never below zero
     * @param list<float> $with     stock units with the proposed order
     * @param list<float> $low      lower edge of the band around $with
     * @param list<float> $high     its upper edge
     * @param int|null    $outOnDay first day with nothing left if nothing more is ordered
     * @param float       $missed   stock units owed or wanted and not there, in all, if nothing more is ordered
     */
    private function __construct(
        public array $without,
        public array $with,
        public array $low,
        public array $high,
        public ?int $outOnDay,
        public float $missed,
    ) {
    }

    /**
     * @param float             $onHand   stock units on hand, less those promised
     * @param array<int, float> $arrivals stock units on open orders by day from today
     * @param float             $proposed stock units of the proposal
     * @param int               $onDay    day the proposal would arrive
     * @param int               $days     how far to look
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
        $without = $with = $low = $high = [];
        $stock = $stockWith = $onHand;
        $out = $onHand <= 0 ? 0 : null;
        $before = $missed = 0.0;
        for ($day = 0; $day <= $days; ++$day) {
            $until =
                $forecast->over($day) +
                array_sum(array_filter($leaving, static fn (int $on): bool => $on <= $day, \ARRAY_FILTER_USE_KEY));
            $stock += ($arrivals[$day] ?? 0.0) - ($until - $before);
            $missed += max(0.0, -$stock);
            $stock = max(0.0, $stock);
            $stockWith = max(
                0.0,
                $stockWith + ($arrivals[$day] ?? 0.0) + ($day === $onDay ? $proposed : 0.0) - ($until - $before),
            );
            $before = $until;
            $without[] = $stock;
            $with[] = $stockWith;
            $spread = self::BAND * $forecast->sigmaOver($day);
            $low[] = max(0.0, $stockWith - $spread);
            $high[] = $stockWith + $spread;
            if (null === $out && $stock <= 0.0) {
                $out = $day;
            }
        }

        return new self($without, $with, $low, $high, $out, $missed);
    }
}
