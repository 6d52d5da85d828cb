<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\ErrorScale;
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
