<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Store\Order\OrderLine;

/** A line as it stands after something was put on an order. */
final readonly class PutLine
{
    /** @param bool $raised whether it stood there before, and has become more */
    public function __construct(public OrderLine $line, public bool $raised)
    {
    }
}
