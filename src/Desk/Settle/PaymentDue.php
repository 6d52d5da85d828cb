<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Settle;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\Payable;
use TallBarrel\Store\Settle\Invoice;

/** When an invoice is best paid, and with how much; of instalments, the one that is due first. */
final readonly class PaymentDue
{
    private function __construct(
        public Invoice $invoice,
        public Payable $payable,
        public \DateTimeImmutable $day,
        public Money $amount,
        public bool $early,
        public bool $late,
        /** Instalments that are left with this one; 1 for all at once. */
        public int $parts,
    ) {
    }

    /** @param float $yearlyPercent what the owner's money costs: early where the discount gains more */
    public static function of(
        Invoice $invoice,
        Payable $payable,
        \DateTimeImmutable $today,
        float $yearlyPercent,
    ): self {
        $payments = $payable->best($today, $yearlyPercent);
        $first = $payments[0];

        return new self(
            $invoice,
            $payable,
            $first->day,
            $first->early ? $first->amount : $payable->toPayOn(max($first->day, $today)),
            $first->early,
            $first->day < $today,
            count($payments),
        );
    }
}
