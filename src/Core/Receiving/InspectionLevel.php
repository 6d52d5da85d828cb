<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/**
 * How much is looked at for the size of a lot: general levels of ISO 2859-1, table 1, the same as MIL-STD-105E,
 * table I (from memory).
 */
enum InspectionLevel: string
{
    case One = 'I';
    case Two = 'II';
    case Three = 'III';

    /** Places of the code letters by the size of the lot, smallest first. */
    private const FEWER = [0, 0, 1, 2, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12];

    public function words(): string
    {
        return match ($this) {
            self::One => 'I, fewer',
            self::Two => 'II, as usual',
            self::Three => 'III, more',
        };
    }

    /** @param int $size place of the lot's size, from 0 */
    public function letter(int $size): int
    {
        return match ($this) {
            self::One => self::FEWER[$size],
            self::Two => $size,
            self::Three => $size + 1,
        };
    }
}
