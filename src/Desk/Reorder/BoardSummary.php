<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\BudgetUse;

/** What is chosen on the board, added up. Money is in the home currency. */
final readonly class BoardSummary
{
    /**
     * @param int        $orders     that would be drafted
     * @param int        $hidden     lines chosen that a filter hides; they are not drafted
     * @param float      $weight     kilograms
     * @param BudgetUse  $budget     of the month, before these
     * @param \DateTimeImmutable $month of all in which these are spent the one whose budget they leave least of
     * @param Money      $inMonth    what of these is spent in it
     * @param bool       $whenPaid   whether money counts when it is paid, not when it is ordered
     * @param int        $items      listed
     * @param int        $cut        lines left out to stay within the budget
     * @param Money      $nextHundred what the next hundred of the budget would save
     * @param Money      $cutGap     what another choice within the budget could risk less, at most
     * @param list<string> $below    suppliers whose order would stay below their minimum, with what it lacks
     */
    public function __construct(
        public int $orders,
        public int $lines,
        public int $hidden,
        public Money $total,
        public float $weight,
        public BudgetUse $budget,
        public \DateTimeImmutable $month,
        public Money $inMonth,
        public bool $whenPaid,
        public int $items,
        public int $cut,
        public Money $cutValue,
        public Money $cutRisk,
        public Money $nextHundred,
        public array $below,
        public Money $cutGap,
    ) {
    }

    /** Of the month's budget, when these are drafted; below zero where they go beyond it, null without a budget. */
    public function leftAfter(): ?Money
    {
        return $this->budget->left()?->minus($this->inMonth);
    }
}
