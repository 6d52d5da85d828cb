<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\Money;

/**
 * Net, tax and total of an invoice: each line is rounded to the currency's smallest coin, tax is reckoned once for each
 * rate on the sum of its lines and rounded.
 *
 * Source: EN 16931-1:2017, calculation rules BR-CO-10 (sum of lines), BR-CO-14 and BR-CO-17 (tax by rate), BR-CO-15
 * (total with tax).
 */
final readonly class InvoiceSums
{
    /** @param array<string, array{Money, Money}> $byRate taxable and tax, by percent such as "21.00" */
    private function __construct(public Money $net, public Money $tax, public Money $total, public array $byRate)
    {
    }

    /** @param list<array{Money, string}> $lines net amount, and tax in percent such as "21.00" */
    public static function of(Currency|string $currency, array $lines): self
    {
        $net = $tax = Money::zero($currency);
        $taxable = $byRate = [];
        foreach ($lines as [$amount, $percent]) {
            $amount = $amount->rounded();
            $net = $net->plus($amount);
            $taxable[$percent] = isset($taxable[$percent]) ? $taxable[$percent]->plus($amount) : $amount;
        }
        foreach ($taxable as $percent => $sum) {
            $part = $sum->percent((string) $percent)->rounded();
            $byRate[(string) $percent] = [$sum, $part];
            $tax = $tax->plus($part);
        }

        return new self($net, $tax, $net->plus($tax), $byRate);
    }
}
