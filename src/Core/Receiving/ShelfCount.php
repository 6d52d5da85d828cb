<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

use Brick\Math\BigDecimal;

/** What was counted of one thing on a shelf against what should stand there, in stock units. */
final readonly class ShelfCount
{
    /** Where the difference is more than this, it is counted once more (common practice, no source). */
    public const TOLERANCE_PERCENT = 5;

    public function __construct(public BigDecimal $stands, public BigDecimal $counted)
    {
    }

    public function difference(): BigDecimal
    {
        return $this->counted->minus($this->stands);
    }

    public function isRight(): bool
    {
        return $this->difference()->isZero();
    }

    /** Beyond the tolerance, and more than one unit: a slip of the count as likely as of the stock. */
    public function isDoubtful(): bool
    {
        $off = $this->difference()->abs();

        return $off->isGreaterThan(1)
            && $off->multipliedBy(100)->isGreaterThan($this->stands->abs()->multipliedBy(self::TOLERANCE_PERCENT));
    }
}
