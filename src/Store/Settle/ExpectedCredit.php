<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

/** A credit note that a supplier owes us. */
final readonly class ExpectedCredit
{
    /**
     * @param string $key    "line-12" for a disputed line of an invoice, "back-3" for goods sent back
     * @param string $words  what it is for
     * @param string $amount before tax, in the supplier's currency
     * @param bool   $isPaid whether it was paid, so that it is to come back
     */
    public function __construct(
        public string $key,
        public int $id,
        public string $supplierCode,
        public string $supplier,
        public string $currency,
        public string $words,
        public string $amount,
        public string $taxPercent,
        public \DateTimeImmutable $since,
        public bool $isPaid,
    ) {
    }
}
