<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** How far goods have come on their way from one site to another. */
enum TransferState: string
{
    /** Asked for; they stand where they stood. */
    case ToPick = 'to-pick';
    /** Left one site and not yet counted at the other. */
    case UnderWay = 'under-way';
    case Arrived = 'arrived';
    case Dropped = 'dropped';

    public function words(): string
    {
        return match ($this) {
            self::ToPick => 'to be picked',
            self::UnderWay => 'on its way',
            self::Arrived => 'arrived',
            self::Dropped => 'given up',
        };
    }

    public function isOver(): bool
    {
        return self::Arrived === $this || self::Dropped === $this;
    }
}
