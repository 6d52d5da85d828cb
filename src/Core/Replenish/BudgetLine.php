<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** A line that may be left out where the month's budget does not reach; money in the home currency. */
final readonly class BudgetLine
{
    /**
     * @param float $value what it costs
     * @param float $loss  what leaving it out costs, see CostOfWaiting
     */
    public function __construct(public float $value, public float $loss, public Reason $reason)
    {
    }
}
