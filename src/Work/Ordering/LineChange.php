<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;

/** What was typed beside a line of a draft. */
final readonly class LineChange
{
    /**
     * @param BigDecimal|null $price        of one pack before the discount; null for as it was
     * @param string          $supplierCode empty for as it was
     * @param bool            $offerFollows whether the standing offer takes this price
     * @param bool            $costFollows  whether the standard cost does
     * @param \DateTimeImmutable|null $wantedOn a day of its own; null for the order's
     * @param PriceDiscount|null $discount null for as it was
     * @param Tax|null           $tax      of its own; null for the order's
     * @param array{string, string}|null $notes to the supplier and to us; null for as they were
     * @param LineAims|null      $aims     null for as they were
     * @param LaterDelivery|null $later    null for all of it at once
     */
    public function __construct(
        public BigDecimal $packs,
        public ?BigDecimal $price,
        public string $supplierCode = '',
        public bool $offerFollows = false,
        public bool $costFollows = false,
        public ?\DateTimeImmutable $wantedOn = null,
        public ?PriceDiscount $discount = null,
        public ?Tax $tax = null,
        public ?array $notes = null,
        public ?LineAims $aims = null,
        public ?LaterDelivery $later = null,
    ) {
    }
}
