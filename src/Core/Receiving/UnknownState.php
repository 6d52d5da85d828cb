<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** What became of a delivery that nobody could place when it came. */
enum UnknownState: string
{
    case Waiting = 'waiting';
    case Placed = 'placed';
    case SentAway = 'sent-away';

    public function words(): string
    {
        return match ($this) {
            self::Waiting => 'waits',
            self::Placed => 'counted as a delivery',
            self::SentAway => 'sent away',
        };
    }
}
