<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;

/** What is there, what comes and what is spoken for at a place, in stock units. */
final readonly class StockNow
{
    /**
     * @param BigDecimal          $onHand   available, or today: at the dock
     * @param BigDecimal          $promised to customers and not yet handed over
     * @param list<PlannedDemand> $planned  from today on
     */
    public function __construct(
        public BigDecimal $onHand,
        public Coming $coming,
        public BigDecimal $promised,
        public array $planned = [],
    ) {
    }
}
