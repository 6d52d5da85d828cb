<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Method\Season;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\Method\Trend;

/**
 * Source: R's stats::HoltWinters on R's own series; the script and its output stand in r/smoothing.R and
 * r/smoothing.json.
 *
 * @phpstan-type Witness array{series: string, kind: string, period: int, values: list<float>, parameters: array{float,
 *      float, float}, sse: float, level: float, trend: float, forecast: list<float>, ses: array{alpha: float,
 *      sse: float}}
 */
final class SmoothingAgainstRTest extends TestCase
{
    /** @return iterable<string, array{Witness}> */
    public static function series(): iterable
    {
        /** @var list<Witness> $all */
        $all = json_decode(
            (string) file_get_contents(__DIR__.'/r/smoothing.json'),
            true,
            flags: \JSON_THROW_ON_ERROR,
        );
        foreach ($all as $witness) {
            yield $witness['series'].', '.$witness['kind'] => [$witness];
        }
    }

    /** @param Witness $r */
    #[DataProvider('series')]
    public function testAtTheParametersOfRTheStatesAndForecastsAreThoseOfR(array $r): void
    {
        $values = array_map(floatval(...), $r['values']);
        $fit = Smoothing::fit($values, Trend::Linear, Season::from($r['kind']), $r['period'], $r['parameters']);
        $state = $fit->state($values);
        self::assertEqualsWithDelta(1.0, $fit->sse / $r['sse'], 1e-6);
        self::assertEqualsWithDelta(1.0, $state['level'] / $r['level'], 1e-6);
        self::assertEqualsWithDelta($r['trend'], $state['slope'], 1e-6 * max(1.0, abs($r['trend'])));
        foreach ($fit->roll($values, [count($values)], $r['period'])[count($values)] as $h => $mean) {
            self::assertEqualsWithDelta(max(0.0, $r['forecast'][$h]), $mean, 1e-5 * abs($r['forecast'][$h]) + 1e-8);
        }
    }

    /** @param Witness $r */
    #[DataProvider('series')]
    public function testTheFittedParametersAreAtLeastAsGoodAsThoseOfR(array $r): void
    {
        $fit = Smoothing::fit(
            array_map(floatval(...), $r['values']),
            Trend::Linear,
            Season::from($r['kind']),
            $r['period'],
        );
        self::assertLessThan(1.02 * $r['sse'], $fit->sse, sprintf('%s, %s', $r['series'], $r['kind']));
        $simple = Smoothing::fit(array_map(floatval(...), $r['values']));
        self::assertLessThanOrEqual(1.0001 * $r['ses']['sse'], $simple->sse);
        if ($r['ses']['alpha'] < 0.99) {
            self::assertEqualsWithDelta($r['ses']['alpha'], $simple->alpha, 1e-3);
        }
    }

    public function testTooLittleHistoryIsSaid(): void
    {
        $this->expectExceptionMessage('20 values are fewer than 2 × 12');
        Smoothing::fit(array_fill(0, 20, 1.0), Trend::Linear, Season::Additive, 12);
    }
}
