<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;

/** What stands at a place of an item: one balance. */
final readonly class HeldLots
{
    public function __construct(
        public int $site,
        public StockState $state,
        public string $lot,
        public BigDecimal $quantity,
    ) {
    }
}
