<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Demand known beforehand that no forecast can see: a fair, a school order, a club's bulk buy. */
final readonly class PlannedDemand
{
    public function __construct(public string $name, public float $stockUnits, public \DateTimeImmutable $day)
    {
    }

    /** @param list<self> $planned */
    public static function until(array $planned, \DateTimeImmutable $today, float $days): float
    {
        return (float) array_sum(
            array_map(static fn (self $one): float => $one->isWithin($today, $days) ? $one->stockUnits : 0.0, $planned),
        );
    }

    /**
     * @param list<self> $planned
     *
     * @return array<int, float> stock units by day from today, 0 for what is due already
     */
    public static function byDay(array $planned, \DateTimeImmutable $today): array
    {
        $byDay = [];
        foreach ($planned as $one) {
            $ahead = max(0, (int) $today->setTime(0, 0)->diff($one->day->setTime(0, 0))->format('%r%a'));
            $byDay[$ahead] = ($byDay[$ahead] ?? 0.0) + $one->stockUnits;
        }

        return $byDay;
    }

    public function isWithin(\DateTimeImmutable $today, float $days): bool
    {
        $ahead = (int) $today->diff($this->day)->format('%r%a');

        return $ahead >= 0 && $ahead <= $days;
    }
}
