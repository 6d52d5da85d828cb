<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;

/** A line of an invoice as it was typed. */
final readonly class AskedLine
{
    /**
     * @param string         $place     where it was typed, for what is wrong with it
     * @param OrderLine|null $orderLine null for a charge and a deposit
     * @param BigDecimal     $packs     0 for a line that is not on the invoice
     * @param BigDecimal     $price     of one pack, before tax; of a deposit that is taken off below zero
     * @param PurchaseOrder|null $deposit whose deposit it is
     */
    public function __construct(
        public string $place,
        public ?OrderLine $orderLine,
        public string $words,
        public BigDecimal $packs,
        public BigDecimal $price,
        public BigDecimal $taxPercent,
        public ?PurchaseOrder $deposit = null,
    ) {
    }

    /** The order it is about; null for a charge. */
    public function order(): ?PurchaseOrder
    {
        return $this->orderLine->order ?? $this->deposit;
    }
}
