<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Replenish\Evidence;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Desk\Drawing\StockChart;
use TallBarrel\Store\Offer\OfferName;
use TallBarrel\Store\Planning\SavedProposal;

/**
 * The why of one proposal: the drawing that follows the quantity, the sum that led to it, and what else could be done.
 */
final readonly class Why
{
    /**
     * @param \DateTimeImmutable|null $outOn    the first day with nothing left if nothing is ordered
     * @param \DateTimeImmutable      $arrival  day the proposal would be here
     * @param BigDecimal              $units    stock units of it
     * @param list<OfferName>         $others   who else sells it
     * @param list<OpenOrder>         $overdue  orders of it that are late
     * @param \DateTimeImmutable      $putOffTo the next chance to order after this one
     */
    public function __construct(
        public SavedProposal $proposal,
        public ReorderRow $row,
        public Evidence $evidence,
        public StockChart $chart,
        public ?\DateTimeImmutable $outOn,
        public \DateTimeImmutable $arrival,
        public BigDecimal $units,
        public array $others,
        public array $overdue,
        public \DateTimeImmutable $putOffTo,
    ) {
    }
}
