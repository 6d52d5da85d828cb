<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/** One supplier's way of supplying one line of a basket. */
final readonly class Bid
{
    /**
     * @param float $cost      of the line in the home currency, all but what the order as a whole costs
     * @param float $value     of its goods, in the supplier's currency
     * @param float $kilograms its weight
     * @param float $packs     how many packs
     */
    public function __construct(
        public float $cost,
        public float $value,
        public float $kilograms = 0.0,
        public float $packs = 1.0,
    ) {
    }

    /** @return array{float, float, float} value, kilograms, packs */
    public function uses(): array
    {
        return [$this->value, $this->kilograms, $this->packs];
    }
}
