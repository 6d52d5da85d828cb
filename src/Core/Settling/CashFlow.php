<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use TallBarrel\Core\Money\Money;

/** Something that will have to be paid. */
final readonly class CashFlow
{
    /**
     * @param Money  $amount in the home currency; below zero for what comes back
     * @param string $of     number of the invoice, receipt or order
     */
    public function __construct(
        public \DateTimeImmutable $day,
        public Money $amount,
        public CashKind $kind,
        public string $of,
        public string $supplier,
    ) {
    }
}
