<?php

declare(strict_types=1);

namespace TallBarrel\Store\Site;

/** What stands in a bin. */
enum BinKind: string
{
    case Shelf = 'shelf';
    case Dock = 'dock';
    case Inspection = 'inspection';
    case Held = 'held';

    public function words(): string
    {
        return match ($this) {
            self::Shelf => 'shelf',
            self::Dock => 'at the dock',
            self::Inspection => 'for inspection',
            self::Held => 'for what is held',
        };
    }
}
