<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** How far goods have come on their way back to a supplier. */
enum ReturnState: string
{
    case Asked = 'asked';
    case Agreed = 'agreed';
    /** They have left our stock. */
    case Sent = 'sent';
    case Settled = 'settled';
    case Dropped = 'dropped';

    public function words(): string
    {
        return match ($this) {
            self::Asked => 'asked for',
            self::Agreed => 'agreed',
            self::Sent => 'sent back',
            self::Settled => 'settled',
            self::Dropped => 'given up',
        };
    }

    /** Whether the goods still stand with us. */
    public function isStillHere(): bool
    {
        return self::Asked === $this || self::Agreed === $this;
    }

    public function isOver(): bool
    {
        return self::Settled === $this || self::Dropped === $this;
    }
}
