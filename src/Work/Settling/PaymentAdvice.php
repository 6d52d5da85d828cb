<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Supplier\Supplier;

/** Tells a supplier what was paid, and for what; the letter is in the queue when that is saved, or not at all. */
interface PaymentAdvice
{
    /**
     * @param non-empty-list<Invoice> $invoices of that supplier, paid together
     * @param list<CreditNote>        $credits  taken off
     *
     * @return bool whether there was somebody to tell
     */
    public function tell(
        Supplier $supplier,
        array $invoices,
        array $credits,
        \DateTimeImmutable $on,
        Person $by,
    ): bool;
}
