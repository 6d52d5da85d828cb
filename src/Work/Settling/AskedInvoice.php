<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Supplier\Supplier;

/** An invoice as it was typed. */
final readonly class AskedInvoice
{
    /**
     * @param list<AskedLine> $lines
     * @param BigDecimal|null $total the sum with tax on the paper, to check the lines by
     * @param string          $key   of the form: the same one sent twice is entered once
     */
    public function __construct(
        public Supplier $supplier,
        public string $number,
        public ?\DateTimeImmutable $day,
        public array $lines,
        public ?BigDecimal $total,
        public string $key,
    ) {
    }
}
