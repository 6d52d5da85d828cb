<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use Brick\Math\BigDecimal;

/** What was counted of one order line, in packs. */
final readonly class Count
{
    /** More than this above the order is not taken in without asking (common practice, no source). */
    public const TOLERANCE_PERCENT = 10;

    private function __construct(
        public BigDecimal $outstanding,
        public ?BigDecimal $counted,
        public CountFinding $finding,
    ) {
    }

    /**
     * @param BigDecimal      $outstanding packs still on order, 0 or more
     * @param BigDecimal|null $counted     packs counted; null while nobody has counted
     */
    public static function of(BigDecimal $outstanding, ?BigDecimal $counted): self
    {
        $finding = match (true) {
            null === $counted => CountFinding::NotCounted,
            $counted->isEqualTo($outstanding) => CountFinding::AsOrdered,
            $counted->isLessThan($outstanding) => CountFinding::Short,
            $counted->isGreaterThan(self::most($outstanding)) => CountFinding::TooMuch,
            default => CountFinding::Over,
        };

        return new self($outstanding, $counted, $finding);
    }

    /** Packs by which the count differs from what is on order, without a sign. */
    public function difference(): BigDecimal
    {
        return ($this->counted ?? BigDecimal::zero())->minus($this->outstanding)->abs()->strippedOfTrailingZeros();
    }

    public function words(): string
    {
        return match ($this->finding) {
            CountFinding::NotCounted => 'not counted',
            CountFinding::AsOrdered => 'as ordered',
            CountFinding::Short => $this->difference().' short',
            CountFinding::Over => $this->difference().' over',
            CountFinding::TooMuch => $this->difference().' too many',
        };
    }

    /** The most packs that are taken in. One pack over is always within tolerance. */
    public static function most(BigDecimal $outstanding): BigDecimal
    {
        return BigDecimal::max(
            $outstanding->multipliedBy(100 + self::TOLERANCE_PERCENT)->withPointMovedLeft(2),
            $outstanding->plus(1),
        );
    }
}
