<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Distribution\StandardNormal;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Replenish\CoverBasis;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Levels;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\SafetyStock;
use TallBarrel\Core\Replenish\ServiceTarget;

/** What a planning run may be asked for, and what its figures rest on. */
final class PlanningRulesTest extends TestCase
{
    /** @param callable(): mixed $make */
    #[DataProvider('impossible')]
    public function testWhatMakesNoSenseIsRefusedByName(string $expected, callable $make): void
    {
        $this->expectExceptionMessage($expected);
        $make();
    }

    /** @return iterable<string, array{string, callable(): mixed}> */
    public static function impossible(): iterable
    {
        $options = PlanningOptions::of(...);
        $policy = static fn (PolicyKind $kind, ?float $amount, ?float $minimum = null): Policy => Policy::of(
            $kind,
            ServiceTarget::of('cycle', 0.95),
            $amount,
            $minimum,
        );
        yield 'start' => ['start from “soon”', static fn () => $options('soon')];
        yield 'history' => ['no history called “some”', static fn () => $options('due', history: 'some')];
        yield 'no days' => ['how many days', static fn () => $options('cover')];
        yield 'half a day' => ['1 to 730', static fn () => $options('cover', 0.5)];
        yield 'over two years' => ['1 to 730', static fn () => $options('cover', 731)];
        yield 'no value' => ['an amount above 0', static fn () => $options('value')];
        yield 'value of nothing' => ['an amount above 0', static fn () => $options('value', 0.0)];
        yield 'no list' => ['Choose an order list', static fn () => $options('list')];
        yield 'no first day' => [
            'first and last day',
            static fn () => $options('due', history: 'range', to: '2026-02-01'),
        ];
        yield 'no last day' => [
            'first and last day',
            static fn () => $options('due', history: 'range', from: '2026-02-01'),
        ];
        yield 'the wrong way round' => [
            'in this order',
            static fn () => $options('due', history: 'range', from: '2026-02-02', to: '2026-02-01'),
        ];
        yield 'no figure' => ['needs a figure', static fn () => $policy(PolicyKind::Par, null)];
        yield 'a lot of nothing' => [
            '0 is not a useful figure',
            static fn () => $policy(PolicyKind::FixedQuantity, 0.0),
        ];
        yield 'less than nothing' => ['-1 is not a useful figure', static fn () => $policy(PolicyKind::Par, -1.0)];
        yield 'no minimum' => ['A minimum of nothing', static fn () => $policy(PolicyKind::MinMax, 5.0)];
        yield 'above the maximum' => ['A minimum of 6', static fn () => $policy(PolicyKind::MinMax, 5.0, 6.0)];
        yield 'a minimum below nothing' => ['A minimum of -1', static fn () => $policy(PolicyKind::MinMax, 5.0, -1.0)];
        yield 'service' => ['not a kind of service', static fn () => ServiceTarget::of('good', 0.9)];
        yield 'too little service' => ['0.49 is out of range', static fn () => ServiceTarget::of('fill', 0.49)];
        yield 'too much service' => ['0.9991 is out of range', static fn () => ServiceTarget::of('fill', 0.9991)];
    }

    public function testWhatIsJustAllowed(): void
    {
        self::assertSame([1.0, 730.0], [
            PlanningOptions::of('cover', 1)->figure,
            PlanningOptions::of('cover', 730)->figure,
        ]);
        $day = PlanningOptions::of('due', history: 'range', from: '2026-02-01', to: '2026-02-01');
        self::assertSame(['2026-02-01', '2026-02-01'], [$day->from, $day->to]);
        $target = ServiceTarget::of('fill', 0.999);
        self::assertSame(0.0, Policy::of(PolicyKind::Par, $target, 0.0)->amount, 'nothing is kept any more');
        self::assertSame(5.0, Policy::of(PolicyKind::MinMax, $target, 5.0, 5.0)->minimum);
        self::assertSame([0.5, '99.9 % of demand served'], [ServiceTarget::of('fill', 0.5)->level, $target->words()]);
    }

    public function testOptionsKeepOnlyWhatBelongsToThem(): void
    {
        $due = PlanningOptions::of('due', 30, 4, from: '2026-01-01', to: '2026-01-31');
        self::assertSame([null, null, null, null], [$due->figure, $due->list, $due->from, $due->to]);
        self::assertSame('everything due', $due->words());
        self::assertEquals($due, PlanningOptions::usual());
        self::assertEquals($due, PlanningOptions::fromArray([]));
        $cover = PlanningOptions::of('cover', 30, history: 'lately', countStock: false, wholePacks: false);
        self::assertEquals($cover, PlanningOptions::fromArray($cover->toArray()));
        self::assertSame(
            'covering 30 days, resting on the last 4 weeks, stock on hand not counted, cases split where allowed',
            $cover->words(),
        );
        self::assertSame(
            [true, true, true, false],
            [
                $cover->asksForListed(),
                PlanningOptions::of('value', 5)->asksForListed(),
                PlanningOptions::of('list', list: 3)->asksForListed(),
                PlanningOptions::of('minimum')->asksForListed(),
            ],
        );
    }

    public function testTheMostUrgentComesFirstAndOnlyDangerIsRed(): void
    {
        $reasons = Reason::cases();
        usort($reasons, static fn (Reason $a, Reason $b): int => $a->urgency() <=> $b->urgency());
        self::assertSame([Reason::Rush, Reason::Out, Reason::BelowSafetyStock], array_slice($reasons, 0, 3));
        self::assertSame(
            [Reason::PriceRise, Reason::Asked, Reason::FillsOrder, Reason::Covered],
            array_slice($reasons, -4),
        );
        self::assertSame(
            [Reason::Rush, Reason::Out, Reason::BelowSafetyStock],
            array_values(array_filter($reasons, static fn (Reason $reason): bool => $reason->isShort())),
        );
    }

    /** Where the price falls further on, so much is ordered as reaches it, if a year then costs less. */
    public function testCoverReachesAPriceBreakThatPays(): void
    {
        $levels = static fn (
            array $breaks,
            bool $incremental = false,
            int $review = 7,
            ?int $shelf = null,
        ): Levels => Levels::of(
            Policy::of(PolicyKind::OrderUpTo, ServiceTarget::of('cycle', 0.95), beyond: true),
            new Forecast('by hand', [70.0], 14.0, null),
            LeadTime::of(7),
            $review,
            new Economics(1.0, 4.0, 0.2, null, $breaks, null, $shelf, $incremental),
        );
        // 10 a day: √(2 × 3650 × 4 / 0.2) = 382.1 pieces last 38.2 days; from 600 on they last 60.
        self::assertEqualsWithDelta(60.0, $levels([[1.0, 1.0], [600.0, 0.9]])->coverDays, 1e-9);
        self::assertSame(CoverBasis::ReachesBreak, $levels([[1.0, 1.0], [600.0, 0.9]])->basis);
        self::assertEqualsWithDelta(38.21, $levels([[1.0, 1.0], [600.0, 0.999]])->coverDays, 0.01, 'too little saved');
        self::assertSame(
            CoverBasis::EconomicQuantity,
            $levels([[1.0, 1.0], [390.0, 0.99]])->basis,
            'nearly there anyway',
        );
        self::assertSame(45.0, $levels([[1.0, 1.0], [600.0, 0.9]], shelf: 45)->coverDays, 'it keeps for no longer');
        self::assertSame(80.0, $levels([[1.0, 1.0]], review: 80)->coverDays, 'never shorter than until the next order');
        // Only what goes beyond 100 is cheaper: what the first cost more counts as a cost of ordering (4 + 10).
        self::assertEqualsWithDelta(
            sqrt((2 * 3650 * 14) / 0.18) / 10,
            $levels([[1.0, 1.0], [100.0, 0.9]], true)->coverDays,
            1e-9,
        );
    }

    /** Normal demand of 140 and 20 until the next order arrives; z(0.95) = 1.644854 (standard tables). */
    public function testSafetyStockIsTheQuantileLessTheMean(): void
    {
        $forecast = new Forecast('by hand', [70.0], 10 * sqrt(2), null);
        $safety = static fn (Forecast $forecast, string $kind, float $level, float $lot): float => SafetyStock::for(
            ServiceTarget::of($kind, $level),
            $forecast,
            LeadTime::of(7),
            7,
            $lot,
            true,
        );
        self::assertEqualsWithDelta(20 * 1.644854, $safety($forecast, 'cycle', 0.95, 0.0), 0.5);
        self::assertSame(0.0, $safety(new Forecast('none', [0.0], 0.0, null), 'cycle', 0.95, 0.0));
        self::assertSame(0.0, $safety(new Forecast('even', [70.0], 0.0, null), 'cycle', 0.95, 0.0));
        self::assertGreaterThan(
            $safety($forecast, 'fill', 0.9, 20.0),
            $safety($forecast, 'fill', 0.99, 20.0),
        );
        self::assertSame(0.0, $safety($forecast, 'fill', 0.5, 1000.0), 'a large lot alone serves half');
    }

    public function testLikeLastYearTakesTheSameWeeksWithTheirNeighbours(): void
    {
        $sold = [];
        for ($week = 0; $week < 60; ++$week) {
            $sold[] = 8 === $week ? 40.0 : 10.0;
        }
        $forecast = (new Forecaster())->likeLastYear(WeeklyHistory::of($sold, array_fill(0, 60, 0)));
        // The next week is week 8 of a year ago: a third of 10 + 40 + 10, as the week after it; then 10.
        self::assertSame([20.0, 20.0, 10.0], array_slice($forecast->weeks, 0, 3));
        self::assertSame(10.0, $forecast->weeks[20], 'and so on');
        $mean = (new Forecaster())->likeLastYear(WeeklyHistory::of([4, 8], [0, 0]));
        self::assertSame(6.0, $mean->weeks[0], 'there was no year: the mean');
        self::assertSame(0.0, (new Forecaster())->likeLastYear(WeeklyHistory::of([3], [7]))->over(7));
    }

    public function testRestingOnAChosenHistoryIsItsMeanAndNoSurerThanChance(): void
    {
        $resting = (new Forecaster())->restingOn(WeeklyHistory::of([4, 6, 8, 6], [0, 0, 0, 0]), 'chosen');
        self::assertSame([[6.0], 'chosen'], [$resting->weeks, $resting->method]);
        // Deviation √(8/3) = 1.63; chance alone (Poisson) gives √6.
        self::assertEqualsWithDelta(sqrt(6), $resting->sigmaOver(7), 1e-9);
        $wild = (new Forecaster())->restingOn(WeeklyHistory::of([0, 12], [0, 0]), 'chosen');
        self::assertEqualsWithDelta(sqrt(72), $wild->sigmaOver(7), 1e-9);
        self::assertSame(0.0, (new Forecaster())->restingOn(WeeklyHistory::of([5], [6]), 'x')->over(7));
    }

    /** P(Z < −8) = 6.22096 × 10⁻¹⁶ and P(Z < −10) = 7.61985 × 10⁻²⁴ (R's pnorm). */
    public function testTheFarTailOfTheNormalDistribution(): void
    {
        self::assertEqualsWithDelta(1.0, StandardNormal::cumulative(-8.0) / 6.22096057427178e-16, 1e-5);
        self::assertEqualsWithDelta(1.0, StandardNormal::cumulative(-10.0) / 7.61985302416053e-24, 1e-6);
        self::assertEqualsWithDelta(1.0, StandardNormal::cumulative(-7.000001) / StandardNormal::cumulative(
            -6.999999,
        ), 2e-4, 'the two ways meet');
        self::assertSame(1.0, StandardNormal::cumulative(9.0));
    }

    public function testTheShapeFollowsTheSizeAndTheSpread(): void
    {
        self::assertSame(Shape::Counts, Shape::fitting(2.0, 1.5, []));
        self::assertNotSame(Shape::Counts, Shape::fitting(200.0, 20.0, []));
    }
}
