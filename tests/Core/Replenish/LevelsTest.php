<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\CoverBasis;
use TallBarrel\Core\Replenish\DynamicLots;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Levels;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\ServiceTarget;

/**
 * Levels of each policy for 10 units a day without any doubt, 7 days from order to arrival, an order every 14: until an
 * order after the next one arrives 210 are wanted. One costs 1.00, keeping it a fifth of that a year, an order 4.00.
 */
final class LevelsTest extends TestCase
{
    private static function levels(
        Policy $policy,
        ?Forecast $forecast = null,
        ?Economics $economics = null,
        int $review = 14,
    ): Levels {
        return Levels::of(
            $policy,
            $forecast ?? new Forecast('by hand', [70.0], 0.0, null),
            LeadTime::of(7),
            $review,
            $economics ?? new Economics(1.0, 4.0, 0.2),
        );
    }

    private static function policy(
        PolicyKind $kind,
        ?float $amount = null,
        ?float $minimum = null,
        bool $beyond = false,
    ): Policy {
        return Policy::of($kind, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), $amount, $minimum, $beyond);
    }

    /** @return array{float, float, float, float|null} reorder point, level, days covered, lot */
    private static function figures(Levels $levels): array
    {
        return [
            round($levels->reorderPoint, 6), round($levels->orderUpTo, 6), round($levels->coverDays, 6), $levels->lot,
        ];
    }

    /** √(2 × 3650 × 4 / 0.2) = 382.1 last 38.21 days: up to 70 + 382.1. */
    public function testUpToAnEconomicLevel(): void
    {
        $levels = self::levels(self::policy(PolicyKind::OrderUpTo));
        $quantity = sqrt(2 * 3650 * 4 / 0.2);
        self::assertSame([210.0, round(70 + $quantity, 6), round($quantity / 10, 6), null], self::figures($levels));
        self::assertSame(CoverBasis::EconomicQuantity, $levels->basis);
        self::assertSame(210.0, $levels->untilNext);
    }

    public function testAFixedQuantityAsTypedOrTheEconomicOne(): void
    {
        self::assertSame(
            [210.0, 710.0, 38.209946, 500.0],
            self::figures(self::levels(self::policy(PolicyKind::FixedQuantity, 500.0))),
        );
        $economic = self::levels(self::policy(PolicyKind::FixedQuantity));
        self::assertEqualsWithDelta(382.0995, $economic->lot, 1e-4);
        self::assertEqualsWithDelta(592.0995, $economic->orderUpTo, 1e-4);
        $nothing = self::levels(self::policy(PolicyKind::FixedQuantity), new Forecast('by hand', [0.0], 0.0, null));
        self::assertSame(1.0, $nothing->lot, 'one at least');
    }

    public function testUntilTheNextOrder(): void
    {
        foreach ([PolicyKind::Periodic, PolicyKind::LotForLot] as $kind) {
            $levels = self::levels(self::policy($kind));
            self::assertSame([210.0, 210.0, 14.0, null], self::figures($levels), $kind->value);
            self::assertSame(CoverBasis::UntilNextOrder, $levels->basis);
        }
    }

    public function testLevelsThatAPersonSetStayAsTheyAre(): void
    {
        $minMax = self::levels(self::policy(PolicyKind::MinMax, 300.0, 120.0));
        self::assertSame([120.0, 300.0], [$minMax->reorderPoint, $minMax->orderUpTo]);
        $par = self::levels(self::policy(PolicyKind::Par, 250.0));
        self::assertSame([250.0, 250.0, 0.0], [$par->reorderPoint, $par->orderUpTo, $par->safety]);
        $hand = self::levels(self::policy(PolicyKind::ByHand));
        self::assertSame([0.0, 0.0], [$hand->reorderPoint, $hand->orderUpTo]);
    }

    public function testCoverForSoManyDays(): void
    {
        $levels = self::levels(self::policy(PolicyKind::CoverDays, 30.0));
        self::assertSame([210.0, 370.0, 30.0, null], self::figures($levels));
        self::assertSame(CoverBasis::AsAsked, $levels->basis);
        $few = self::levels(self::policy(PolicyKind::CoverDays, 5.0));
        self::assertSame(14.0, $few->coverDays, 'till the next order');
    }

    /** By hand: 600.00 at 2.00 are 300 units, which last 30 days; at most a quarter, 91 days. */
    public function testCoverForSoMuchSales(): void
    {
        $sold = new Economics(1.0, 4.0, 0.2, 2.0);
        $levels = self::levels(self::policy(PolicyKind::CoverValue, 600.0), economics: $sold);
        self::assertSame([210.0, 370.0, 30.0, null], self::figures($levels));
        self::assertSame(CoverBasis::ForSalesValue, $levels->basis);
        self::assertSame(91.0, self::levels(self::policy(PolicyKind::CoverValue, 6000.0), economics: $sold)->coverDays);
        self::assertSame(14.0, self::levels(self::policy(PolicyKind::CoverValue, 20.0), economics: $sold)->coverDays);
        $unsold = self::levels(self::policy(PolicyKind::CoverValue, 600.0));
        self::assertSame(CoverBasis::EconomicQuantity, $unsold->basis, 'what is used and not sold has no sales value');
        $idle = self::levels(
            self::policy(PolicyKind::CoverValue, 600.0),
            new Forecast('by hand', [0.0], 0.0, null),
            $sold,
        );
        self::assertSame(91.0, $idle->coverDays);
    }

    public function testWhatDoesNotSellOrCostsNothingToKeepCoversAWeekOrTillTheNextOrder(): void
    {
        $idle = new Forecast('by hand', [0.0], 0.0, null);
        self::assertSame(
            [CoverBasis::NothingSells, 14.0],
            [self::levels(self::policy(PolicyKind::OrderUpTo), $idle)->basis,
                self::levels(self::policy(PolicyKind::OrderUpTo), $idle)->coverDays],
        );
        self::assertSame(7.0, self::levels(self::policy(PolicyKind::OrderUpTo), $idle, review: 3)->coverDays);
        $free = self::levels(self::policy(PolicyKind::OrderUpTo), economics: new Economics(0.0, 4.0, 0.2));
        self::assertSame(CoverBasis::NothingSells, $free->basis);
    }

    /** No longer than a quarter, nor than it keeps. */
    public function testItIsNotCoveredForLongerThanAQuarterOrThanItKeeps(): void
    {
        $dear = new Economics(1.0, 400.0, 0.2);
        self::assertSame(91.0, self::levels(self::policy(PolicyKind::OrderUpTo), economics: $dear)->coverDays);
        $short = new Economics(1.0, 400.0, 0.2, shelfDays: 40);
        self::assertSame(40.0, self::levels(self::policy(PolicyKind::OrderUpTo), economics: $short)->coverDays);
        $shorter = new Economics(1.0, 400.0, 0.2, shelfDays: 10);
        self::assertSame(14.0, self::levels(self::policy(PolicyKind::OrderUpTo), economics: $shorter)->coverDays);
    }

    /** As Wagner and Whitin's method says of the weeks after it came, and beside it what Silver and Meal's would. */
    public function testOverASeasonTheCheapestLots(): void
    {
        $weeks = [10.0, 10.0, 10.0, 80.0, 80.0, 15.0, 10.0, 60.0, 10.0];
        $forecast = new Forecast('by hand', $weeks, 0.0, null);
        $economics = new Economics(10.0, 30.0, 0.5);
        $levels = self::levels(self::policy(PolicyKind::OrderUpTo), $forecast, $economics, 7);
        $after = array_map($forecast->week(...), range(1, 26));
        $exact = DynamicLots::wagnerWhitin($after, 30.0, 5.0 / 52)->firstCovers();
        $quick = DynamicLots::silverMeal($after, 30.0, 5.0 / 52)->firstCovers();
        self::assertSame(CoverBasis::CheapestOverSeason, $levels->basis);
        self::assertSame((float) max(7, 7 * $exact), $levels->coverDays);
        self::assertSame($quick === $exact ? null : 7 * $quick, $levels->otherCover);
        self::assertGreaterThan(7.0, $levels->coverDays);
    }

    /** 600 at 0.90 last 60 days; a level is not left for it unless that is allowed. */
    public function testALowerPriceTakesItBeyondOnlyWhereItMay(): void
    {
        $economics = new Economics(1.0, 4.0, 0.2, breaks: [[1.0, 1.0], [600.0, 0.9]]);
        self::assertEqualsWithDelta(
            38.21,
            self::levels(self::policy(PolicyKind::OrderUpTo), economics: $economics)->coverDays,
            0.01,
        );
        self::assertEqualsWithDelta(
            60.0,
            self::levels(self::policy(PolicyKind::OrderUpTo, beyond: true), economics: $economics)->coverDays,
            1e-9,
        );
        $fixed = self::levels(self::policy(PolicyKind::FixedQuantity), economics: $economics);
        self::assertEqualsWithDelta(600.0, $fixed->lot, 1e-6, 'a lot has no maximum');
    }
}
