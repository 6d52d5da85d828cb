<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

/** A message: a price list that was brought is to be read. */
final readonly class PriceListToRead
{
    public function __construct(public int $list)
    {
    }
}
