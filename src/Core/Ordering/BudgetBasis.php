<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;

/** In which month money counts as spent: when it is ordered, or when it is paid by the supplier's terms. */
enum BudgetBasis: string
{
    case Ordering = 'ordering';
    case Paying = 'paying';

    /**
     * @param PaymentTerms|null  $terms         null to be paid when it comes
     * @param \DateTimeImmutable $arrives       when the invoice is expected with the goods
     * @param float              $yearlyPercent what the owner's money costs: decides whether a discount for paying
     *      early is taken
     *
     * @return non-empty-array<string, Money> by month, as 2026-11
     */
    public function months(
        Money $goods,
        ?PaymentTerms $terms,
        \DateTimeImmutable $ordered,
        \DateTimeImmutable $arrives,
        float $yearlyPercent,
    ): array {
        if (self::Ordering === $this) {
            return [$ordered->format('Y-m') => $goods];
        }
        if (null === $terms) {
            return [$arrives->format('Y-m') => $goods];
        }
        $months = [];
        foreach ($terms->payments($goods, $ordered, $arrives, $yearlyPercent) as $payment) {
            $month = $payment->day->format('Y-m');
            $months[$month] = isset($months[$month]) ? $months[$month]->plus($payment->amount) : $payment->amount;
        }

        return $months;
    }
}
