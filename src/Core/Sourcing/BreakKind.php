<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What a price break lowers the price of. */
enum BreakKind: string
{
    /** All of the quantity bought. */
    case AllUnits = 'all-units';
    /** Only what goes beyond the quantity the break starts at. */
    case Incremental = 'incremental';

    public function words(): string
    {
        return match ($this) {
            self::AllUnits => 'for all of them',
            self::Incremental => 'for those beyond',
        };
    }
}
