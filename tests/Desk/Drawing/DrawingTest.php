<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Desk\Drawing;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Bars;
use TallBarrel\Desk\Drawing\DemandChart;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Desk\Drawing\StockChart;

/** The drawings are numbers before they are pictures. */
final class DrawingTest extends TestCase
{
    public function testABarrelIsFilledAgainstItsRim(): void
    {
        $half = Barrel::of(50, 25, 10, 40, 100);
        self::assertSame(22.0, $half->heldTop, 'half of 40 px from the foot at 42');
        self::assertSame(12.0, $half->comingTop);
        self::assertSame(38.0, $half->safetyHoop);
        self::assertSame(26.0, $half->reorderHoop);
        self::assertFalse($half->short);
        self::assertStringContainsString('50 held, 25 coming, reorder at 40, fill to 100', $half->words);
    }

    public function testABarrelTurnsUnderSafetyStockAndNeverLeavesItsOutline(): void
    {
        self::assertTrue(Barrel::of(9, 0, 10, 40, 100)->short);
        self::assertFalse(Barrel::of(10, 0, 10, 40, 100)->short);
        $over = Barrel::of(300, 200, 10, 40, 100);
        self::assertSame(2.0, $over->comingTop, 'what is more than the rim makes the rim');
        self::assertSame(18.0, $over->heldTop);
        self::assertSame(42.0, Barrel::of(-5, 0, 10, 40, 100)->heldTop);
        $nothing = Barrel::of(0, 0, 0, 0, 0);
        self::assertSame(
            [42.0, null, null, false],
            [$nothing->heldTop, $nothing->safetyHoop, $nothing->reorderHoop, $nothing->short],
        );
    }

    public function testASparklineJoinsPastAndFuture(): void
    {
        $line = Sparkline::of([0.0, 5.0, 10.0], [10.0, 0.0], 80, 22);
        self::assertSame('0,20 20,10.5 40,1', $line->past);
        self::assertSame('40,1 60,1 80,20', $line->future, 'the future starts where the past ends');
        self::assertSame('', Sparkline::of([], [])->past);
        self::assertStringNotContainsString('NAN', strtoupper(Sparkline::of([0.0, 0.0], [0.0])->past));
    }

    public function testTheStockChartPutsDaysLevelsAndArrivalWhereTheyBelong(): void
    {
        $forecast = new Forecast('by hand', [70.0], 0.0, null);
        $projection = Projection::over(40, 100.0, [], $forecast, 300.0, 7);
        $chart = StockChart::of($projection, 50.0, 150.0, new \DateTimeImmutable('2026-11-23'), 7);
        self::assertCount(41, explode(' ', $chart->with));
        self::assertStringStartsWith('42,', $chart->with);
        self::assertStringStartsWith('366,', substr((string) strrchr(' '.$chart->with, ' '), 1));
        self::assertSame(['0', '200', '400'], array_slice(array_column($chart->gridlines, 1), 0, 3));
        self::assertSame(['23 Nov', '6 Dec', '20 Dec', '2 Jan'], array_column($chart->dates, 1));
        self::assertNotNull($chart->arrivalX);
        self::assertGreaterThan($chart->reorder, $chart->safety, 'lower levels are drawn lower');
        self::assertEqualsWithDelta(
            42 + (324 * 10) / 40,
            $chart->outX,
            0.1,
            'a hundred at ten a day is gone on day ten',
        );
        self::assertNull(StockChart::of($projection, 0.0, 0.0, new \DateTimeImmutable('2026-11-23'), null)->arrivalX);
    }

    public function testBarsKeepTheirProportion(): void
    {
        $bars = Bars::of([['48', 4000.0], ['49', 1000.0], ['50', 250.0]]);
        self::assertEqualsWithDelta(4.0, $bars->bars[0]['height'] / $bars->bars[1]['height'], 0.01);
        self::assertSame(['4.0k', '1.0k', '250'], array_column($bars->bars, 'figure'));
        self::assertSame([true, false, false], array_column($bars->bars, 'strong'));
        self::assertSame([], Bars::of([])->bars);
        foreach ($bars->bars as $bar) {
            self::assertEqualsWithDelta($bars->height - 18, $bar['y'] + $bar['height'], 0.1, 'all stand on one line');
        }
    }

    public function testTheDemandChartShowsWeeksAndTheSpreadOfTheForecast(): void
    {
        $chart = DemandChart::of(
            [10.0, 20.0, 0.0],
            [['ago' => 2, 'kind' => 'one-off bulk sale', 'demand' => 20.0, 'taken' => 10.0, 'kept' => false]],
            new Forecast('by hand', [20.0], 4.0, 0.2),
            new \DateTimeImmutable('2026-11-23'),
            5,
        );
        self::assertSame(['', 'one-off bulk sale', ''], array_column($chart->weeks, 'mark'));
        self::assertSame($chart->weeks[0]['y'], $chart->weeks[1]['taken'], 'taken for as much as the week before');
        self::assertCount(3, $chart->weeks);
        self::assertEqualsWithDelta(2.0, $chart->weeks[1]['height'] / $chart->weeks[0]['height'], 0.02);
        self::assertSame(0.0, $chart->weeks[2]['height']);
        self::assertCount(5, explode(' ', $chart->forecast));
        self::assertCount(10, explode(' ', $chart->band));
        self::assertSame('2 Nov', $chart->dates[0][1]);
    }
}
