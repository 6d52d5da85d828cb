<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Forecast;

/** What is expected, and with how much doubt: 7 units in the first week, 14 in the second, 21 in every one after. */
final class ForecastTest extends TestCase
{
    private static function rising(): Forecast
    {
        return new Forecast('by hand', [7.0, 14.0, 21.0], 10.0, null, 0.6);
    }

    /** @return iterable<string, array{float, float}> */
    public static function days(): iterable
    {
        yield 'none' => [0.0, 0.0];
        yield 'less than none' => [-3.0, 0.0];
        yield 'a day' => [1.0, 1.0];
        yield 'half a day' => [0.5, 0.5];
        yield 'a week' => [7.0, 7.0];
        yield 'a day into the second' => [8.0, 9.0];
        yield 'two weeks' => [14.0, 21.0];
        yield 'a day into the third' => [15.0, 24.0];
        yield 'three weeks' => [21.0, 42.0];
        yield 'ten weeks' => [70.0, 189.0];
    }

    #[DataProvider('days')]
    public function testSoMuchIsExpectedWithinSoManyDays(float $days, float $units): void
    {
        self::assertEqualsWithDelta($units, self::rising()->over($days), 1e-9);
    }

    /** By hand: a fifth more for two weeks, so 8.4 and 16.8; a factor of nothing for one makes the first 0. */
    public function testAPersonKnowsBetterForSomeWeeks(): void
    {
        $adjusted = self::rising()->adjusted(1.2, 2);
        self::assertEqualsWithDelta([8.4, 16.8, 21.0, 21.0], array_map($adjusted->week(...), range(0, 3)), 1e-9);
        self::assertEqualsWithDelta(25.2, $adjusted->over(14), 1e-9);
        self::assertEqualsWithDelta(46.2 + 9.0, $adjusted->over(24), 1e-9);
        $both = $adjusted->adjusted(0.0, 1);
        self::assertEqualsWithDelta([0.0, 16.8], array_map($both->week(...), [0, 1]), 1e-9);
        self::assertEqualsWithDelta(self::rising()->over(30), $both->unadjusted()->over(30), 1e-9);
        $late = self::rising()->adjusted(2.0, 5);
        self::assertEqualsWithDelta([42.0, 42.0, 21.0], array_map($late->week(...), [3, 4, 5]), 1e-9);
        self::assertEqualsWithDelta(14 + 28 + 3 * 42 + 21, $late->over(42), 1e-9);
    }

    /** By hand: (7 + 14 + 21 + 21) / 28 = 2.25 a day. */
    public function testADayIsTheMeanOfTheNextFourWeeks(): void
    {
        self::assertEqualsWithDelta(2.25, self::rising()->perDay(), 1e-9);
        self::assertSame(0.0, Forecast::none()->perDay());
    }

    /** @return iterable<string, array{float, float|null}> */
    public static function units(): iterable
    {
        yield 'none' => [0.0, 0.0];
        yield 'less than none' => [-1.0, 0.0];
        yield 'half a week' => [3.5, 3.5];
        yield 'just the first week' => [7.0, 7.0];
        yield 'half of the second' => [14.0, 10.5];
        yield 'all three' => [42.0, 21.0];
        yield 'five years' => [21.0 + 258 * 21.0, 1820.0];
        yield 'more than five years' => [21.0 + 258 * 21.0 + 0.1, null];
    }

    #[DataProvider('units')]
    public function testSoMuchLastsSoManyDays(float $units, ?float $days): void
    {
        $lasts = self::rising()->daysOf($units);
        if (null === $days) {
            self::assertNull($lasts);
        } else {
            self::assertEqualsWithDelta($days, $lasts, 1e-9);
        }
    }

    /** By hand: 10 over a week, 10 × 4^0.6 over four; under a week as of independent days, 10 × √(1/7) over one. */
    public function testDoubtGrowsWithTheTimeAsItWasSeenTo(): void
    {
        $forecast = self::rising();
        self::assertEqualsWithDelta(10.0, $forecast->sigmaOver(7), 1e-9);
        self::assertEqualsWithDelta(10 * 4 ** 0.6, $forecast->sigmaOver(28), 1e-9);
        self::assertEqualsWithDelta(10 / sqrt(7), $forecast->sigmaOver(1), 1e-9);
        self::assertEqualsWithDelta(10 * sqrt(6.9 / 7), $forecast->sigmaOver(6.9), 1e-9);
        self::assertSame(0.0, $forecast->sigmaOver(0));
        self::assertSame(0.0, $forecast->sigmaOver(-1));
    }

    /** Silver, Pyke & Peterson, chapter 7: √(3² + (2 × 2)²) = 5. */
    public function testATimeThatVariesAddsItsOwnDoubt(): void
    {
        self::assertSame(5.0, Forecast::deviationOver(3.0, 2.0, 2.0));
        self::assertSame(3.0, Forecast::deviationOver(3.0, 2.0, 0.0));
        $even = new Forecast('by hand', [14.0], 3.0, null);
        $over = $even->distribution(7, 2.0);
        self::assertEqualsWithDelta(14.0, $over->mean(), 1e-9);
        self::assertEqualsWithDelta(5.0, $over->deviation(), 1e-9);
    }

    /** By hand: a quarter of its own 8 and three of the usual 4 is 5; they differ by 4, three eighths of it are 1.5. */
    public function testWhatHasSoldForShortIsDrawnTowardsWhatItsLikeSell(): void
    {
        $drawn = (new Forecast('young', [8.0, 12.0], 2.0, 0.3, 0.8, horizon: 3))
            ->drawnTowards(4.0, 0.25, 'with its like');
        self::assertSame([5.0, 6.0], $drawn->weeks);
        self::assertEqualsWithDelta(sqrt(5), $drawn->sigma, 1e-9, 'no surer than chance arrivals');
        self::assertSame(['with its like', 0.3, 0.5, 3], [
            $drawn->method, $drawn->offBy, $drawn->growth, $drawn->horizon,
        ]);
        self::assertSame(Shape::Normal, $drawn->shape, 'twenty in four weeks lie far enough above nothing');
        $few = (new Forecast('young', [1.0], 0.1, null))->drawnTowards(1.0, 0.25, 'with its like');
        self::assertSame(Shape::Counts, $few->shape, 'four do not');
        $unlike = (new Forecast('young', [40.0], 2.0, null))->drawnTowards(4.0, 0.25, 'with its like');
        self::assertEqualsWithDelta(0.75 * 36 / 2, $unlike->sigma, 1e-9);
        $wild = (new Forecast('young', [40.0], 90.0, null))->drawnTowards(4.0, 0.25, 'with its like');
        self::assertEqualsWithDelta(22.5, $wild->sigma, 1e-9);
    }

    public function testWhatIsKeptIsWhatWasForecast(): void
    {
        $forecast = new Forecast('by hand', [7.12345, 14.0], 3.14159, 0.25, 0.61, Shape::Gamma, [0.123, -1.5], [],
            0.05, -2.25, 0.91, 4, [[1.2, 3]]);
        self::assertSame($forecast->toArray(), Forecast::fromArray($forecast->toArray())->toArray());
        $kept = $forecast->rounded();
        self::assertSame([7.1235, 14.0], $kept->weeks, 'to four decimals');
        self::assertSame([0.12, -1.5], $kept->errors);
        self::assertSame($kept->toArray(), $kept->rounded()->toArray());
        self::assertSame([$forecast->method, 0.25, [[1.2, 3]]], [$kept->method, $kept->offBy, $kept->adjustments]);
        self::assertSame([3.1416, 0.61, Shape::Gamma, 0.05, -2.25, 0.91, 4], [$kept->sigma, $kept->growth, $kept->shape,
            $kept->bias, $kept->tracking, $kept->mase, $kept->horizon]);
        $old = $forecast->toArray();
        unset($old['adjustments']);
        self::assertSame([], Forecast::fromArray($old)->adjustments, 'kept before there were any');
    }
}
