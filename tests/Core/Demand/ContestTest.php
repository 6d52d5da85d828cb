<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\Demand\PooledSeason;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Replay;
use TallBarrel\Core\Replenish\ServiceTarget;

final class ContestTest extends TestCase
{
    public function testWhereNothingBeatsNaiveNaiveItIs(): void
    {
        // A random walk: the best forecast is the last value.
        $draws = new Draws(2);
        $step = new Normal(0, 5);
        $value = 500.0;
        $naive = 0;
        for ($walk = 0; $walk < 12; ++$walk) {
            $series = [];
            for ($i = 0; $i < 120; ++$i) {
                $series[] = $value += $draws->of($step);
            }
            $outcome = Contest::over($series, 1, 6);
            $naive += MethodName::Naive === $outcome->method || in_array('naive', $outcome->parts, true) ? 1 : 0;
            self::assertEqualsWithDelta($series[119], $outcome->means[0], 12.0);
        }
        self::assertGreaterThan(7, $naive);
        self::assertSame(
            MethodName::Naive,
            Contest::over(array_map(static fn (int $i): float => $i < 30 ? 10.0 : 50.0, range(0, 79)), 1, 4)->method,
        );
    }

    /**
     * @param list<float> $series
     *
     * @return list<MethodName> that took part, but for what is combined of them
     */
    private static function tried(array $series, int $period): array
    {
        return array_values(array_filter(
            array_map(MethodName::from(...), array_keys(Contest::over($series, $period, 2)->scores)),
            static fn (MethodName $name): bool => MethodName::Combination !== $name,
        ));
    }

    public function testWhoTakesPartFollowsFromTheSeries(): void
    {
        $steady = array_map(static fn (int $t): float => 20.0 + $t % 4 + 0.5 * ($t % 7), range(0, 39));
        $plain = self::tried($steady, 1);
        self::assertContains(MethodName::Holt, $plain);
        self::assertContains(MethodName::DampedHolt, $plain);
        self::assertContains(MethodName::Theta, $plain);
        self::assertContains(MethodName::Autoregression, $plain);
        foreach ([MethodName::SeasonalNaive, MethodName::HoltWintersAdditive, MethodName::SimpleOnSeason,
            MethodName::PooledSeason, MethodName::Croston, MethodName::Sba, MethodName::Tsb,
            MethodName::Mean] as $not) {
            self::assertNotContains($not, $plain, $not->value);
        }
        $seasonal = self::tried($steady, 4);
        foreach ([MethodName::SeasonalNaive, MethodName::HoltWintersAdditive, MethodName::HoltWintersMultiplicative,
            MethodName::HoltWintersByShares, MethodName::SimpleOnSeason, MethodName::DampedOnSeason] as $does) {
            self::assertContains($does, $seasonal, $does->value);
        }
        // Nothing can be a share of nothing.
        $once = array_replace($steady, [2 => 0.0]);
        self::assertContains(MethodName::HoltWintersAdditive, self::tried($once, 4));
        self::assertNotContains(MethodName::HoltWintersMultiplicative, self::tried($once, 4));
        self::assertNotContains(MethodName::HoltWintersByShares, self::tried($once, 4));
        // Every sixth value is nothing: trends and seasons of its own are none, size and chance are told apart.
        $gaps = array_map(static fn (int $t): float => 0 === $t % 6 ? 0.0 : 3.0 + $t % 3, range(0, 39));
        $intermittent = self::tried($gaps, 4);
        foreach ([MethodName::Croston, MethodName::Sba, MethodName::Tsb, MethodName::Simple] as $does) {
            self::assertContains($does, $intermittent, $does->value);
        }
        foreach ([MethodName::Holt, MethodName::DampedHolt, MethodName::HoltWintersAdditive, MethodName::Theta,
            MethodName::Autoregression] as $not) {
            self::assertNotContains($not, $intermittent, $not->value);
        }
        // Where it comes only now and then, its mean takes part as well, and what it was last does not.
        $seldom = self::tried(array_map(static fn (int $t): float => 0 === $t % 3 ? 4.0 : 0.0, range(0, 39)), 1);
        self::assertEqualsCanonicalizing(
            [MethodName::Mean, MethodName::Simple, MethodName::Sba, MethodName::Tsb],
            $seldom,
        );
        // Of little, the mean of all of it takes part, and no trend.
        $few = self::tried(array_slice($steady, 0, 14), 1);
        self::assertContains(MethodName::Mean, $few);
        self::assertNotContains(MethodName::Holt, $few);
        self::assertNotContains(MethodName::Autoregression, $few);
    }

    /** Level and season and nothing else: whoever takes the season off goes on exactly. */
    public function testASeasonTakenOffLeavesTheLevel(): void
    {
        $factors = [0.5, 1.2, 1.6, 0.7];
        $series = array_map(static fn (int $t): float => 200.0 * $factors[$t % 4], range(0, 23));
        foreach ([MethodName::SimpleOnSeason, MethodName::DampedOnSeason, MethodName::SeasonalNaive,
            MethodName::HoltWintersMultiplicative] as $method) {
            $outcome = Contest::over($series, 4, 4, null, $method);
            self::assertSame($method, $outcome->method);
            self::assertEqualsWithDelta([100.0, 240.0, 320.0, 140.0], $outcome->means, 1e-6, $method->value);
            self::assertEqualsWithDelta(0.0, $outcome->scores[$method->value]->deciding, 1e-6, $method->value);
        }
    }

    /** What is settled by the series: none, the smoothing of the level, of trend or chance, of season or damping. */
    public function testWhatIsFreerHasToDoBetter(): void
    {
        $free = [];
        foreach (MethodName::cases() as $name) {
            $free[$name->freedom()][] = $name;
        }
        ksort($free);
        self::assertSame([0, 1, 2, 3], array_keys($free));
        self::assertEqualsCanonicalizing(
            [MethodName::Naive, MethodName::SeasonalNaive, MethodName::Combination],
            $free[0],
        );
        self::assertEqualsCanonicalizing([
            MethodName::Mean, MethodName::MovingAverage, MethodName::Simple, MethodName::SimpleOnSeason,
            MethodName::PooledSeason,
        ], $free[1]);
        self::assertEqualsCanonicalizing([
            MethodName::DampedHolt, MethodName::DampedOnSeason, MethodName::HoltWintersAdditive,
            MethodName::HoltWintersMultiplicative, MethodName::HoltWintersByShares,
        ], $free[3]);
    }

    /** One unit now and then, with a chance of one in ten a week, over two years. */
    public function testWhatSellsNowAndThenIsNeverForecastToSellNothing(): void
    {
        $draws = new Draws(59);
        $sum = 0.0;
        for ($series = 0; $series < 59; ++$series) {
            $sold = array_map(static fn (): int => $draws->share() < 0.1 ? 1 : 0, range(1, 104));
            $sold[0] = 1;
            $forecast = (new Forecaster())->forecast(WeeklyHistory::of($sold, array_fill(0, 104, 0)), 6);
            self::assertGreaterThan(0.0, $forecast->week(0));
            self::assertStringNotContainsString('last time', $forecast->method);
            $sum += $forecast->week(0);
        }
        self::assertEqualsWithDelta(0.1, $sum / 59, 0.02, 'and in the mean what it is');
    }

    public function testABulkWeekOrTwoInTwoYearsIsNotCarriedOnForEver(): void
    {
        $sold = [500, ...array_fill(0, 102, 0), 500];
        $forecast = (new Forecaster())->forecast(WeeklyHistory::of($sold, array_fill(0, 104, 0)), 6);
        self::assertEqualsWithDelta(2 / 104, $forecast->week(0), 1e-9, 'asked for twice, one at a time');
        $kilos = (new Forecaster())->forecast(
            WeeklyHistory::of([0.25, ...array_fill(0, 60, 0)], array_fill(0, 61, 0)),
            6,
        );
        self::assertEqualsWithDelta(0.25 / 61, $kilos->week(0), 1e-9, 'or less, where less was wanted');
        $thrice = [500, ...array_fill(0, 50, 0), 500, ...array_fill(0, 50, 0), 500, 0];
        self::assertGreaterThan(
            1.0,
            (new Forecaster())->forecast(WeeklyHistory::of($thrice, array_fill(0, count($thrice), 0)), 6)->week(0),
            'three times is a custom',
        );
    }

    public function testATrendIsFollowedAndASeasonComesBack(): void
    {
        $trend = Contest::over(array_map(static fn (int $i): float => 20 + 3.0 * $i, range(0, 59)), 1, 5);
        self::assertEqualsWithDelta(20 + 3 * 64, $trend->means[4], 2.0);
        $season = Contest::over(
            array_map(static fn (int $i): float => 100 * (1 + 0.5 * sin(($i * \M_PI) / 6)), range(0, 71)),
            12,
            12,
        );
        self::assertEqualsWithDelta(150.0, max([0.0, ...$season->means]), 5.0);
        self::assertLessThan(
            0.3,
            $season->scores[MethodName::SeasonalNaive->value]->mase /
                max(1e-9, $season->scores[MethodName::Naive->value]->mase),
        );
    }

    public function testUnknownValuesAreSteppedOver(): void
    {
        $series = array_map(static fn (int $i): ?float => 0 === $i % 7 ? null : 30.0, range(0, 79));
        self::assertEqualsWithDelta(30.0, Contest::over($series, 1, 3)->means[2], 1e-6);
        $this->expectExceptionMessage('no known value');
        Contest::over([null, null], 1, 3);
    }

    public function testAShortHistoryBorrowsTheSeasonOfItsCategory(): void
    {
        // Weeks ago 0 … 51: twice the mean in the coming half year, none of it in the past one.
        $factors = array_map(static fn (int $ago): float => $ago >= 26 ? 1.6 : 0.4, range(0, 51));
        $history = WeeklyHistory::of(
            array_map(static fn (int $i): float => 20.0 * (30 - $i >= 26 ? 1.6 : 0.4) + ($i % 2), range(0, 29)),
            array_fill(0, 30, 0),
        );
        $pooled = (new Forecaster())->forecast($history, 4, new PooledSeason($factors, $factors));
        $alone = (new Forecaster())->forecast($history, 4);
        self::assertEqualsWithDelta(32.0, $pooled->week(2), 6.0, $pooled->method);
        self::assertLessThan(16.0, $alone->week(2), 'on its own it cannot know');
    }

    public function testForecastsSurviveBeingSavedAndAdjustmentsEnd(): void
    {
        $forecast = (new Forecaster())->forecast(
            WeeklyHistory::of(array_map(static fn (int $i): int => 20 + ($i % 5), range(0, 79)), array_fill(0, 80, 0)),
            5,
        );
        self::assertEqualsWithDelta($forecast->over(40), Forecast::fromArray($forecast->toArray())->over(40), 0.01);
        $more = $forecast->adjusted(1.5, 2);
        self::assertEqualsWithDelta(
            1.5 * $forecast->over(14) + $forecast->over(28) - $forecast->over(14),
            $more->over(28),
            1e-9,
        );
        self::assertEqualsWithDelta($forecast->over(28), $more->unadjusted()->over(28), 1e-12);
        self::assertNotSame([], $forecast->contest);
        self::assertEqualsWithDelta(14.0, (float) (new Forecast('x', [70.0], 1.0, null))->daysOf(140), 1e-9);
        self::assertNull((new Forecast('x', [0.0], 0.0, null))->daysOf(1));
    }

    public function testDoubtTakesTheShapeOfTheErrors(): void
    {
        $draws = new Draws(3);
        $even = array_map(static fn (): float => $draws->of(new Normal(0, 10)), range(1, 60));
        self::assertSame(Shape::Normal, Shape::fitting(100, 10, $even));
        self::assertSame(
            Shape::Errors,
            Shape::fitting(100, 10, array_map(static fn (float $e): float => exp($e / 8), $even)),
            'leaning errors speak for themselves',
        );
        self::assertSame(Shape::Counts, Shape::fitting(4, 3, $even));
        self::assertSame(Shape::Gamma, Shape::fitting(400, 300, $even));
        // Nine weeks in ten lie under the ninth decile.
        $drawn = array_map(static fn (): float => max(0.0, round($draws->of(new Normal(20, 6)))), range(1, 156));
        $forecast = (new Forecaster())->forecast(WeeklyHistory::of($drawn, array_fill(0, 156, 0)), 3);
        self::assertEqualsWithDelta(60 + 1.2816 * 6 * sqrt(3), $forecast->distribution(21)->quantile(0.9), 5.0);
    }

    public function testReplayingThePastMoreServiceCostsMoreStock(): void
    {
        $draws = new Draws(8);
        $weeks = array_map(static fn (): float => max(0.0, round($draws->of(new Normal(40, 15)))), range(1, 120));
        $play = static fn (float $level) => Replay::past(
            $weeks,
            Policy::of(PolicyKind::OrderUpTo, ServiceTarget::of(ServiceTarget::CYCLE, $level)),
            LeadTime::of(6, 1),
            7,
            new Economics(2.0, 4.0, 0.25, 3.0),
        );
        [$low, $high] = [$play(0.7), $play(0.99)];
        self::assertNotNull($low);
        self::assertNotNull($high);
        self::assertGreaterThan($low->fillRate, $high->fillRate);
        self::assertGreaterThan($low->averageStock, $high->averageStock);
        self::assertGreaterThan(0.97, $high->fillRate);
        self::assertNull(
            Replay::past([1.0, 2.0], Policy::standard(), LeadTime::of(6), 7, new Economics(1, 1, 0.2)),
            'too little past',
        );
        $futures = Replay::futures(
            $weeks,
            3,
            26,
            Policy::standard(),
            LeadTime::of(6),
            7,
            new Economics(2.0, 4.0, 0.25, 3.0),
        );
        self::assertCount(3, $futures);
        self::assertNotSame($futures[0]->demand, $futures[1]->demand);
    }
}
