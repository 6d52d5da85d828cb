<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Stock units another site should give. */
final readonly class Move
{
    /**
     * @param int   $site  where they come from
     * @param float $saves what would be lost without them until a purchase arrives, home currency
     * @param float $risks what may be lost where they come from; below zero where keeping them there costs more
     */
    public function __construct(
        public int $site,
        public float $units,
        public float $saves,
        public float $risks,
    ) {
    }
}
