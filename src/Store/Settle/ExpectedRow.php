<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;

/** A charge that is on goods and not billed yet, as a line of a list. */
final readonly class ExpectedRow
{
    /** @param string $receipts numbers of those whose goods it is on */
    public function __construct(
        public string $number,
        public ChargeKind $kind,
        public Money $money,
        public string $receipts,
        public \DateTimeImmutable $cameOn,
    ) {
    }
}
