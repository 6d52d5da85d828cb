<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** When a change of an order that is out needs a new yes. */
enum YesRule: string
{
    case Never = 'never';
    /** Where it then costs more, and goes beyond what the person may order. */
    case BeyondLimit = 'beyond-limit';
    /** Of somebody who approves orders and did not make the change. */
    case Always = 'always';

    public function words(): string
    {
        return match ($this) {
            self::Never => 'no new yes',
            self::BeyondLimit => 'where it costs more than they may order',
            self::Always => 'a yes of somebody else, always',
        };
    }
}
