<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\BudgetUse;

/** How the budget stands if so much more is spent. */
final readonly class BudgetStanding
{
    /**
     * @param \DateTimeImmutable       $month      the month that is left with least
     * @param BudgetUse                $use        its budget, without what more is spent
     * @param Money                    $more       what more is spent in it
     * @param array<string, BudgetUse> $categories with a limit of their own, in the month that runs
     */
    public function __construct(
        public \DateTimeImmutable $month,
        public BudgetUse $use,
        public Money $more,
        public array $categories,
    ) {
    }
}
