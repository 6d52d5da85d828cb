<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Item\Item;

/** What one line of a receipt bears of a charge, and what that does. */
final readonly class LandedShare
{
    private const SCALE = 6;

    /**
     * @param BigDecimal $units  stock units that came
     * @param BigDecimal $weight what it is shared out by
     * @param Money      $share  home currency
     * @param BigDecimal $part   0 to 1, what of it is still in stock
     * @param BigDecimal $held   stock units of all sites now
     */
    public function __construct(
        public ReceiptLine $line,
        public Item $item,
        public BigDecimal $units,
        public BigDecimal $weight,
        public Money $share,
        public BigDecimal $part,
        public BigDecimal $held,
    ) {
    }

    public function toStock(): Money
    {
        return $this->held->isPositive()
            ? $this->share->multipliedBy($this->part)->rounded()
            : Money::zero($this->share->currency);
    }

    public function toSales(): Money
    {
        return $this->share->minus($this->toStock());
    }

    /** By how much each unit that is there costs more; home currency. */
    public function more(): BigDecimal
    {
        return $this->held->isPositive()
            ? $this->toStock()->amount->dividedBy($this->held, self::SCALE, RoundingMode::HalfUp)
            : BigDecimal::zero();
    }
}
