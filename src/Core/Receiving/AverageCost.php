<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/**
 * Moving weighted average cost: after a receipt, all stock is worth what it was worth plus what came in.
 * Source: IAS 2 "Inventories", paragraph 27 (weighted average cost formula, calculated as each shipment is received).
 */
final readonly class AverageCost
{
    public const SCALE = 6;

    /**
     * Cost of one stock unit after some went back at what was paid for it: all that is left is worth what it was worth
     * less that. Where nothing is left, or what went back cost more than all of it is worth, the cost stays.
     *
     * @param BigDecimal $held  stock units before, of all sites
     * @param BigDecimal $cost  cost of one of them
     * @param BigDecimal $taken stock units that went back, above zero
     * @param BigDecimal $paid  cost of one of those
     */
    public static function without(
        BigDecimal $held,
        BigDecimal $cost,
        BigDecimal $taken,
        BigDecimal $paid,
    ): BigDecimal {
        $left = $held->minus($taken);
        $worth = $held->multipliedBy($cost)->minus($taken->multipliedBy($paid));

        return $left->isPositive() && !$worth->isNegative()
            ? $worth->dividedBy($left, self::SCALE, RoundingMode::HalfUp)
            : $cost;
    }

    /**
     * Cost of one stock unit after the receipt, in the home currency.
     *
     * @param BigDecimal      $held     stock units before, of all sites
     * @param BigDecimal|null $cost     cost of one of them; null if never known
     * @param BigDecimal      $received stock units that came in, above zero
     * @param BigDecimal      $paid     cost of one of those
     */
    public static function after(
        BigDecimal $held,
        ?BigDecimal $cost,
        BigDecimal $received,
        BigDecimal $paid,
    ): BigDecimal {
        // Nothing held (or oversold) has no worth to average with.
        if (null === $cost || !$held->isPositive()) {
            return $paid->toScale(self::SCALE, RoundingMode::HalfUp);
        }

        return $held
            ->multipliedBy($cost)
            ->plus($received->multipliedBy($paid))
            ->dividedBy($held->plus($received), self::SCALE, RoundingMode::HalfUp);
    }
}
