<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Money\Money;

/** What a line of an order will have cost when it stands on the shelf, in the home currency. */
final readonly class LineCost
{
    /**
     * @param BigDecimal      $units   stock units, above 0
     * @param Money           $charges its share of charges and freight, less its share of allowances
     * @param BigDecimal|null $soFar   what one stock unit cost so far; null if never known
     */
    public function __construct(
        public BigDecimal $units,
        public Money $goods,
        public Money $charges,
        public Money $duty,
        public ?BigDecimal $soFar,
    ) {
    }

    public function total(): Money
    {
        return $this->goods->plus($this->charges)->plus($this->duty);
    }

    /** One stock unit, to the ten-thousandth. */
    public function each(): BigDecimal
    {
        return $this->total()->amount->dividedBy($this->units, 4, RoundingMode::HalfUp);
    }

    /** Percents above what it cost so far; null if that is not known. */
    public function dearer(): ?float
    {
        return null === $this->soFar || !$this->soFar->isPositive()
            ? null
            : 100 * ($this->each()->toFloat() / $this->soFar->toFloat() - 1);
    }
}
