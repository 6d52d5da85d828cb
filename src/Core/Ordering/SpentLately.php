<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/** What somebody has let through by their own limit, before tax, in the home currency. */
final readonly class SpentLately
{
    /** Orders to one supplier within so many days count together. */
    public const DAYS = 7;

    public function __construct(public BigDecimal $toSupplier, public BigDecimal $inMonth)
    {
    }

    public static function nothing(): self
    {
        return new self(BigDecimal::zero(), BigDecimal::zero());
    }
}
