<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;

/** What is known about one item at one site before it is planned. */
final readonly class ItemSite
{
    /**
     * @param Policy|null                                  $policy      the item's own, in place of its class's
     * @param float|null                                   $service     its own service level
     * @param array{WeeklyHistory, float, string}|null     $like        another item's history, how much of it, and its code
     * @param array<int, bool>                             $verdicts    what people said of weeks of the history, by week
     * @param list<OpenOrder>                              $onOrder
     * @param list<PlannedDemand>                          $planned
     * @param list<array{float, \DateTimeImmutable, string}> $adjustments percent, until, why
     */
    public function __construct(
        public int $item,
        public string $code,
        public int $site,
        public string $category,
        public Unit $unit,
        public ?Policy $policy,
        public ?float $service,
        public float $unitCost,
        public ?float $salesPrice,
        public float $weightKg,
        public bool $staple,
        public ?int $shelfDays,
        public WeeklyHistory $history,
        public ?array $like,
        public array $verdicts,
        public BigDecimal $onHand,
        public array $onOrder,
        public BigDecimal $promised,
        public array $planned,
        public array $adjustments,
        public ?int $draft,
        public bool $putOff,
    ) {
    }
}
