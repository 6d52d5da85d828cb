<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** A lot of which a sample was looked at. */
final readonly class InspectedLot
{
    public function __construct(public int $units, public int $bad, public bool $accepted)
    {
    }
}
