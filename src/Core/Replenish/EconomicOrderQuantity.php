<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/** How much to order where demand is even: the quantity at which ordering and holding together cost least. */
final readonly class EconomicOrderQuantity
{
    /**
     * Source: Harris, "How Many Parts to Make at Once", Factory, The Magazine of Management 10(2), 1913: √(2 D S / H).
     *
     * @param float $demand      stock units a year
     * @param float $orderCost   cost of placing and receiving one order line
     * @param float $holdingCost cost of keeping one stock unit for a year
     *
     * @throws InvalidValue
     */
    public static function of(float $demand, float $orderCost, float $holdingCost): float
    {
        if ($demand < 0 || $orderCost < 0 || $holdingCost <= 0) {
            throw InvalidValue::because(
                sprintf(
                    'No economic quantity for demand %g, order cost %g, holding cost %g; expected 0 or more, and a '
                    .'holding cost above 0.',
                    $demand,
                    $orderCost,
                    $holdingCost,
                ),
            );
        }

        return sqrt((2 * $demand * $orderCost) / $holdingCost);
    }

    /**
     * With prices that fall from certain quantities on, for all units bought.
     *
     * Source: Hadley & Whitin, "Analysis of Inventory Systems", 1963, section 2-11: the economic quantity of each price
     * where it may be had at that price, else the quantity at which the price begins.
     *
     * @param float                             $holdingShare of the price, a year
     * @param non-empty-list<array{float, float}> $breaks       from so many units, price of one; rising quantities
     *
     * @return array{float, float} quantity, and cost of a year: goods, ordering, holding
     *
     * @throws InvalidValue
     */
    public static function allUnits(float $demand, float $orderCost, float $holdingShare, array $breaks): array
    {
        $best = [0.0, INF];
        foreach ($breaks as $i => [$from, $price]) {
            $until = $breaks[$i + 1][0] ?? INF;
            $quantity = max($from, self::of($demand, $orderCost, $holdingShare * $price));
            if ($quantity >= $until || $quantity <= 0) {
                continue;
            }
            $cost = $demand * $price + ($demand / $quantity) * $orderCost + ($quantity / 2) * $holdingShare * $price;
            if ($cost < $best[1]) {
                $best = [$quantity, $cost];
            }
        }

        return $best;
    }

    /**
     * With a lower price for only those units beyond each quantity.
     *
     * Source: Hadley & Whitin 1963, section 2-12: what the earlier units cost more counts like a cost of ordering.
     *
     * @param non-empty-list<array{float, float}> $breaks
     *
     * @return array{float, float}
     *
     * @throws InvalidValue
     */
    public static function incremental(float $demand, float $orderCost, float $holdingShare, array $breaks): array
    {
        $best = [0.0, INF];
        $extra = 0.0;
        foreach ($breaks as $i => [$from, $price]) {
            if ($i > 0) {
                $extra += $from * ($breaks[$i - 1][1] - $price);
            }
            $until = $breaks[$i + 1][0] ?? INF;
            $quantity = self::of($demand, $orderCost + $extra, $holdingShare * $price);
            if ($quantity < $from || $quantity >= $until || $quantity <= 0) {
                continue;
            }
            $goods = $extra + $price * $quantity;
            $cost = ($demand * $goods) / $quantity + ($demand / $quantity) * $orderCost + ($holdingShare * $goods) / 2;
            if ($cost < $best[1]) {
                $best = [$quantity, $cost];
            }
        }

        return $best;
    }
}
