<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** How many packs of one item to buy for one site, and why. */
final readonly class Proposal
{
    /**
     * @param BigDecimal $needed    stock units missing up to the order-up-to level, 0 or more
     * @param BigDecimal $packs     what to buy, in the supplier's packs
     * @param float|null $coverDays days the stock on hand lasts; null where nothing sells
     */
    public function __construct(
        public Reason $reason,
        public BigDecimal $needed,
        public BigDecimal $packs,
        public ?float $coverDays,
        public Explanation $explanation,
    ) {
    }
}
