<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Stock units another site could give. */
final readonly class Move
{
    public function __construct(public int $site, public float $units)
    {
    }
}
