<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Mixture;
use TallBarrel\Core\Demand\Distribution\Normal;

/** Source: R's qgamma, ppois, dnbinom and the like; r/distributions.R and r/distributions.json. */
final class DistributionsAgainstRTest extends TestCase
{
    public function testQuantilesProbabilitiesAndLossesAreThoseOfR(): void
    {
        /**
         * @var array{p: list<float>, x: list<float>, distributions: list<array{kind: string, mean: float,
         *      deviation: float, quantile: list<float>, cumulative: list<float>, loss: list<float>}>} $r
         */
        $r = json_decode(
            (string) file_get_contents(__DIR__.'/r/distributions.json'),
            true,
            flags: \JSON_THROW_ON_ERROR,
        );
        self::assertCount(9, $r['distributions']);
        foreach ($r['distributions'] as $witness) {
            $ours = match ($witness['kind']) {
                'gamma' => new Gamma($witness['mean'], $witness['deviation']),
                'poisson' => Counts::poisson($witness['mean']),
                default => Counts::negativeBinomial($witness['mean'], $witness['deviation'] ** 2),
            };
            $name = sprintf('%s %g', $witness['kind'], $witness['mean']);
            self::assertEqualsWithDelta($witness['mean'], $ours->mean(), 1e-6, $name);
            self::assertEqualsWithDelta($witness['deviation'], $ours->deviation(), 1e-6, $name);
            foreach ($r['p'] as $i => $p) {
                self::assertEqualsWithDelta(
                    $witness['quantile'][$i],
                    $ours->quantile($p),
                    1e-6 * max(1.0, $witness['quantile'][$i]),
                    $name,
                );
            }
            foreach ($r['x'] as $i => $x) {
                self::assertEqualsWithDelta($witness['cumulative'][$i], $ours->cumulative($x), 1e-9, $name);
                self::assertEqualsWithDelta(
                    $witness['loss'][$i],
                    $ours->loss($x),
                    1e-7 * max(1.0, $witness['loss'][$i]),
                    $name,
                );
            }
        }
    }

    public function testSumsOfCountsAreCountsOfSums(): void
    {
        $five = Counts::poisson(2)->times(5);
        foreach ([4, 10, 17] as $units) {
            self::assertEqualsWithDelta(
                Counts::poisson(10)->cumulative($units),
                $five->cumulative($units),
                1e-9,
                'the sum of Poisson demands is Poisson',
            );
        }
        $mixed = Counts::mixture([[Counts::poisson(2), 0.25], [Counts::poisson(6), 0.75]]);
        self::assertEqualsWithDelta(5.0, $mixed->mean(), 1e-9);
        self::assertEqualsWithDelta(
            5 + 3,
            $mixed->deviation() ** 2,
            1e-6,
            'variance within and between: 5 + .25 × 9 + .75 × 1',
        );
    }

    public function testAMixtureHasTheMomentsOfItsParts(): void
    {
        $mixture = new Mixture([[new Normal(100, 10), 0.5], [new Normal(140, 10), 0.5]]);
        self::assertEqualsWithDelta(120.0, $mixture->mean(), 1e-9);
        self::assertEqualsWithDelta(sqrt(100 + 400), $mixture->deviation(), 1e-9);
        self::assertEqualsWithDelta(120.0, $mixture->quantile(0.5), 1e-4);
        self::assertEqualsWithDelta(
            0.5 * (new Normal(100, 10))->loss(130) + 0.5 * (new Normal(140, 10))->loss(130),
            $mixture->loss(130),
            1e-12,
        );
    }

    /**
     * Kolmogorov, "Sulla determinazione empirica di una legge di distribuzione", Giornale dell'Istituto Italiano degli
     * Attuari 4, 1933: of n true draws the shares lie nowhere further than 1.63/√n off, but for one time in a hundred.
     */
    public function testTheSharesOfDrawsAreThoseOfTheirDistribution(): void
    {
        foreach ([new Normal(100, 20), new Gamma(12, 5), new Gamma(2, 3), new Gamma(30, 3)] as $distribution) {
            $draws = new Draws(9);
            $values = array_map(static fn (): float => $draws->of($distribution), range(1, 8000));
            sort($values);
            $furthest = 0.0;
            foreach ($values as $i => $value) {
                $share = $distribution->cumulative($value);
                $furthest = max($furthest, abs($share - $i / 8000), abs(($i + 1) / 8000 - $share));
            }
            self::assertLessThan(1.63 / sqrt(8000), $furthest);
        }
    }

    public function testDrawsFollowTheirDistributionAndComeBackWithTheSeed(): void
    {
        foreach (
            [new Normal(100, 20), new Gamma(12, 5), new Gamma(2, 3), Counts::negativeBinomial(8, 30)] as $distribution
        ) {
            $draws = new Draws(4);
            $sum = $squares = 0.0;
            for ($i = 0; $i < 20000; ++$i) {
                $value = $draws->of($distribution);
                $sum += $value;
                $squares += $value * $value;
            }
            // Four standard errors of the mean.
            self::assertEqualsWithDelta(
                $distribution->mean(),
                $sum / 20000,
                (4 * $distribution->deviation()) / sqrt(20000),
            );
            self::assertEqualsWithDelta(
                $distribution->deviation(),
                sqrt($squares / 20000 - ($sum / 20000) ** 2),
                0.06 * $distribution->deviation(),
            );
        }
        $draw = static fn (int $seed): array => array_map((new Draws($seed))->below(...), [10, 100, 1000, 10000]);
        self::assertSame($draw(7), $draw(7));
        self::assertNotSame($draw(7), $draw(8));
    }
}
