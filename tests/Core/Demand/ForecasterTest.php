<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\WeeklyHistory;

/** What is done around the contest of methods: bounds, few sales, and histories that somebody chose. */
final class ForecasterTest extends TestCase
{
    /** @param list<int|float|null> $weeks null where it was out of stock all week */
    private static function history(array $weeks): WeeklyHistory
    {
        return WeeklyHistory::of(
            array_map(floatval(...), $weeks),
            array_map(static fn (int|float|null $sold): int => null === $sold ? 7 : 0, $weeks),
        );
    }

    /** @param list<int|float|null> $weeks */
    private static function forecast(array $weeks, int $horizon = 4): Forecast
    {
        return (new Forecaster())->forecast(self::history($weeks), $horizon);
    }

    /**
     * @param array<int, int|float|null> $sold by week
     *
     * @return list<int|float|null>
     */
    private static function weeks(int $many, array $sold, int $else = 0): array
    {
        return array_values(array_replace(array_fill(0, $many, $else), $sold));
    }

    public function testWhatIsTheSameEveryWeekIsOneFigure(): void
    {
        $forecast = self::forecast(array_fill(0, 60, 10));
        self::assertSame([10.0], $forecast->weeks);
        self::assertEqualsWithDelta(0.0, $forecast->sigma, 1e-9);
        self::assertSame(0.0, $forecast->bias);
    }

    /** @return iterable<string, array{int, int}> */
    public static function horizons(): iterable
    {
        yield 'the day after tomorrow' => [0, 1];
        yield 'as asked' => [6, 6];
        yield 'a quarter' => [13, 13];
        yield 'no longer than that' => [14, 13];
    }

    #[DataProvider('horizons')]
    public function testTheHorizonIsAQuarterAtMost(int $asked, int $taken): void
    {
        self::assertSame($taken, self::forecast([...array_fill(0, 30, 10), ...array_fill(0, 30, 12)], $asked)->horizon);
    }

    /** Twice in two years: as often again, one at a time; the third time is the first to be fitted. */
    public function testWhatIsWantedOnceOrTwiceIsAskedForAsOftenAgain(): void
    {
        $twice = self::forecast(self::weeks(104, [10 => 6, 60 => 2]));
        self::assertSame('sold in 2 of 94 weeks', $twice->method, 'counted from the first sale');
        self::assertSame([2 / 94], $twice->weeks);
        self::assertEqualsWithDelta(sqrt(2 / 94), $twice->sigma, 1e-12);
        $thrice = self::forecast(self::weeks(104, [10 => 6, 60 => 2, 90 => 1]));
        self::assertStringNotContainsString('sold in', $thrice->method);
        // A quarter of a kilogram each time is not a whole one.
        self::assertSame([0.25 / 60], self::forecast(self::weeks(60, [0 => 0.25]))->weeks);
        // Of what is new nobody knows yet whether it sells seldom.
        self::assertStringNotContainsString('sold in', self::forecast([4, ...array_fill(0, 24, 0)])->method);
        self::assertStringContainsString('sold in 1 of 26', self::forecast([4, ...array_fill(0, 25, 0)])->method);
    }

    /** What sold longer than two years ago does not count as sold lately. */
    public function testOnlyTheLastTwoYearsSayHowOften(): void
    {
        $sold = self::weeks(140, [0 => 3, 20 => 3, 36 => 3, 100 => 3]);
        self::assertSame('sold in 2 of 104 weeks', self::forecast($sold)->method);
        $sold = self::weeks(140, [0 => 3, 20 => 3, 35 => 3, 100 => 3]);
        self::assertSame('sold in 1 of 104 weeks', self::forecast($sold)->method);
    }

    public function testNoWeekIsFarAboveTheBestOneOnRecord(): void
    {
        $weeks = array_map(static fn (int $t): int => (int) (2 * 1.06 ** $t), range(0, 79));
        $most = 1.5 * $weeks[79];
        $forecast = self::forecast($weeks, 13);
        self::assertGreaterThan($weeks[79], max([0.0, ...$forecast->weeks]), 'it grows');
        self::assertLessThanOrEqual($most, max([0.0, ...$forecast->weeks]));
    }

    /** Of all that were tried those are marked whose forecast it is, the best first. */
    public function testItIsToldWhoseForecastItIs(): void
    {
        $forecast = self::forecast(array_map(static fn (int $t): int => 20 + $t * 37 % 11, range(0, 59)));
        $errors = array_column($forecast->contest, 'mase');
        self::assertGreaterThan(4, count($errors));
        $used = array_filter($forecast->contest, static fn (array $one): bool => $one['used']);
        self::assertContains($forecast->method, array_column($used, 'words'));
        self::assertLessThan(count($forecast->contest), count($used));
        if (count($used) > 1) {
            self::assertContains('mean of the best', array_column($used, 'words'));
            self::assertLessThanOrEqual(4, count($used), 'three, and their mean');
        }
    }

    public function testNothingSoldIsNothingExpected(): void
    {
        self::assertSame('no sales yet', self::forecast([0, 0, 0])->method);
        self::assertSame([0.0], self::forecast([null, null])->weeks);
    }

    /** The same week a year ago and both beside it, each a third. */
    public function testLikeLastYearIsTheMeanOfThreeWeeks(): void
    {
        $weeks = range(100, 203);
        $forecast = (new Forecaster())->likeLastYear(self::history($weeks));
        self::assertCount(26, $forecast->weeks);
        self::assertEqualsWithDelta([152.0, 153.0, 177.0], [
            $forecast->weeks[0], $forecast->weeks[1], $forecast->weeks[25],
        ], 1e-9);
        $gaps = self::history(array_values(array_replace($weeks, [51 => null, 53 => null])));
        self::assertEqualsWithDelta(
            152.0,
            (new Forecaster())->likeLastYear($gaps)->weeks[0],
            1e-9,
            'of what is known',
        );
        // Every week is 52 more than a year before: that is the doubt, by n − 1.
        self::assertEqualsWithDelta(sqrt(52 * 52 ** 2 / 51), $forecast->sigma, 1e-9);
    }

    /** Ten weeks can be compared with a year before from the 62nd on; with fewer than eight the spread is taken. */
    public function testFromEightErrorsOnTheyAreTheDoubtOfLastYear(): void
    {
        $weeks = [...array_fill(0, 52, 10), ...array_fill(0, 8, 13)];
        $eight = (new Forecaster())->likeLastYear(self::history($weeks));
        self::assertEqualsWithDelta(sqrt(8 * 9 / 7), $eight->sigma, 1e-9);
        $seven = (new Forecaster())->likeLastYear(self::history(array_slice($weeks, 0, 59)));
        self::assertEqualsWithDelta(sqrt((52 * 10 + 7 * 13) / 59), $seven->sigma, 1e-9, 'at least as by chance');
    }

    public function testAHistorySomebodyChoseIsItsMean(): void
    {
        $forecast = (new Forecaster())->restingOn(self::history([4, null, 6, 8]), 'of spring');
        self::assertSame(['of spring', [6.0]], [$forecast->method, $forecast->weeks]);
        self::assertEqualsWithDelta(sqrt(6), $forecast->sigma, 1e-12, 'wider than their spread of two');
        $wild = (new Forecaster())->restingOn(self::history([0, 20, 10]), 'of spring');
        self::assertEqualsWithDelta(10.0, $wild->sigma, 1e-12);
    }
}
