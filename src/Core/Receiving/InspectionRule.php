<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** How much of what comes in is looked at before it may be sold. */
enum InspectionRule: string
{
    case Never = 'never';
    case Sample = 'sample';
    /** Fewer are looked at where a supplier's were long good. */
    case Fewer = 'fewer';
    case All = 'all';

    public function words(): string
    {
        return match ($this) {
            self::Never => 'straight to the shelf',
            self::Sample => 'a sample is inspected',
            self::Fewer => 'a sample, fewer where it was long good',
            self::All => 'every one is inspected',
        };
    }

    public function isSample(): bool
    {
        return self::Sample === $this || self::Fewer === $this;
    }
}
