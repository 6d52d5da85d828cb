<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What things cost the owner apart from the goods. */
final readonly class CostRates
{
    /**
     * @param float $moneyPercent    cost of borrowed money, a year
     * @param float $holdingPercent  cost of keeping stock, in percent of its value, a year
     * @param float $exchangePercent what the bank takes of a payment in a foreign currency
     */
    public function __construct(
        public float $moneyPercent,
        public float $holdingPercent,
        public float $exchangePercent,
    ) {
    }
}
