<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

enum AgreementState: string
{
    case NotBegun = 'not begun';
    case OnPace = 'on pace';
    case Behind = 'behind, would be missed';
    case Ahead = 'ahead, would be used up early';
    case NearlyUsed = 'nearly used up';
    case UsedUp = 'used up';
    case EndsSoon = 'ends soon';
    case Ended = 'ended';

    /** Whether a person should look at it. */
    public function isWorthALook(): bool
    {
        return in_array($this, [self::Behind, self::Ahead, self::NearlyUsed, self::UsedUp, self::EndsSoon], true);
    }

    public function isInForce(): bool
    {
        return self::NotBegun !== $this && self::Ended !== $this;
    }
}
