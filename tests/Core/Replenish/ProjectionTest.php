<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\Projection;

/** Ten a day, worked by hand. */
final class ProjectionTest extends TestCase
{
    private static function tenADay(): Forecast
    {
        return new Forecast('by hand', [70.0], 0.0, null);
    }

    public function testWhatIsOwedStaysBelowZeroUntilSomethingComesIn(): void
    {
        // Three owed; five in on day 2, forty proposed on day 4.
        $projection = Projection::over(5, -3.0, [2 => 5.0], self::tenADay(), 40.0, 4);
        self::assertEqualsWithDelta(
            [-3.0, -3.0, 0.0, 0.0, 0.0, 0.0],
            array_column($projection->days, 'without'),
            1e-9,
            'who finds the shelf empty owes and is owed nothing; the two that are over sell at once',
        );
        self::assertEqualsWithDelta([-3.0, -3.0, 0.0, 0.0, 30.0, 20.0], array_column($projection->days, 'with'), 1e-9);
        self::assertEqualsWithDelta([0, 0, 0, 0, 40, 0], array_column($projection->days, 'proposed'), 1e-9);
        self::assertEqualsWithDelta([0, 0, 5, 0, 0, 0], array_column($projection->days, 'in'), 1e-9);
        self::assertEqualsWithDelta([0, 10, 10, 10, 10, 10], array_column($projection->days, 'out'), 1e-9);
        self::assertSame(0, $projection->outOnDay);
        self::assertEqualsWithDelta(3 + 10 + 8 + 10 + 10 + 10, $projection->missed, 1e-9, 'owed, and wanted in vain');
    }

    public function testPlannedDemandLeavesOnItsDay(): void
    {
        $projection = Projection::over(3, 100.0, [], self::tenADay(), 0.0, 0, [2 => 50.0]);
        self::assertEqualsWithDelta([100, 90, 30, 20], array_column($projection->days, 'without'), 1e-9);
        self::assertEqualsWithDelta([0, 10, 60, 10], array_column($projection->days, 'out'), 1e-9);
        self::assertNull($projection->outOnDay);
        self::assertSame(0.0, $projection->missed);
    }

    public function testTheBandReachesNoLowerThanWhatIsOwed(): void
    {
        $projection = Projection::over(7, 5.0, [], new Forecast('by hand', [7.0], 7.0, null), 0.0, 0);
        self::assertSame(0.0, $projection->days[7]->low);
        // One week of one week's spread: 1.2816 sigma, the normal's ninth tenth.
        self::assertEqualsWithDelta(1.2815515655446004 * 7, $projection->days[7]->high, 1e-6);
        $owing = Projection::over(1, -4.0, [], new Forecast('by hand', [7.0], 7.0, null), 0.0, 0);
        self::assertSame(-4.0, $owing->days[1]->low);
    }

    public function testTheFirstDayWithNothingLeftIsTheDayItIsOut(): void
    {
        self::assertSame(2, Projection::over(5, 20.0, [], self::tenADay(), 0.0, 0)->outOnDay);
        self::assertSame(3, Projection::over(5, 20.5, [], self::tenADay(), 0.0, 0)->outOnDay);
        self::assertNull(Projection::over(1, 20.0, [], self::tenADay(), 0.0, 0)->outOnDay);
        self::assertCount(1, Projection::over(-1, 20.0, [], self::tenADay(), 0.0, 0)->days);
    }
}
