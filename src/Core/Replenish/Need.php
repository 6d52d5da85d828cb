<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Unit;

/** Everything the decision about one item at one site rests on. */
final readonly class Need
{
    /**
     * @param Unit                $unit       stock unit
     * @param LeadTime            $leadTime   of the supplier it would be bought from
     * @param int                 $reviewDays days from this chance to order to the next
     * @param BigDecimal          $onHand     available stock units
     * @param BigDecimal          $promised   stock units promised to customers and not yet delivered
     * @param list<PlannedDemand> $planned
     * @param bool                $wholePacks whether to round to what can be bought
     */
    public function __construct(
        public Unit $unit,
        public Forecast $forecast,
        public LeadTime $leadTime,
        public int $reviewDays,
        public Policy $policy,
        public Economics $economics,
        public BigDecimal $onHand,
        public Coming $coming,
        public BigDecimal $promised,
        public BuyingRule $rule,
        public \DateTimeImmutable $today,
        public array $planned = [],
        public bool $wholePacks = true,
    ) {
    }
}
