<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** One coming day of the stock, in stock units; what is left is below zero where customers are owed. */
final readonly class ProjectedDay
{
    /**
     * @param float $in       from open orders
     * @param float $proposed from the proposal, where it comes on this day
     * @param float $out      forecast and planned, whether it is there or not
     * @param float $without  left at its end if nothing more is ordered
     * @param float $with     left at its end with the proposal
     * @param float $low      lower edge of the band around $with
     * @param float $high     its upper edge
     */
    public function __construct(
        public float $in,
        public float $proposed,
        public float $out,
        public float $without,
        public float $with,
        public float $low,
        public float $high,
    ) {
    }
}
