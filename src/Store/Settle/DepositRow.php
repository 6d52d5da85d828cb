<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use TallBarrel\Core\Money\Money;

/** A deposit that is agreed and that nobody asked for yet, as a line of a list. */
final readonly class DepositRow
{
    /** @param string $number of the order */
    public function __construct(
        public string $number,
        public string $supplierCode,
        private string $supplier,
        public \DateTimeImmutable $sentAt,
        public Money $agreed,
    ) {
    }

    /** Its first word. */
    public function shortSupplier(): string
    {
        return explode(' ', $this->supplier)[0];
    }
}
