<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** What a count says against what is still on order. */
enum CountFinding: string
{
    case NotCounted = 'not-counted';
    case AsOrdered = 'as-ordered';
    case Short = 'short';
    case Over = 'over';
    case TooMuch = 'too-much';
}
