<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Settle\Invoice;

/** When an invoice is best paid, and with how much. */
final readonly class PaymentDue
{
    private function __construct(
        public Invoice $invoice,
        public \DateTimeImmutable $day,
        public Money $amount,
        public bool $early,
        public bool $late,
    ) {
    }

    /** @param float $yearlyPercent what the owner's money costs: early where the discount gains more */
    public static function of(Invoice $invoice, \DateTimeImmutable $today, float $yearlyPercent): self
    {
        $total = $invoice->owed()->total;
        $payments = $invoice->supplier->terms()?->payments($total, $invoice->day, $invoice->day, $yearlyPercent);
        $last = null === $payments ? null : $payments[count($payments) - 1];
        $early = null !== $last && $last->early && $last->day >= $today;
        $day = null !== $last && $early ? $last->day : $invoice->dueOn();

        return new self($invoice, $day, $invoice->toPayOn($day), $early, $day < $today);
    }
}
