<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use TallBarrel\Core\Money\Money;

/** One invoice as a line of a list: read only, without its lines. */
final readonly class InvoiceRow
{
    /**
     * @param Money $asked     with tax
     * @param int   $undecided lines that differ and that somebody has to decide about
     */
    public function __construct(
        public int $id,
        public string $number,
        public \DateTimeImmutable $day,
        public string $supplier,
        public Money $asked,
        public int $undecided,
    ) {
    }

    /** Its first word. */
    public function shortSupplier(): string
    {
        return explode(' ', $this->supplier)[0];
    }
}
