<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Core\Ordering\BudgetUse;

/** Where the money goes; all values in the home currency. */
final readonly class SpendingOverview
{
    /**
     * @param array<string, float> $dueByWeek  to be paid on open orders with tax, by the Monday of the
     *      week it is due by the supplier's terms, early where the discount pays
     * @param array<string, float> $bought     received, by the supplier's name, most first
     * @param BudgetUse            $budget     of this month
     */
    public function __construct(public array $dueByWeek, public array $bought, public BudgetUse $budget)
    {
    }
}
