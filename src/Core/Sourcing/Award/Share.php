<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/** What one supplier gets of a basket. Costs in the home currency, value in the supplier's. */
final readonly class Share
{
    /**
     * @param list<string> $lines
     * @param string|null  $short what the order lacks of the minimum, or has beyond the capacity
     */
    public function __construct(
        public array $lines,
        public float $lineCost,
        public float $freight,
        public float $orderCost,
        public float $value,
        public float $kilograms,
        public ?string $short,
    ) {
    }

    public function cost(): float
    {
        return $this->lineCost + $this->freight + $this->orderCost;
    }
}
