<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** The next packs of an item that could go on an order early: as few as its supplier allows at a time. */
final readonly class FillStep
{
    /**
     * @param float $packs   how many, on top of those before
     * @param float $measure what they add towards what the supplier asks for: money, kilograms or packs
     * @param float $cost    what they add to the order's value
     * @param float $days    how long they would lie until they are needed
     */
    public function __construct(
        public float $packs,
        public float $measure,
        public float $cost,
        public float $days,
    ) {
    }
}
