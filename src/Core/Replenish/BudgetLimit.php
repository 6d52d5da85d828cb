<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What is left of a month's budget, or of a category's in it; money in the home currency. */
final readonly class BudgetLimit
{
    /**
     * @param float             $left   below zero where more is spoken for than there is
     * @param array<int, float> $values what of each line falls under it, by key; not above the line's value
     */
    public function __construct(public float $left, public array $values)
    {
    }
}
