<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** Whether a supplier is paid to an account. */
enum AccountState: string
{
    /** Waits for a second person. */
    case Asked = 'asked';
    case InForce = 'in-force';
    case Refused = 'refused';
    /** Was in force until another was. */
    case Replaced = 'replaced';

    public function words(): string
    {
        return match ($this) {
            self::Asked => 'waits for a second person',
            self::InForce => 'in force',
            self::Refused => 'refused',
            self::Replaced => 'replaced',
        };
    }
}
