<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

use Brick\Math\BigDecimal;

/** Something added to, or taken off, an invoice as a whole: EN 16931-1 BG-20 and BG-21. */
final readonly class PaperCharge
{
    /**
     * @param BigDecimal|null $amount   BT-92 or BT-99
     * @param string          $reason   BT-97 or BT-104, or its code BT-98 or BT-105
     * @param string          $category BT-95 or BT-102
     * @param BigDecimal|null $percent  BT-96 or BT-103
     */
    public function __construct(
        public bool $isCharge,
        public ?BigDecimal $amount,
        public string $reason,
        public string $category,
        public ?BigDecimal $percent,
    ) {
    }
}
