<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** How many packs of one item to buy for one site, and why. */
final readonly class Proposal
{
    /**
     * @param BigDecimal               $needed    stock units to order before rounding to what can be bought, 0 or more
     * @param BigDecimal               $packs     what to buy, in the supplier's packs
     * @param float|null               $coverDays days the stock on hand lasts; null where nothing sells
     * @param float $shortIfNot stock units expected to be missed if it is ordered at the next chance and not now
     * @param float $atRisk what that waiting costs, home currency, see CostOfWaiting
     * @param float|null $dueInDays days until the stock position reaches the reorder point; null for never
     * @param BringForward|null        $forward   an open order that would save the day if it came sooner
     */
    public function __construct(
        public Reason $reason,
        public BigDecimal $needed,
        public BigDecimal $packs,
        public ?float $coverDays,
        public Explanation $explanation,
        public float $shortIfNot = 0.0,
        public float $atRisk = 0.0,
        public ?float $dueInDays = null,
        public ?BringForward $forward = null,
    ) {
    }
}
