<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Replenish\Undershoot;

/**
 * The limit of a renewal process: far below its start the overshoot of whole units has the mean E[D(D+1)] / 2E[D] − 1
 * (Karlin, "The Application of Renewal Theory to the Study of Inventory Policies", 1958; from memory), of anything
 * E[D²] / 2E[D] (Silver, Pyke & Peterson, chapter 7).
 */
final class UndershootTest extends TestCase
{
    /** @return iterable<string, array{non-empty-list<float>}> */
    public static function demands(): iterable
    {
        yield 'one or two' => [[0.2, 0.5, 0.3]];
        yield 'seldom and in few' => [[0.9, 0.05, 0.03, 0.02]];
        yield 'nine or ten' => [[0.3, 0, 0, 0, 0, 0, 0, 0, 0, 0.3, 0.4]];
    }

    /** @param non-empty-list<float> $demand */
    #[DataProvider('demands')]
    public function testFarFromTheLevelItIsWhatRenewalTheorySays(array $demand): void
    {
        $mean = $square = 0.0;
        foreach ($demand as $units => $probability) {
            $mean += $units * $probability;
            $square += $units * ($units + 1) * $probability;
        }
        $below = Undershoot::of(Counts::of($demand), 1500.0, true);
        self::assertEqualsWithDelta($square / 2 / $mean - 1, $below->mean(), 0.001);
        self::assertEqualsWithDelta(1.0, array_sum(array_column($below->places, 1)), 1e-9);
    }

    public function testOfAnythingItIsHalfTheSquareOverTheMean(): void
    {
        $below = Undershoot::of(new Normal(40.0, 8.0), 4000.0, false);
        // Less half of a step, of which the most there can be has sixty.
        self::assertEqualsWithDelta((40.0 ** 2 + 8.0 ** 2) / 80 - 80.0 / 60 / 2, $below->mean(), 0.01);
    }

    public function testWhatIsSoldOneByOneStopsAtThePoint(): void
    {
        $below = Undershoot::of(Counts::of([0.7, 0.3]), 24.0, true);
        self::assertSame([[0.0, 1.0]], $below->places);
    }

    public function testWithALotOfOneAllOfTheDemandGoesBelow(): void
    {
        // From one above the point: two taken end one below it, three two below.
        $below = Undershoot::of(Counts::of([0.5, 0.0, 0.25, 0.25]), 1.0, true);
        self::assertEqualsWithDelta(1.5, $below->mean(), 1e-9);
    }

    /** What sells in twelves is 5,000 down at 416 twelves and eight: the next twelve goes four below. */
    public function testWhatSellsInTwelvesKeepsItsTwelvesHoweverLongTheWay(): void
    {
        $twelves = [0.5, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0.5];
        self::assertEqualsWithDelta(4.0, Undershoot::of(Counts::of($twelves), 5000.0, true)->mean(), 1e-9);
        self::assertEqualsWithDelta(0.0, Undershoot::of(Counts::of($twelves), 4992.0, true)->mean(), 1e-9);
    }

    public function testInLotsEveryPositionAboveThePointIsAsLikely(): void
    {
        // From one or two above: three taken go two or one below, two one or none.
        $below = Undershoot::of(Counts::of([0.0, 0.0, 0.5, 0.5]), 2.0, false);
        self::assertEqualsWithDelta((2 + 1 + 1 + 0) / 4, $below->mean(), 1e-9);
    }
}
