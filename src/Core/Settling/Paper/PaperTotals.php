<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

use Brick\Math\BigDecimal;

/** The sums that stand on an invoice: EN 16931-1 BG-22. Null where one is missing. */
final readonly class PaperTotals
{
    /**
     * @param BigDecimal|null $lines      BT-106
     * @param BigDecimal|null $less       BT-107
     * @param BigDecimal|null $more       BT-108
     * @param BigDecimal|null $withoutTax BT-109
     * @param BigDecimal|null $tax        BT-110
     * @param BigDecimal|null $withTax    BT-112
     * @param BigDecimal|null $prepaid    BT-113
     * @param BigDecimal|null $rounding   BT-114
     * @param BigDecimal|null $payable    BT-115
     */
    public function __construct(
        public ?BigDecimal $lines,
        public ?BigDecimal $less,
        public ?BigDecimal $more,
        public ?BigDecimal $withoutTax,
        public ?BigDecimal $tax,
        public ?BigDecimal $withTax,
        public ?BigDecimal $prepaid,
        public ?BigDecimal $rounding,
        public ?BigDecimal $payable,
    ) {
    }
}
