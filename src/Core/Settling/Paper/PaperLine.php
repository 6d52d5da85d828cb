<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling\Paper;

use Brick\Math\BigDecimal;

/** A line of an invoice as a file has it: EN 16931-1 BG-25. Null where the file says nothing. */
final readonly class PaperLine
{
    /**
     * @param string          $id        BT-126
     * @param BigDecimal|null $quantity  BT-129, in units of whatever is sold: packs
     * @param BigDecimal|null $net       BT-131, after the line's allowances and charges
     * @param BigDecimal|null $price     BT-146, of as many as the next
     * @param BigDecimal      $per       BT-149
     * @param BigDecimal      $less      BT-136, the line's allowances together
     * @param BigDecimal      $more      BT-141, the line's charges together
     * @param string          $category  BT-151, a code of UNTDID 5305
     * @param BigDecimal|null $percent   BT-152
     * @param string          $orderLine BT-132, the number of the line on our order
     * @param string          $order     the order, where the line names another than the document
     */
    public function __construct(
        public string $id,
        public string $name,
        public ?BigDecimal $quantity,
        public string $unit,
        public ?BigDecimal $net,
        public ?BigDecimal $price,
        public BigDecimal $per,
        public BigDecimal $less,
        public BigDecimal $more,
        public string $category,
        public ?BigDecimal $percent,
        public string $sellersCode = '',
        public string $buyersCode = '',
        public string $gtin = '',
        public string $orderLine = '',
        public string $order = '',
    ) {
    }
}
