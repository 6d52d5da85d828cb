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

    /**
     * From where an order costs less, or is accepted at all.
     *
     * @return list<array{int, float}> value (0), kilograms (1) or packs (2), and how much of it
     */
    public function thresholds(): array
    {
        $thresholds = [];
        foreach (
            [
                [0, $this->minimum->value],
                [0, $this->freight->freeFrom],
                [1, $this->minimum->kilograms],
                [2, $this->minimum->packs],
            ] as [$of, $limit]
        ) {
            if (null !== $limit) {
                $thresholds[] = [$of, $limit];
            }
        }

        return $thresholds;
    }
}
