<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\OpenOrder;

/** What is known about one item at one site before it is planned. */
final readonly class ItemSite
{
    /** @param list<OpenOrder> $onOrder */
    public function __construct(
        public int $item,
        public string $code,
        public int $site,
        public Unit $unit,
        public float $service,
        public float $unitCost,
        public WeeklyHistory $history,
        public BigDecimal $onHand,
        public array $onOrder,
        public BigDecimal $promised,
        public ?int $draft,
    ) {
    }
}
