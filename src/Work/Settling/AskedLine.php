<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Order\OrderLine;

/** A line of an invoice as it was typed. */
final readonly class AskedLine
{
    /**
     * @param string         $place     where it was typed, for what is wrong with it
     * @param OrderLine|null $orderLine null for a charge
     * @param BigDecimal     $packs     0 for a line that is not on the invoice
     * @param BigDecimal     $price     of one pack, before tax
     */
    public function __construct(
        public string $place,
        public ?OrderLine $orderLine,
        public string $words,
        public BigDecimal $packs,
        public BigDecimal $price,
        public BigDecimal $taxPercent,
    ) {
    }
}
