<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Demand\Distribution\Empirical;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Mixture;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\ErrorScale;
use TallBarrel\Core\Demand\Method\Autoregression;
use TallBarrel\Core\Demand\Method\Intermittent;
use TallBarrel\Core\Demand\Method\MovingAverage;
use TallBarrel\Core\Demand\Method\Naive;
use TallBarrel\Core\Demand\Method\OnLogarithm;
use TallBarrel\Core\Demand\Method\Season;
use TallBarrel\Core\Demand\Method\SeasonalIndex;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\Method\Trend;

/** The methods of forecasting and the distributions, each worked by hand on a few numbers. */
final class MethodsTest extends TestCase
{
    /**
     * @param list<?float> $demand
     * @param list<float>  $expected
     */
    #[DataProvider('naive')]
    public function testTheLastValueAgainOrThatOfOnePeriodAgo(int $period, array $demand, array $expected): void
    {
        $origin = count($demand);
        self::assertSame($expected, (new Naive($period))->roll($demand, [$origin], count($expected))[$origin]);
    }

    /** @return iterable<string, array{int, list<?float>, list<float>}> */
    public static function naive(): iterable
    {
        yield 'the last one' => [1, [3.0, 5.0], [5.0, 5.0]];
        yield 'the last known one' => [1, [3.0, null, null], [3.0]];
        yield 'the very first, where it is the only one known' => [1, [4.0, null], [4.0]];
        yield 'nothing known' => [1, [null], [0.0]];
        yield 'one period ago, and round again' => [3, [1.0, 2.0, 3.0], [1.0, 2.0, 3.0, 1.0]];
        yield 'two periods ago, where the last is not known' => [2, [7.0, 8.0, null, 9.0], [7.0, 9.0]];
    }

    public function testAForecastKnowsNothingOfWhatComesAfterIt(): void
    {
        self::assertSame(
            [2 => [6.0, 6.0], 3 => [9.0, 9.0]],
            (new Naive())->roll([5.0, 6.0, 9.0, 1.0], [2, 3], 2),
        );
        self::assertSame(
            [2 => [5.5], 3 => [7.5], 1 => [5.0]],
            MovingAverage::of(2)->roll([5.0, 6.0, 9.0, 1.0], [2, 3, 1], 1),
        );
    }

    /** Source: R 4.2.2, lm() of the distance from the mean on the one before, Nile 1871 to 1900. */
    public function testAnAutoregressionIsRsLeastSquares(): void
    {
        $nile = [
            1120.0, 1160, 963, 1210, 1160, 1160, 813, 1230, 1370, 1140, 995, 935, 1110, 994, 1020, 960, 1180, 799, 958,
            1140, 1100, 1210, 1150, 1250, 1260, 1220, 1030, 1100, 774, 840,
        ];
        $model = Autoregression::fit($nile);
        self::assertEqualsWithDelta([1078.36666667, 0.22614170], [$model->mean, $model->share], 1e-7);
        [$next, , $third] = $model->roll($nile, [30], 3)[30];
        self::assertEqualsWithDelta([1024.46202293, 1075.60997944], [$next, $third], 1e-6);
        // A value that is not known lets the distance fade as if it had been as forecast.
        self::assertEqualsWithDelta($third, $model->roll([...$nile, null, null], [32], 1)[32][0], 1e-9);
        $turns = [1040.0, 1120, 1040, 1120];
        // 1080 − 0.98 × 40: not quite all of it comes back, so that every distance fades.
        self::assertEqualsWithDelta(1040.8, Autoregression::fit($turns)->roll($turns, [4], 1)[4][0], 1e-9);
    }

    /** 100, 110, 121 grow by a tenth each: what a method adds to the logarithm multiplies the series. */
    public function testOnTheLogarithmATrendGrowsByAShare(): void
    {
        $demand = [100.0, 110, 121, 133.1, 146.41, 161.051, 177.1561, 194.87171, 214.358881, 235.7947691];
        $holt = Smoothing::fit(OnLogarithm::of($demand), Trend::Linear);
        $ahead = (new OnLogarithm($holt))->roll($demand, [10], 2)[10];
        self::assertEqualsWithDelta(259.3742460, $ahead[0], 0.01);
        self::assertEqualsWithDelta(285.3116706, $ahead[1], 0.02);
    }

    public function testAMovingAverageIsTheMeanOfTheLastKnownValues(): void
    {
        $of = static fn (int $window, ?float ...$demand): float => MovingAverage::of($window)->roll(
            array_values($demand),
            [count($demand)],
            1,
        )[count($demand)][0];
        self::assertSame(5.0, $of(3, 100.0, 4.0, 5.0, 6.0));
        self::assertSame(5.0, $of(3, 4.0, null, 5.0, 6.0), 'it steps over what is not known, back to the first value');
        self::assertSame(5.5, $of(6, 5.0, 6.0), 'of fewer, where there are fewer');
        self::assertSame(0.0, $of(3, null, null));
        self::assertSame(1, MovingAverage::of(0)->window);
    }

    public function testTheWindowIsTheOneThatMissedLeast(): void
    {
        // A step up is followed soonest by the shortest window; noise about a level is evened out by the longest.
        $step = [...array_fill(0, 40, 10.0), ...array_fill(0, 20, 30.0)];
        self::assertSame(3, MovingAverage::fit($step)->window);
        $noise = array_map(static fn (int $week): float => 20.0 + 8 * sin($week * $week), range(0, 103));
        self::assertSame(26, MovingAverage::fit($noise)->window);
        // A wave of six values is evened out by six of them, and the other windows of half the length are not tried.
        $wave = array_map(static fn (int $week): float => [0.0, 9.0, 2.0, 7.0, 1.0, 11.0][$week % 6], range(0, 11));
        self::assertSame(6, MovingAverage::fit($wave)->window);
        self::assertSame(3, MovingAverage::fit(array_slice($wave, 0, 11))->window, 'twelve values are wanted for six');
    }

    /**
     * Source: Hyndman & Athanasopoulos, "Forecasting: Principles and Practice", 2nd edition 2018, section 6.2:
     * Australian quarterly beer production from 1992 on (from memory; the sums can be done by hand).
     */
    public function testCentredMovingAverages(): void
    {
        $beer = [443.0, 410.0, 420.0, 532.0, 433.0, 421.0];
        self::assertSame([2 => 450.0, 3 => 450.125], SeasonalIndex::centredAverages($beer, 4));
        self::assertSame(
            [1 => 4.0, 2 => 5.0, 3 => 6.0],
            SeasonalIndex::centredAverages([1.0, 5.0, 6.0, 4.0, 8.0], 3),
        );
    }

    public function testASeasonIsReadOffWhatRepeats(): void
    {
        // The same four quarters three times over: 50, 150, 80 and 120 of a hundred.
        $quarters = array_merge(...array_fill(0, 3, [50.0, 150.0, 80.0, 120.0]));
        $factors = SeasonalIndex::found($quarters, 4, Season::Multiplicative);
        self::assertEqualsWithDelta([0.5, 1.5, 0.8, 1.2], $factors?->terms, 1e-9);
        $terms = SeasonalIndex::found($quarters, 4, Season::Additive);
        self::assertEqualsWithDelta([-50.0, 50.0, -20.0, 20.0], $terms?->terms, 1e-9);
        self::assertNull(SeasonalIndex::found(array_slice($quarters, 0, 7), 4, Season::Multiplicative));
        self::assertNotNull(SeasonalIndex::found(array_slice($quarters, 0, 8), 4, Season::Multiplicative));
        self::assertNull(
            SeasonalIndex::found(array_fill(0, 12, 0.0), 4, Season::Multiplicative),
            'of nothing there is no share',
        );
    }

    public function testHowMuchIsWantedBeforeASeasonIsSeen(): void
    {
        self::assertSame(
            [false, true, false, true, false, true],
            [
                SeasonalIndex::canBeSeen(23, 12),
                SeasonalIndex::canBeSeen(24, 12),
                SeasonalIndex::canBeSeen(51, 52),
                SeasonalIndex::canBeSeen(52, 52),
                SeasonalIndex::canBeSeen(23, 24),
                SeasonalIndex::canBeSeen(24, 24),
            ],
        );
    }

    /** By the formulas of Croston 1972, Syntetos & Boylan 2005 and Teunter, Syntetos & Babai 2011, by hand. */
    public function testDemandThatComesNowAndThen(): void
    {
        $demand = [0.0, 4.0, 0.0, 0.0, 6.0, 0.0];
        $rate = static fn (string $kind, float $alpha, float $beta = 0.1): float => Intermittent::of(
            $kind,
            $alpha,
            $beta,
        )->roll($demand, [6], 1)[6][0];
        // Size: 4, then 4 + 0.2 × 2 = 4.4. Interval: 2, then 2 + 0.2 × (3 − 2) = 2.2.
        self::assertEqualsWithDelta(4.4 / 2.2, $rate(Intermittent::CROSTON, 0.2), 1e-12);
        self::assertEqualsWithDelta(4.4 / 2.2 * 0.9, $rate(Intermittent::SBA, 0.2), 1e-12);
        // Chance: one in four at first; 0.25 + 0.1 × 0.75 = 0.325; then 0.325 × 0.9 = 0.2925.
        self::assertEqualsWithDelta(0.2925 * 4.4, $rate(Intermittent::TSB, 0.2, 0.1), 1e-12);
        self::assertSame(
            [1 => [0.0], 2 => [2.0]],
            Intermittent::of(Intermittent::CROSTON, 0.2)->roll($demand, [1, 2], 1),
            'before the first sale nothing is known',
        );
    }

    #[DataProvider('smoothings')]
    public function testSmoothingOutOfRangeIsRefused(float $alpha, float $beta, bool $allowed): void
    {
        if (!$allowed) {
            $this->expectExceptionMessage('out of range; expected above 0 and up to 1');
        }
        self::assertSame($alpha, Intermittent::of(Intermittent::TSB, $alpha, $beta)->alpha);
    }

    /** @return iterable<array{float, float, bool}> */
    public static function smoothings(): iterable
    {
        yield [1.0, 1.0, true];
        yield [0.0, 0.5, false];
        yield [1.01, 0.5, false];
        yield [0.5, 0.0, false];
        yield [0.5, 1.01, false];
    }

    /** Source: Hyndman & Koehler 2006: errors over the mean absolute step of the naive method. */
    public function testErrorsAreMeasuredInStepsOfTheNaiveMethod(): void
    {
        self::assertSame(2.0, (new ErrorScale([1.0, 3.0, 1.0, 3.0], 1))->meanAbsolute);
        self::assertSame(4.0, (new ErrorScale([1.0, 9.0, 3.0, 15.0], 2))->meanAbsolute, 'a period apart: 2 and 6');
        self::assertSame(8.0, (new ErrorScale([1.0, 9.0], 2))->meanAbsolute, 'one apart where there is no period yet');
        self::assertSame(3.0, (new ErrorScale([1.0, null, 2.0, 5.0], 1))->meanAbsolute);
        self::assertSame(1.0, (new ErrorScale([4.0, 4.0], 1))->meanAbsolute, 'it never missed');
        $score = (new ErrorScale([1.0, 3.0, 1.0], 1))->score([1.0, 3.0, 1.0, 4.0, 6.0], [3 => [5.0, 5.0]], false);
        // Errors 1 and −1, steps of 2; they cancel in the bias.
        self::assertEqualsWithDelta([0.5, 0.0, -1.0], [$score->mase, $score->bias, $score->tracking], 1e-12);
        $over = (new ErrorScale([1.0, 3.0, 1.0], 1))->score([1.0, 3.0, 1.0, 4.0, 6.0], [3 => [6.0, 7.0, 8.0]], false);
        self::assertEqualsWithDelta(3 / 10, $over->bias, 1e-12, 'three too many where ten were wanted');
    }

    /** Source: Hyndman & Fan, "Sample Quantiles in Statistical Packages", 1996, type 7; by hand. */
    public function testWhatWasSeenAsADistribution(): void
    {
        $seen = Empirical::of([4.0, 1.0, 3.0, 2.0]);
        self::assertSame([1.0, 1.75, 2.5, 4.0], array_map($seen->quantile(...), [0.0, 0.25, 0.5, 1.0]));
        self::assertSame([0.0, 0.25, 0.5, 1.0], array_map($seen->cumulative(...), [0.5, 1.0, 2.9, 4.0]));
        self::assertSame([2.5, 0.75, 0.0], array_map($seen->loss(...), [0.0, 2.0, 4.0]));
        self::assertEqualsWithDelta(sqrt(5 / 3), $seen->deviation(), 1e-12);
        self::assertSame(0.0, Empirical::of([5.0])->deviation());
        $this->expectExceptionMessage('Nothing was seen');
        Empirical::of([]);
    }

    public function testSumsAndMixturesOfCounts(): void
    {
        // One die, and the sum of two: 7 with 6 of 36 (counted).
        $die = Counts::of([0.0, ...array_fill(0, 6, 1 / 6)]);
        $two = $die->times(2);
        self::assertEqualsWithDelta(6 / 36, $two->probabilities[7], 1e-12);
        self::assertEqualsWithDelta([7.0, sqrt(35 / 6)], [$two->mean(), $two->deviation()], 1e-9);
        self::assertEqualsWithDelta(21 / 36, $two->cumulative(7.0), 1e-12);
        self::assertEqualsWithDelta(21 / 36, $two->cumulative(7.9), 1e-12);
        self::assertSame(0.0, $two->cumulative(-0.1));
        self::assertSame(1.0, $two->cumulative(99.0));
        self::assertSame([7.0, 8.0], [$two->quantile(21 / 36 - 1e-9), $two->quantile(21 / 36 + 1e-9)]);
        // Beyond 10 lie 11 (2 of 36) and 12 (1 of 36): 1 × 2/36 + 2 × 1/36.
        self::assertEqualsWithDelta(4 / 36, $two->loss(10.0), 1e-12);
        self::assertEqualsWithDelta((4 / 36 + 1 / 36) / 2, $two->loss(10.5), 1e-12, 'half-way to 11');
        self::assertEqualsWithDelta(9.0, $two->loss(-2.0), 1e-12);
        self::assertSame(0.0, $two->loss(12.0));
        self::assertEqualsWithDelta(0.0, $die->times(0)->mean(), 1e-12);
        $mixed = Counts::mixture([[$die, 0.25], [Counts::of([1.0]), 0.75]]);
        self::assertEqualsWithDelta([0.75, 0.25 / 6], array_slice($mixed->probabilities, 0, 2), 1e-12);
    }

    public function testAMixtureIsAsWideAsItsPartsAndTheirDistance(): void
    {
        $mixture = new Mixture([[new Normal(10.0, 3.0), 0.5], [new Normal(20.0, 3.0), 0.5]]);
        self::assertEqualsWithDelta([15.0, sqrt(9 + 25)], [$mixture->mean(), $mixture->deviation()], 1e-12);
        self::assertEqualsWithDelta(15.0, $mixture->quantile(0.5), 1e-6);
        self::assertEqualsWithDelta(0.5, $mixture->cumulative(15.0), 1e-12);
    }

    public function testDrawsFollowTheirDistributionAndComeTheSameAgain(): void
    {
        foreach ([new Normal(50.0, 10.0), new Gamma(50.0, 10.0), new Gamma(2.0, 4.0)] as $distribution) {
            $draws = new Draws(5);
            $drawn = array_map(static fn (): float => $draws->of($distribution), range(1, 40000));
            $mean = array_sum($drawn) / 40000;
            $square = array_sum(array_map(static fn (float $one): float => ($one - $mean) ** 2, $drawn)) / 40000;
            // Four standard errors of the mean; the deviation within a twentieth.
            self::assertEqualsWithDelta($distribution->mean(), $mean, 4 * $distribution->deviation() / 200);
            self::assertEqualsWithDelta(1.0, sqrt($square) / $distribution->deviation(), 0.05);
            self::assertSame($drawn[0], (new Draws(5))->of($distribution));
        }
    }

    public function testALevelAloneMovesByItsShareOfEachError(): void
    {
        $level = Smoothing::fit([3.0, null, 5.0, 4.0], parameters: [0.5]);
        self::assertSame(4.0, $level->sse, 'by hand: 5 was 2 more than 3, 4 was 0 more than 4');
        self::assertSame(
            [0 => [3.0, 3.0], 2 => [3.0, 3.0], 3 => [4.0, 4.0], 5 => [6.0, 6.0]],
            $level->roll([3.0, null, 5.0, 4.0, 8.0], [0, 2, 3, 5], 2),
        );
        self::assertSame(['level' => 4.0, 'slope' => 0.0, 'season' => []], $level->state([3.0, null, 5.0, 4.0]));
    }
}
