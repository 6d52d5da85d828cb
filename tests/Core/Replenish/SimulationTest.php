<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\Simulation;
use TallBarrel\Core\Replenish\StockPolicy;

/** A policy played for a few periods, each worked out on paper. */
final class SimulationTest extends TestCase
{
    /**
     * @param list<float> $demand
     */
    private static function play(
        array $demand,
        int $lead = 1,
        int $review = 1,
        bool $backorders = true,
        int $warmUp = 0,
        ?float $start = 10.0,
    ): Simulation {
        return Simulation::run(
            count($demand) - $warmUp,
            static fn (): StockPolicy => StockPolicy::upTo(4.0, 10.0),
            static fn (int $period): float => $demand[$period],
            static fn (): int => $lead,
            $review,
            8.0,
            1.0,
            5.0,
            $backorders,
            $warmUp,
            $start,
        );
    }

    /**
     * By hand, from 10, an order at 4 or below up to 10, a period on the way: 6 go, 4 are left. At 4 six are ordered;
     * 5 go, one is owed. The six come; 3 go, 2 are left. At 2 eight are ordered; 1 goes, 1 is left.
     */
    public function testWhatIsShortIsOwedAndDelivered(): void
    {
        $played = self::play([6.0, 5.0, 3.0, 1.0]);
        self::assertEqualsWithDelta(14 / 15, $played->fillRate, 1e-12);
        self::assertSame(0.0, $played->cycleService, 'the one cycle that ended was short');
        self::assertSame([7 / 4, 1 / 4], [$played->averageStock, $played->averageOwed]);
        self::assertSame([2, 7.0, 1], [$played->orders, $played->averageOrder, $played->stockOuts]);
        // Held 4, 0, 2 and 1, owed 1, two orders: 7 + 5 + 16 over four periods.
        self::assertSame(28.0 / 4, $played->costPerPeriod);
        self::assertSame([15.0, 4], [$played->demand, $played->periods]);
    }

    /** The same, and what is short is lost: the six come to nothing left, 3 go, 3 are left, then 2. */
    public function testWhatIsShortIsLost(): void
    {
        $played = self::play([6.0, 5.0, 3.0, 1.0], backorders: false);
        self::assertEqualsWithDelta(14 / 15, $played->fillRate, 1e-12);
        self::assertSame([(4 + 0 + 3 + 2) / 4, 0.0], [$played->averageStock, $played->averageOwed]);
        self::assertSame((9 + 5 + 16) / 4, $played->costPerPeriod);
    }

    /** An order serves its own period where nothing is on the way: from 4, six come at once. */
    public function testWithoutALeadTimeAnOrderIsThereAtOnce(): void
    {
        $played = self::play([6.0, 5.0], 0);
        self::assertSame([1.0, 0, 1], [$played->fillRate, $played->stockOuts, $played->orders]);
        self::assertSame([(4 + 5) / 2, 1.0], [$played->averageStock, $played->cycleService]);
    }

    /** Looked at in periods 0, 2 and 4 only: 4 are left after the first, 1 after the second, then nine are ordered. */
    public function testItIsOrderedOnlyWhereItIsLookedAt(): void
    {
        $played = self::play([6.0, 3.0, 1.0, 2.0], review: 2);
        self::assertSame([1, 9.0], [$played->orders, $played->averageOrder]);
        self::assertSame(12.0 / 4, $played->averageStock);
        self::assertSame(1.0, $played->fillRate);
    }

    /** What is played before is not counted, and leaves its stock. */
    public function testTheFirstPeriodsAreOnlyPlayed(): void
    {
        $played = self::play([6.0, 5.0, 3.0, 1.0], warmUp: 2);
        self::assertSame([1.0, 2, 4.0], [$played->fillRate, $played->periods, $played->demand]);
        self::assertSame([(2 + 1) / 2, 1], [$played->averageStock, $played->orders]);
    }

    public function testItBeginsAtTheHighestLevelUnlessSomethingElseIsSaid(): void
    {
        self::assertSame(9.0, self::play([1.0], start: null)->averageStock);
        self::assertSame(2.0, self::play([1.0], start: 3.0)->averageStock);
        $nothing = self::play([0.0], start: 0.0);
        self::assertSame([1.0, 1.0, 0.0], [$nothing->fillRate, $nothing->cycleService, $nothing->demand]);
        self::assertSame(0.0, self::play([5.0], start: 0.0)->cycleService, 'no cycle ended, and it was short');
    }

    /** @return iterable<string, array{int, int}> */
    public static function unplayable(): iterable
    {
        yield 'no period' => [0, 1];
        yield 'never looked at' => [1, 0];
    }

    #[DataProvider('unplayable')]
    public function testWhatCannotBePlayedIsRefused(int $periods, int $review): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('cannot be played; expected 1 or more.');
        Simulation::run(
            $periods,
            static fn (): StockPolicy => StockPolicy::upTo(4.0, 10.0),
            static fn (): float => 1.0,
            static fn (): int => 1,
            $review,
        );
    }
}
