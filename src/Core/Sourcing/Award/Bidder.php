<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;

/** What an order from one supplier costs and must keep to as a whole. Amounts are in the supplier's currency. */
final readonly class Bidder
{
    /**
     * @param float      $homeForOne    home currency for one of the supplier's
     * @param float      $orderCost     of placing and receiving one more order, home currency
     * @param float      $freightFactor what one of freight comes to with duty, exchange, terms and holding; 1 without
     * @param float|null $capacity      the most goods they can supply, in their currency
     */
    public function __construct(
        public FreightTariff $freight,
        public OrderMinimum $minimum,
        public float $homeForOne = 1.0,
        public float $orderCost = 0.0,
        public float $freightFactor = 1.0,
        public ?float $capacity = null,
    ) {
    }
}
