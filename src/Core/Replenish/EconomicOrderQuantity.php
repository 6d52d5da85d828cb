<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** Harris, "How Many Parts to Make at Once", Factory, The Magazine of Management 10(2), 1913: √(2 D S / H). */
final readonly class EconomicOrderQuantity
{
    /**
     * @param float $demand      stock units a year
     * @param float $orderCost   cost of placing and receiving one order line
     * @param float $holdingCost cost of keeping one stock unit for a year
     *
     * @throws InvalidValue
     */
    public static function of(float $demand, float $orderCost, float $holdingCost): float
    {
        if ($demand < 0 || $orderCost < 0 || $holdingCost <= 0) {
            throw InvalidValue::because(sprintf('No economic quantity for demand %g, order cost %g, holding cost %g; expected 0 or more, and a holding cost above 0.', $demand, $orderCost, $holdingCost));
        }

        return sqrt(2 * $demand * $orderCost / $holdingCost);
    }
}
