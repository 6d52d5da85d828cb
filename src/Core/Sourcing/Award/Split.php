<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/** A line bought from two suppliers: stock units from each; money in the home currency. */
final readonly class Split
{
    /**
     * @param float $cost  of the two parts, without what the orders as a whole cost
     * @param float $saves against buying all of it from the first, the orders' costs included
     */
    public function __construct(
        public string $line,
        public string $first,
        public float $firstUnits,
        public string $second,
        public float $secondUnits,
        public float $cost,
        public float $saves,
    ) {
    }
}
