<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;

/**
 * Goods that a supplier left in our stock stay theirs until they are used. Ours go first: theirs are used as far as
 * there is less of an item than they left, the oldest first (common practice, no source; what counts is the agreement
 * with the supplier).
 */
final readonly class Consigned
{
    /**
     * By hand: 30 and then 20 were left, 35 are there: 15 of the first are used.
     *
     * @template K of array-key
     *
     * @param array<K, BigDecimal> $theirs stock units of one item that are theirs yet, the oldest first
     * @param BigDecimal           $held   stock units of it that are there, at all sites
     *
     * @return array<K, BigDecimal> stock units that were used, where any were
     */
    public static function used(array $theirs, BigDecimal $held): array
    {
        $left = BigDecimal::sum(BigDecimal::zero(), ...array_values($theirs))->minus(BigDecimal::max($held, 0));
        $used = [];
        foreach ($theirs as $key => $units) {
            $some = BigDecimal::min($units, $left);
            if (!$some->isPositive()) {
                break;
            }
            $used[$key] = $some;
            $left = $left->minus($some);
        }

        return $used;
    }
}
