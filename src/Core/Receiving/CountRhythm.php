<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use TallBarrel\Core\Demand\ValueClass;

/**
 * How often shelves are counted: what is worth most the most often. The days are common practice, no source; counting
 * by class is in Silver, Pyke & Peterson, "Inventory Management and Production Planning and Scheduling", on cycle
 * counting.
 */
final readonly class CountRhythm
{
    private function __construct()
    {
    }

    /** Days after which it is counted again. */
    public static function days(ValueClass $class): int
    {
        return match ($class) {
            ValueClass::A => 30,
            ValueClass::B => 90,
            ValueClass::C => 180,
        };
    }
}
