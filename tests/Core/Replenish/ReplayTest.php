<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Replay;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Simulation;

/** A policy played through what was wanted, and through futures drawn from it. */
final class ReplayTest extends TestCase
{
    private static function policy(float $level = 0.95): Policy
    {
        return Policy::of(PolicyKind::OrderUpTo, ServiceTarget::of(ServiceTarget::CYCLE, $level));
    }

    /** @param list<?float> $weeks */
    private static function past(array $weeks, ?Policy $policy = null, ?LeadTime $lead = null): ?Simulation
    {
        return Replay::past(
            $weeks,
            $policy ?? self::policy(),
            $lead ?? LeadTime::of(7),
            7,
            new Economics(1.0, 4.0, 0.2),
        );
    }

    /**
     * @param list<?float> $weeks
     *
     * @return list<Simulation>
     */
    private static function futures(array $weeks, int $many = 3, int $length = 26, int $seed = 1): array
    {
        return Replay::futures(
            $weeks,
            $many,
            $length,
            self::policy(),
            LeadTime::of(7),
            7,
            new Economics(1.0, 4.0, 0.2),
            $seed,
        );
    }

    /** @return list<float> between 20 and 120 a week, without a pattern */
    private static function uneven(int $weeks): array
    {
        return array_map(static fn (int $t): float => 20.0 + ($t * 37 % 101), range(0, $weeks - 1));
    }

    public function testAQuarterIsLearnedFromAndAsMuchHasToBeLeft(): void
    {
        self::assertNull(self::past(array_fill(0, 25, 70.0)));
        self::assertNull(self::past([...array_fill(0, 25, 70.0), null, null]), 'what is unknown is no past');
        self::assertNull(self::past(array_fill(0, 60, 0.0)));
        self::assertSame([], self::futures(array_fill(0, 25, 70.0)));
        self::assertSame([], self::futures(array_fill(0, 60, 0.0)));
        $played = self::past(array_fill(0, 26, 70.0));
        self::assertNotNull($played);
        self::assertSame(13 * 7, $played->periods, 'what came after the quarter, by days');
        self::assertEqualsWithDelta(13 * 70.0, $played->demand, 1e-9);
        self::assertCount(3, self::futures(array_fill(0, 26, 70.0)));
    }

    /** Nothing varies: all is served, and every future is the same. */
    public function testEvenDemandIsServed(): void
    {
        $played = self::past(array_fill(0, 65, 70.0));
        self::assertNotNull($played);
        self::assertSame([1.0, 1.0, 0], [$played->fillRate, $played->cycleService, $played->stockOuts]);
        $futures = self::futures(array_fill(0, 65, 70.0));
        self::assertEquals($futures[0], $futures[1]);
        self::assertSame(26 * 7, $futures[0]->periods);
        self::assertEqualsWithDelta(26 * 70.0, $futures[0]->demand, 1e-9);
    }

    public function testAHigherServiceHoldsMoreAndServesMore(): void
    {
        $low = self::past(self::uneven(104), self::policy(0.6));
        $high = self::past(self::uneven(104), self::policy(0.99));
        self::assertNotNull($low);
        self::assertNotNull($high);
        self::assertGreaterThan($low->averageStock, $high->averageStock);
        self::assertGreaterThan($low->fillRate, $high->fillRate);
        self::assertLessThan($low->stockOuts, $high->stockOuts);
    }

    public function testALongerWayNeedsMore(): void
    {
        $near = self::past(self::uneven(104));
        $far = self::past(self::uneven(104), lead: LeadTime::of(28));
        self::assertNotNull($near);
        self::assertNotNull($far);
        self::assertGreaterThan($near->averageStock, $far->averageStock);
    }

    /** The same seed draws the same future, another one another; each of one run has its own. */
    public function testFuturesAreDrawnFromTheirSeed(): void
    {
        $weeks = self::uneven(60);
        $first = self::futures($weeks);
        self::assertEquals($first, self::futures($weeks));
        self::assertEquals($first[1], self::futures($weeks, 1, 26, 2)[0]);
        self::assertNotSame($first[0]->demand, $first[1]->demand);
        // Every future holds weeks of the past and no others: between 26 of the least and 26 of the most.
        foreach ($first as $future) {
            self::assertGreaterThan(26 * 20.0, $future->demand);
            self::assertLessThan(26 * 120.0, $future->demand);
        }
    }

    /** Levels follow demand: after it has doubled, as much is served as before it did. */
    public function testLevelsAreSettledAnewAsDemandMoves(): void
    {
        $steady = self::past(array_fill(0, 78, 70.0));
        $doubled = self::past([...array_fill(0, 39, 70.0), ...array_fill(0, 39, 140.0)]);
        self::assertNotNull($steady);
        self::assertNotNull($doubled);
        self::assertGreaterThan($steady->averageStock, $doubled->averageStock);
        self::assertGreaterThan(0.95, $doubled->fillRate);
        self::assertLessThan(1.0, $doubled->fillRate, 'it came as a surprise');
    }
}
