<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What the calendar makes of the next chance to order from a supplier. */
final readonly class OrderChance
{
    /**
     * @param int $holidays   days by which they lengthen the lead time
     * @param int $reviewDays until the chance after it
     */
    public function __construct(
        public \DateTimeImmutable $arrival,
        public int $holidays,
        public int $reviewDays,
    ) {
    }
}
