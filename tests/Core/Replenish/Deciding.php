<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\Decision;
use TallBarrel\Core\Replenish\DemandRecord;
use TallBarrel\Core\Replenish\Finding;
use TallBarrel\Core\Replenish\ItemFacts;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Core\Replenish\ItemWorth;
use TallBarrel\Core\Replenish\KnownForecast;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\Replenishment;
use TallBarrel\Core\Replenish\Steering;
use TallBarrel\Core\Replenish\StockNow;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Replenish\Ways;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** Jars at their sites, what is offered of them, and what is decided. */
trait Deciding
{
    private static function now(): \DateTimeImmutable
    {
        return new \DateTimeImmutable('2026-11-23 10:30');
    }

    /** @param list<PlannedDemand> $planned */
    private static function place(
        int $site,
        int $onHand,
        ?Steering $steering = null,
        ?DemandRecord $record = null,
        int $promised = 0,
        ?Coming $coming = null,
        array $planned = [],
        bool $staple = false,
    ): ItemSite {
        return new ItemSite(
            new ItemFacts(7, 'JAR', 'Jars', Unit::Each, new ItemWorth(2.0, 5.0, 0.5, null), $staple),
            $site,
            $record ?? new DemandRecord(WeeklyHistory::of(array_fill(0, 60, 10.0), array_fill(0, 60, 0))),
            new StockNow(
                BigDecimal::of($onHand),
                $coming ?? Coming::nothing(self::now()->setTime(0, 0)),
                BigDecimal::of($promised),
                $planned,
            ),
            $steering ?? new Steering(),
        );
    }

    private static function offer(int $id, int $supplier, string $price, int $rank = 1, int $leadDays = 7): OfferTerms
    {
        return new OfferTerms(
            $id,
            $supplier,
            BuyingRule::of(Pack::of('case', 12), 1, 1),
            PriceBreaks::read($price),
            ExchangeRate::of('EUR', 'EUR', 1),
            $rank,
            $leadDays,
        );
    }

    /**
     * @param array<int, BigDecimal>  $lastPrices by offer
     * @param array<int, true>|null   $listed
     */
    private static function background(
        ?PlanningOptions $options = null,
        array $lastPrices = [],
        ?array $listed = null,
        ?float $coverDays = null,
        ?Newcomers $alike = null,
        ?Ways $ways = null,
    ): Background {
        $days = OrderDays::of([], '14:00', [], []);

        return new Background(
            self::now(),
            $options ?? PlanningOptions::usual(),
            [1 => new SupplierTerms('Vetrasol', $days, []), 2 => new SupplierTerms('Ostrel', $days, [])],
            [7 => ValueClass::A],
            [],
            [],
            $lastPrices,
            $listed,
            null,
            $coverDays,
            4.0,
            0.2,
            $alike ?? new Newcomers(),
            $ways ?? new Ways(),
        );
    }

    /**
     * @param non-empty-list<ItemSite>     $places
     * @param list<OfferTerms>|null        $offers
     * @param array<string, KnownForecast> $known
     *
     * @return list<Finding>
     */
    private static function decide(
        array $places,
        ?array $offers = null,
        ?Background $background = null,
        array $known = [],
    ): array {
        return (new Decision(new Forecaster(), new Replenishment()))->about(
            $places,
            $offers ?? [self::offer(1, 1, '24.00')],
            $background ?? self::background(),
            $known,
        );
    }
}
