<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use TallBarrel\Core\Money\Money;

/** A paid invoice as a line of a list. */
final readonly class PaidRow
{
    public function __construct(
        public int $id,
        public string $number,
        public string $supplier,
        public \DateTimeImmutable $on,
        public Money $paid,
    ) {
    }
}
