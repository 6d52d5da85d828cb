<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** Days from sending an order to stock being available: their mean and their spread. */
final readonly class LeadTime
{
    private function __construct(public float $days, public float $spread)
    {
    }

    /**
     * @param float $days   mean, 0 or more
     * @param float $spread standard deviation in days, 0 or more
     *
     * @throws InvalidValue
     */
    public static function of(float $days, float $spread = 0.0): self
    {
        if ($days < 0.0 || $spread < 0.0) {
            throw InvalidValue::negative((string) min($days, $spread), 'lead-time days of 0 or more');
        }

        return new self($days, $spread);
    }

    /**
     * From the lead times met, drawn towards the promised one where few were met: the promise counts as three
     * deliveries, on time give or take a fifth (common practice, no source).
     *
     * @param list<int> $met days from sending to booking in, latest or oldest first
     */
    public static function fromDeliveries(int $promised, array $met): self
    {
        $weight = 3;
        $count = count($met);
        $mean = ($weight * $promised + array_sum($met)) / ($weight + $count);
        $squares = $weight * (0.2 * $promised) ** 2 + $weight * ($promised - $mean) ** 2;
        foreach ($met as $days) {
            $squares += ($days - $mean) ** 2;
        }

        return new self($mean, sqrt($squares / ($weight + $count)));
    }
}
