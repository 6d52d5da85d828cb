<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Order\OrderLine;

/** What of a line on consignment is still theirs, and what of it is ours by now. */
final readonly class TakenOver
{
    /**
     * @param BigDecimal               $held    stock units of the item at all sites
     * @param BigDecimal               $used    packs
     * @param BigDecimal               $overdue packs that are ours because their day came
     * @param \DateTimeImmutable|null $until   when the oldest that is left is ours anyway
     */
    public function __construct(
        public OrderLine $line,
        public BigDecimal $held,
        public BigDecimal $used,
        public BigDecimal $overdue,
        public ?\DateTimeImmutable $until,
    ) {
    }

    public function packs(): BigDecimal
    {
        return $this->used->plus($this->overdue);
    }

    /** At the price ordered, before tax. */
    public function value(): Money
    {
        return Money::of($this->packs()->multipliedBy($this->line->price()), $this->line->order->currency)->rounded();
    }
}
