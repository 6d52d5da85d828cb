<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

/** What stands in a field of the business's own. */
enum OwnFieldKind: string
{
    case Text = 'text';
    case Number = 'number';
    case Day = 'day';
    case Choice = 'choice';
}
