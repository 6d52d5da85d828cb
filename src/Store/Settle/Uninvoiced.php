<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

/** What came with one receipt and is on no invoice yet. */
final readonly class Uninvoiced
{
    /**
     * @param string             $currency of the supplier
     * @param float              $value    at the prices ordered, in that currency, before tax
     * @param array<int, string> $packs    by order line
     */
    public function __construct(
        public string $receipt,
        public \DateTimeImmutable $day,
        public string $supplierCode,
        public string $supplier,
        public string $currency,
        public float $value,
        public array $packs,
    ) {
    }
}
