<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settings;

use Brick\Math\BigDecimal;

/** Budgets as they are typed, in the home currency. */
final class BudgetEntry
{
    /**
     * @param BigDecimal|null                $usual  null for none
     * @param array<string, BigDecimal|null> $months by month, as 2026-12; null for as usual
     */
    public function __construct(public ?BigDecimal $usual, public array $months)
    {
    }
}
