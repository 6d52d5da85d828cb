<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Distribution;

/** How much may be wanted over some time, and how likely. */
interface Distribution
{
    /** Stock units expected. */
    public function mean(): float;

    /** Standard deviation in stock units. */
    public function deviation(): float;

    /** Probability that no more than so many units are wanted. */
    public function cumulative(float $units): float;

    /**
     * The fewest units that suffice with the probability given.
     *
     * @param float $probability above 0 and below 1
     */
    public function quantile(float $probability): float;

    /** Units wanted beyond those there are, expected: E[(D − x)⁺]. */
    public function loss(float $units): float;
}
