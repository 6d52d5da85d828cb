<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What a price break counts. */
enum BreakBasis: string
{
    /** Packs on the line. */
    case Quantity = 'quantity';
    /** The line's value at the first price, in the offer's currency. */
    case Value = 'value';
}
