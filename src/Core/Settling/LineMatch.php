<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

use Brick\Math\BigDecimal;

/**
 * One line of an invoice beside what was ordered and what came: the three-way match. What was received pays; a price
 * above the agreed one passes within the tolerance, and a lower one always (common practice, no source).
 */
final readonly class LineMatch
{
    /**
     * Quantities in packs, prices of one pack in the invoice's currency, before tax.
     *
     * @param BigDecimal $received by now and on no other invoice
     */
    public function __construct(
        public BigDecimal $ordered,
        public BigDecimal $received,
        public BigDecimal $invoiced,
        public BigDecimal $agreed,
        public BigDecimal $asked,
        public Tolerance $tolerance,
        public ?QuantityVerdict $onQuantity = null,
        public ?PriceVerdict $onPrice = null,
    ) {
    }

    /** Invoiced and not there; 0 where all has come. */
    public function notReceived(): BigDecimal
    {
        return BigDecimal::max($this->invoiced->minus($this->received), BigDecimal::zero());
    }

    /** What one pack is asked above the agreed price, beyond what the tolerance allows; 0 within it. */
    public function overcharged(): BigDecimal
    {
        return $this->tolerance->allows($this->agreed, $this->asked, $this->invoiced)
            ? BigDecimal::zero()
            : $this->asked->minus($this->agreed);
    }

    public function differs(): bool
    {
        return $this->notReceived()->isPositive() || $this->overcharged()->isPositive();
    }

    /** Whether nobody has to say anything any more. */
    public function isDecided(): bool
    {
        return (null !== $this->onQuantity || !$this->notReceived()->isPositive())
            && (null !== $this->onPrice || !$this->overcharged()->isPositive());
    }

    public function owedPacks(): BigDecimal
    {
        return QuantityVerdict::Awaited === $this->onQuantity
            ? $this->invoiced
            : BigDecimal::min($this->invoiced, $this->received);
    }

    public function owedPrice(): BigDecimal
    {
        return PriceVerdict::Accepted === $this->onPrice || !$this->overcharged()->isPositive()
            ? $this->asked
            : $this->agreed;
    }

    /** Of the goods that did not come, at the price asked, not rounded. */
    public function valueNotReceived(): BigDecimal
    {
        return $this->notReceived()->multipliedBy($this->asked);
    }

    /** Of the price above the agreed one, on what is owed, not rounded. */
    public function valueOvercharged(): BigDecimal
    {
        return $this->overcharged()->multipliedBy($this->owedPacks());
    }
}
