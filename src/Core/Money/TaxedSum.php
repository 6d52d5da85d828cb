<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

/** What is taxed alike on a document, and the tax of it (EN 16931-1:2017, BG-23). */
final readonly class TaxedSum
{
    public Money $amount;

    /** Source: EN 16931-1:2017, BR-CO-17: taxable amount × rate ÷ 100, rounded to the minor unit. */
    public function __construct(public Tax $tax, public Money $taxable)
    {
        $this->amount = $taxable->percent($tax->percent)->rounded();
    }
}
