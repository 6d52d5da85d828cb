<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** When the details of a lot are asked for at the dock: use by, made on, origin. Its number always is. */
enum LotDetails: string
{
    case Never = 'never';
    case NewLots = 'new';
    case Always = 'always';

    public function words(): string
    {
        return match ($this) {
            self::Never => 'its number only',
            self::NewLots => 'use by, when the lot is new',
            self::Always => 'use by, each time',
        };
    }

    /** @param bool $known whether the lot came before, with its details */
    public function areNeeded(bool $known): bool
    {
        return self::Always === $this || (self::NewLots === $this && !$known);
    }
}
