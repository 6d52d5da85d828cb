<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\WeeklyHistory;

final class WeeklyHistoryTest extends TestCase
{
    public function testDaysWithoutStockAreNotDaysWithoutDemand(): void
    {
        $history = WeeklyHistory::of([14, 6, 0, 0, 7], [0, 4, 7, 5, 0]);
        // Six sold in three days stand for fourteen in seven; with less than three days nothing can be said.
        self::assertSame([14.0, 14.0, null, null, 7.0], $history->demand);
        self::assertSame([14.0, 6.0, 0.0, 0.0, 7.0], $history->sold);
    }

    public function testAStockOutDoesNotDragTheForecastDown(): void
    {
        $sold = array_fill(0, 60, 20);
        $out = array_fill(0, 60, 0);
        for ($week = 56; $week < 60; ++$week) {
            $sold[$week] = 0;
            $out[$week] = 7;
        }
        self::assertEqualsWithDelta(20.0, (new Forecaster())->forecast(WeeklyHistory::of($sold, $out))->weeks[0], 1e-9);
        $asDemand = (new Forecaster())->forecast(WeeklyHistory::of($sold, array_fill(0, 60, 0)))->weeks[0];
        self::assertLessThan(15.0, $asDemand, 'were the days taken for days without demand, the forecast would sink');
    }

    public function testNothingBeforeTheFirstSaleCounts(): void
    {
        self::assertSame([5.0, 4.0], WeeklyHistory::of([0, 0, 5, 4], [0, 0, 0, 0])->sinceFirstSale()->sold);
        self::assertSame(
            0,
            WeeklyHistory::of([0, 0], [0, 0])
                ->sinceFirstSale()
                ->weeks(),
        );
    }

    public function testListsOfDifferentLengthAreRefused(): void
    {
        $this->expectExceptionMessage('2 weeks of sales, but 1 of days without stock');
        WeeklyHistory::of([1, 2], [0]);
    }

    public function testForecastsOverPartsOfWeeks(): void
    {
        $forecast = new Forecast('by hand', [7.0, 14.0, 21.0], 4.0, null);
        self::assertEqualsWithDelta(3.0, $forecast->over(3), 1e-9);
        self::assertEqualsWithDelta(7.0 + 6.0, $forecast->over(10), 1e-9);
        self::assertEqualsWithDelta(7.0 + 14.0 + 21.0 + 21.0, $forecast->over(28), 1e-9);
        self::assertEqualsWithDelta(8.0, $forecast->sigmaOver(28), 1e-9);
        self::assertSame(0.0, $forecast->over(0));
    }

    public function testASeasonIsUsedWhereItForecastsBetterAndOnlyThere(): void
    {
        $seasonal = $flat = [];
        mt_srand(7);
        for ($week = 0; $week < 112; ++$week) {
            $seasonal[] = 60 + 55 * sin(($week / 52) * 2 * \M_PI) + ($week % 52 < 4 ? 120 : 0);
            $flat[] = 60 + mt_rand(-20, 20);
        }
        $zeros = array_fill(0, 112, 0);
        $forecast = (new Forecaster())->forecast(WeeklyHistory::of($seasonal, $zeros));
        // Week 112 of the series is week 8 of its third year, the next ones rise towards week 13.
        self::assertEqualsWithDelta($seasonal[60], $forecast->weeks[0], 12.0, $forecast->method);
        self::assertEqualsWithDelta($seasonal[75], $forecast->weeks[15], 15.0);
        self::assertEqualsWithDelta(
            60.0,
            (new Forecaster())->forecast(WeeklyHistory::of($flat, $zeros))->perDay() * 7,
            8.0,
        );
        self::assertSame('no sales yet', (new Forecaster())->forecast(WeeklyHistory::of([0, 0, 0], [0, 0, 0]))->method);
    }

    public function testTheSeasonComesBackWhereItIsExpected(): void
    {
        foreach ([2, 3] as $years) {
            $weeks = [];
            for ($week = 0; $week < 52 * $years + 8; ++$week) {
                $weeks[] = 100.0 + ($week % 52 >= 20 && $week % 52 < 26 ? 300.0 : 0.0);
            }
            $forecast = (new Forecaster())->forecast(WeeklyHistory::of($weeks, array_fill(0, count($weeks), 0)));
            // The history ends eight weeks into the year: the peak is expected from the thirteenth coming week on.
            self::assertEqualsWithDelta(100.0, $forecast->weeks[10], 15.0, $years.' years');
            self::assertEqualsWithDelta(400.0, $forecast->weeks[14], 40.0, $years.' years');
            self::assertEqualsWithDelta(100.0, $forecast->weeks[20], 15.0, $years.' years');
        }
    }

    public function testSmoothingStepsOverUnknownWeeks(): void
    {
        $known = [10.0, 12.0, 11.0, 13.0];
        $gaps = [null, 10.0, null, 12.0, 11.0, null, 13.0];
        self::assertSame(
            Smoothing::fit($known, parameters: [0.4])->state($known)['level'],
            Smoothing::fit($gaps, parameters: [0.4])->state($gaps)['level'],
        );
        $this->expectExceptionMessage('no known value');
        Smoothing::fit([null, null]);
    }
}
