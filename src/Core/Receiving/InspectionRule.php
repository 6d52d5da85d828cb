<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** How much of what comes in is looked at before it may be sold. */
enum InspectionRule: string
{
    case Never = 'never';
    /** There to sell when it was put away. */
    case Dock = 'dock';
    case Sample = 'sample';
    /** Fewer are looked at where a supplier's were long good. */
    case Fewer = 'fewer';
    case All = 'all';

    public function words(): string
    {
        return match ($this) {
            self::Never => 'straight to the shelf',
            self::Dock => 'at the dock, until it is put away',
            self::Sample => 'a sample is inspected',
            self::Fewer => 'a sample, fewer where it was long good',
            self::All => 'every one is inspected',
        };
    }

    /** Whether somebody looks at it before it may be sold. */
    public function isInspected(): bool
    {
        return self::All === $this || $this->isSample();
    }

    public function isSample(): bool
    {
        return self::Sample === $this || self::Fewer === $this;
    }
}
