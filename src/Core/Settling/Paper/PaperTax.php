<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

use Brick\Math\BigDecimal;

/** All that is taxed alike on an invoice: EN 16931-1 BG-23. */
final readonly class PaperTax
{
    /**
     * @param BigDecimal|null $taxable  BT-116
     * @param BigDecimal|null $amount   BT-117
     * @param string          $category BT-118
     * @param BigDecimal|null $percent  BT-119
     */
    public function __construct(
        public ?BigDecimal $taxable,
        public ?BigDecimal $amount,
        public string $category,
        public ?BigDecimal $percent,
        public string $whyNone = '',
    ) {
    }
}
