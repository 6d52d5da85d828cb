<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use Brick\Math\BigDecimal;

/** One payment of what an order comes to. */
final readonly class Payment
{
    /**
     * @param BigDecimal $percent of the total that it pays for
     * @param bool       $early   less the discount for paying early
     */
    public function __construct(
        public \DateTimeImmutable $day,
        public Money $amount,
        public BigDecimal $percent,
        public bool $early = false,
    ) {
    }
}
