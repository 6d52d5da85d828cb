<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

/**
 * The sums of an order or an invoice: each line is rounded to the currency's minor unit, tax is reckoned once for all
 * that is taxed alike, and rounded.
 *
 * Source: EN 16931-1:2017, 6.4 and its calculation rules: lines BT-106 (BR-CO-10), allowances BT-107 (BR-CO-11),
 * charges BT-108 (BR-CO-12), without tax BT-109 (BR-CO-13), tax BT-110 (BR-CO-14), with tax BT-112 (BR-CO-15).
 */
final readonly class DocumentSums
{
    /**
     * @param list<AdjustedSum> $adjustments
     * @param list<TaxedSum>    $taxes       in the order in which they first appear
     */
    private function __construct(
        public Money $goods,
        public Money $allowances,
        public Money $charges,
        public Money $net,
        public Money $tax,
        public Money $total,
        public array $adjustments,
        public array $taxes,
    ) {
    }

    /**
     * @param iterable<array{Money, Tax}> $lines       net amounts of the lines, each rounded here
     * @param list<AllowanceCharge>            $adjustments on the whole document
     */
    public static function of(Currency|string $currency, iterable $lines, array $adjustments = []): self
    {
        $goods = $allowances = $charges = $tax = $zero = Money::zero($currency);
        $taxes = $taxable = $reckoned = [];
        $taxed = static function (Tax $at, Money $amount) use (&$taxes, &$taxable): void {
            $key = $at->key();
            $taxes[$key] = $at;
            $taxable[$key] = isset($taxable[$key]) ? $taxable[$key]->plus($amount) : $amount;
        };
        foreach ($lines as [$amount, $at]) {
            $amount = $amount->rounded();
            $goods = $goods->plus($amount);
            $taxed($at, $amount);
        }
        foreach ($adjustments as $adjustment) {
            $amount = $adjustment->on($goods);
            $reckoned[] = new AdjustedSum($adjustment, $amount);
            if ($amount->isZero()) {
                continue;
            }
            if ($adjustment->isCharge) {
                $charges = $charges->plus($amount);
                $taxed($adjustment->tax, $amount);
            } else {
                $allowances = $allowances->plus($amount);
                $taxed($adjustment->tax, $zero->minus($amount));
            }
        }
        $sums = [];
        foreach ($taxes as $key => $at) {
            $sums[] = new TaxedSum($at, $taxable[$key]);
            $tax = $tax->plus(end($sums)->amount);
        }
        $net = $goods->minus($allowances)->plus($charges);

        return new self(
            $goods->rounded(),
            $allowances->rounded(),
            $charges->rounded(),
            $net->rounded(),
            $tax->rounded(),
            $net->plus($tax)->rounded(),
            $reckoned,
            $sums,
        );
    }
}
