<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\Money\Money;

/**
 * What of a month's budget is spoken for: goods without tax and freight, in the home currency. What is not sent yet
 * counts in the month that runs; what was closed short does not count.
 */
final readonly class BudgetUse
{
    /**
     * @param Money|null $budget  null where there is none
     * @param Money      $sent    orders sent in the month
     * @param Money      $waiting orders approved, or waiting for approval
     * @param Money      $drafted orders drafted
     */
    public function __construct(
        public ?Money $budget,
        public Money $sent,
        public Money $waiting,
        public Money $drafted,
    ) {
    }

    public function spokenFor(): Money
    {
        return $this->sent->plus($this->waiting)->plus($this->drafted);
    }

    /** Below zero where more is spoken for than there is; null without a budget. */
    public function left(): ?Money
    {
        return $this->budget?->minus($this->spokenFor())->rounded();
    }
}
