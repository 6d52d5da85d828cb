<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

/** A message: what is chosen of a price list is to be applied. */
final readonly class PriceListToApply
{
    public function __construct(public int $list, public int $person)
    {
    }
}
