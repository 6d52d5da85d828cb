<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use TallBarrel\Core\Money\PaymentTerms;

/** A chosen proposal in outline: enough to weigh it against the others. */
final readonly class OutlineRow
{
    /**
     * @param float $home   its value, home currency
     * @param float $atRisk margin lost, expected, if it is not ordered now; home currency
     */
    public function __construct(
        public int $id,
        public string $reason,
        public float $home,
        public float $atRisk,
        public string $category,
        public \DateTimeImmutable $arrival,
        public ?PaymentTerms $terms,
    ) {
    }
}
