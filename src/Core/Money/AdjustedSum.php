<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

/** A charge or an allowance, and what it comes to on a document (EN 16931-1:2017, BG-20 and BG-21). */
final readonly class AdjustedSum
{
    /** @param Money $amount 0 or more */
    public function __construct(public AllowanceCharge $adjustment, public Money $amount)
    {
    }
}
