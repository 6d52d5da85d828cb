<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use TallBarrel\Core\Money\Money;

/** One movement on our account that took money out of it. */
final readonly class StatementEntry
{
    /**
     * @param string $bankReference the bank's own, unlike any other of the account
     * @param string $ours          the reference that we gave it; empty where it has none
     * @param string $words         what the payment was for
     */
    public function __construct(
        public \DateTimeImmutable $day,
        public Money $amount,
        public string $bankReference,
        public string $ours,
        public string $words,
        public string $payee,
    ) {
    }
}
