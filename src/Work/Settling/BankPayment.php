<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Settle\SupplierAccount;

/** One amount to one account. */
final readonly class BankPayment
{
    /**
     * @param string $reference unlike any other of ours
     * @param string $words     what it is for, as the payee reads it
     */
    public function __construct(
        public SupplierAccount $to,
        public Money $amount,
        public string $reference,
        public string $words,
    ) {
    }
}
