<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

/** What a line of a price list means for us. */
enum PriceMove: string
{
    case Striking = 'striking';
    case Rise = 'rise';
    case Fall = 'fall';
    case Added = 'added';
    case Gone = 'gone';
    case Same = 'same';
    case NotHeld = 'not-held';

    public function title(): string
    {
        return match ($this) {
            self::Striking => 'Striking',
            self::Rise => 'Dearer',
            self::Fall => 'Cheaper',
            self::Added => 'New offers',
            self::Gone => 'Not listed any more',
            self::Same => 'Unchanged',
            self::NotHeld => 'Nothing we hold',
        };
    }

    /** Whether its lines can be taken or left. */
    public function canBeChosen(): bool
    {
        return self::NotHeld !== $this;
    }
}
