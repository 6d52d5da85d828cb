<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

/** On what labels are printed: usual sheets of A4, or single ones from a roll (sizes in trade, no source). */
enum LabelSheet: string
{
    case ThreeByEight = '3x8';
    case FourByTen = '4x10';
    /** Large enough for GS1-128 as well. */
    case TwoByFour = '2x4';
    case Single = 'single';

    public function words(): string
    {
        return match ($this) {
            self::ThreeByEight => 'A4, 24 of 70 × 37 mm',
            self::FourByTen => 'A4, 40 of 52.5 × 29.7 mm',
            self::TwoByFour => 'A4, 8 of 105 × 74 mm, bars too',
            self::Single => 'one by one, 62 × 29 mm',
        };
    }

    /** @return array{float, float} millimetres, wide and high */
    public function size(): array
    {
        return match ($this) {
            self::ThreeByEight => [70.0, 37.0],
            self::FourByTen => [52.5, 29.7],
            self::TwoByFour => [105.0, 74.0],
            self::Single => [62.0, 29.0],
        };
    }

    public function columns(): int
    {
        return match ($this) {
            self::ThreeByEight => 3,
            self::FourByTen => 4,
            self::TwoByFour => 2,
            self::Single => 1,
        };
    }

    public function rows(): int
    {
        return match ($this) {
            self::ThreeByEight => 8,
            self::FourByTen => 10,
            self::TwoByFour => 4,
            self::Single => 1,
        };
    }
}
