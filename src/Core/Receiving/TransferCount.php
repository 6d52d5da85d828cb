<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use Brick\Math\BigDecimal;
use TallBarrel\Core\InvalidValue;

/** What came of something that another site of ours sent, in stock units. */
final readonly class TransferCount
{
    /**
     * @param BigDecimal $sent what left
     * @param BigDecimal $came what was counted, good or not
     * @param BigDecimal $bad  of what came, not as it should be
     * @param string     $why  what is wrong with that
     * @param bool       $lost whether what did not come is lost; else it never left
     *
     * @throws InvalidValue if something is below 0, more is bad than came, or nothing says why
     */
    public function __construct(
        public BigDecimal $sent,
        public BigDecimal $came,
        public BigDecimal $bad,
        public string $why,
        public bool $lost,
    ) {
        if ($came->isNegative() || $bad->isNegative()) {
            throw InvalidValue::because(sprintf('%s; expected 0 or more.', $came->isNegative() ? $came : $bad));
        }
        if ($bad->isGreaterThan($came)) {
            throw InvalidValue::because(sprintf('%s not good of %s that came.', $bad, $came));
        }
        if ($bad->isPositive() && '' === trim($why)) {
            throw InvalidValue::because('Say what is wrong with them.');
        }
    }

    public static function asSent(BigDecimal $sent): self
    {
        return new self($sent, $sent, BigDecimal::zero(), '', false);
    }

    public function good(): BigDecimal
    {
        return $this->came->minus($this->bad);
    }

    /** What left and did not come, or never left. */
    public function missing(): BigDecimal
    {
        return BigDecimal::max($this->sent->minus($this->came), 0);
    }

    /** What came beyond what was said to have left. */
    public function beyond(): BigDecimal
    {
        return BigDecimal::max($this->came->minus($this->sent), 0);
    }

    /** By how much what stands where it came from differs from what was booked when it left. */
    public function backThere(): BigDecimal
    {
        return $this->lost ? $this->beyond()->negated() : $this->missing()->minus($this->beyond());
    }
}
