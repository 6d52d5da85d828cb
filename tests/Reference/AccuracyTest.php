<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\ErrorScale;
use TallBarrel\Core\Demand\Fan;
use TallBarrel\Core\Demand\Method\Intermittent;

/**
 * Source: R's own series and simulated intermittent demand, with the forecasts of forecast::ets and forecast::croston;
 * r/accuracy.R and r/accuracy.json. The measure is Hyndman & Koehler's MASE.
 *
 * @phpstan-type Witness array{kind: string, name: string, period: int, train: list<float>, test: list<float>,
 *      theirs: list<float>, mase: float}
 */
final class AccuracyTest extends TestCase
{
    /** @return list<Witness> */
    private static function witnesses(string $kind): array
    {
        /** @var list<Witness> $all */
        $all = json_decode((string) file_get_contents(__DIR__.'/r/accuracy.json'), true, flags: \JSON_THROW_ON_ERROR);

        return array_values(array_filter($all, static fn (array $one): bool => $one['kind'] === $kind));
    }

    /** @param Witness $witness */
    private static function ours(array $witness): float
    {
        $train = array_map(floatval(...), $witness['train']);
        $outcome = Contest::over($train, $witness['period'], count($witness['test']));
        $scale = new ErrorScale($train, $witness['period']);

        return self::mase($witness['test'], $outcome->means, $scale->meanAbsolute);
    }

    /**
     * @param list<float> $test
     * @param list<float> $means
     */
    private static function mase(array $test, array $means, float $scale): float
    {
        $sum = 0.0;
        foreach ($test as $h => $value) {
            $sum += abs($value - $means[$h]);
        }

        return $sum / count($test) / $scale;
    }

    public function testOnRsOwnSeriesNoWorseThanEts(): void
    {
        $ours = $theirs = 0.0;
        $series = self::witnesses('ets');
        self::assertCount(7, $series);
        foreach ($series as $witness) {
            $ours += self::ours($witness);
            $theirs += $witness['mase'];
        }
        self::assertLessThanOrEqual($theirs / 7, $ours / 7);
    }

    /**
     * Source: R 4.2.2, forecast 8.20: ets (stlf where a period is long) and auto.arima on R's own series of quarters
     * and months, three years held back in turn, and on drawn ones of eight kinds; r/kinds.json, written by
     * `Rscript build/bench_forecast.R tests/Reference/r/kinds.json 2028 16`. No method was chosen by these draws.
     */
    public function testInTheMeanOverAllKindsBetterThanEtsAndAutoArima(): void
    {
        /**
         * @var array{series: list<array{kind: string, period: int, train: list<float>, test: list<float>,
         *      ets: array{mean: list<float>}, arima: array{mean: list<float>}}>} $data
         */
        $data = json_decode((string) file_get_contents(__DIR__.'/r/kinds.json'), true, flags: \JSON_THROW_ON_ERROR);
        $errors = $held = [];
        foreach ($data['series'] as $one) {
            $train = array_map(floatval(...), $one['train']);
            $outcome = Contest::over(Cleaning::ofSeries($train, $one['period']), $one['period'], count($one['test']));
            $seasonal = str_starts_with($one['kind'], 'R,') || 'season' === $one['kind'];
            $scale = (new ErrorScale($train, $seasonal ? $one['period'] : 1))->meanAbsolute;
            $each = array_map(
                static fn (array $means): float => self::mase($one['test'], $means, $scale),
                [$outcome->means, $one['ets']['mean'], $one['arima']['mean']],
            );
            $errors[$one['kind']][] = $errors['all'][] = $each;
            foreach (Fan::of($outcome, [0.1, 0.9])['0.1'] as $h => $low) {
                $held[$one['period']][] = $one['test'][$h] >= $low - 1e-9 ? 1.0 : 0.0;
            }
        }
        $mean = static fn (array $some): float => array_sum($some) / count($some);
        foreach ($errors as $kind => $each) {
            $better = min($mean(array_column($each, 1)), $mean(array_column($each, 2)));
            self::assertLessThan('all' === $kind ? $better : 1.1 * $better, $mean(array_column($each, 0)), $kind);
        }
        foreach ($held as $period => $above) {
            self::assertEqualsWithDelta(0.9, $mean($above), 0.06, 'one in ten lies below a tenth, period '.$period);
        }
    }

    public function testOnIntermittentDemandNoWorseThanCroston(): void
    {
        $ours = $theirs = 0.0;
        foreach (self::witnesses('croston') as $witness) {
            $ours += self::ours($witness);
            $theirs += $witness['mase'];
        }
        self::assertLessThanOrEqual($theirs, $ours);
    }

    /** The measure itself agrees with R's, forecast for forecast. */
    public function testTheErrorMeasureIsThatOfR(): void
    {
        foreach ([...self::witnesses('ets'), ...self::witnesses('croston')] as $witness) {
            $scale = new ErrorScale(array_map(floatval(...), $witness['train']), $witness['period']);
            self::assertEqualsWithDelta(
                $witness['mase'],
                self::mase($witness['test'], $witness['theirs'], $scale->meanAbsolute),
                1e-6,
                $witness['name'],
            );
        }
    }

    public function testCrostonAndItsCorrectionAreThoseOfTheLiterature(): void
    {
        $witness = self::witnesses('croston-itself')[0];
        $demand = array_map(floatval(...), $witness['train']);
        $croston = Intermittent::of(Intermittent::CROSTON, 0.1)->roll($demand, [20], 4)[20];
        self::assertEqualsWithDelta($witness['theirs'], $croston, 1e-9, 'R forecast::croston with α = 0.1');
        // Syntetos & Boylan 2005: Croston × (1 − α/2).
        self::assertEqualsWithDelta(
            $croston[0] * 0.95,
            Intermittent::of(Intermittent::SBA, 0.1)->roll($demand, [20], 1)[20][0],
            1e-12,
        );
    }

    /**
     * Teunter, Syntetos & Babai 2011: without demand the forecast decays by (1 − β) a period, while Croston's stands
     * still.
     */
    public function testTheirMethodForgetsWhatIsNoLongerWanted(): void
    {
        $demand = [...array_fill(0, 40, 4.0), ...array_fill(0, 10, 0.0)];
        $tsb = Intermittent::of(Intermittent::TSB, 0.1, 0.2)->roll($demand, [40, 41, 50], 1);
        self::assertEqualsWithDelta(4.0, $tsb[40][0], 1e-9);
        self::assertEqualsWithDelta(4 * 0.8, $tsb[41][0], 1e-9);
        self::assertEqualsWithDelta(4 * 0.8 ** 10, $tsb[50][0], 1e-9);
        $croston = Intermittent::of(Intermittent::CROSTON, 0.1)->roll($demand, [40, 50], 1);
        self::assertSame($croston[40], $croston[50]);
    }
}
