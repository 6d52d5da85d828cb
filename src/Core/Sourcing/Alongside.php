<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What else goes on the same order: goods in the supplier's currency, kilograms, packs. */
final readonly class Alongside
{
    public function __construct(public float $value = 0.0, public float $kilograms = 0.0, public float $packs = 0.0)
    {
    }
}
