<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\Shape;

/** Distributions whose figures are known in closed form, or come from counting on one's fingers. */
final class DistributionsByHandTest extends TestCase
{
    /** A gamma distribution whose deviation is its mean is exponential: F = 1 − e^(−x/μ), E[(D − x)⁺] = μ e^(−x/μ). */
    #[DataProvider('places')]
    public function testAGammaAsSpreadAsItsMeanIsExponential(float $x): void
    {
        $gamma = new Gamma(10.0, 10.0);
        self::assertEqualsWithDelta($x <= 0 ? 0.0 : 1 - exp(-$x / 10), $gamma->cumulative($x), 1e-12);
        self::assertEqualsWithDelta($x <= 0 ? 10 - $x : 10 * exp(-$x / 10), $gamma->loss($x), 1e-10);
    }

    /** @return iterable<string, array{float}> */
    public static function places(): iterable
    {
        foreach ([-2.0, 0.0, 0.001, 1.0, 9.999, 10.0, 19.9, 20.1, 35.0, 120.0, 400.0] as $x) {
            yield (string) $x => [$x];
        }
    }

    public function testItsQuantilesAreTheInverse(): void
    {
        $gamma = new Gamma(10.0, 10.0);
        foreach ([0.001, 0.25, 0.5, 0.95, 0.999, 0.99999999] as $probability) {
            self::assertEqualsWithDelta(-10 * log(1 - $probability), $gamma->quantile($probability), 1e-6);
        }
        $even = new Gamma(100.0, 10.0);
        self::assertEqualsWithDelta(0.3, $even->cumulative($even->quantile(0.3)), 1e-8);
        self::assertSame([100.0, 10.0], [$even->mean(), $even->deviation()]);
    }

    /** Γ(n) = (n − 1)!, Γ(1/2) = √π (Abramowitz & Stegun 1964, 6.1.6 and 6.1.8). */
    public function testTheLogarithmOfTheGammaFunction(): void
    {
        self::assertEqualsWithDelta(0.0, Gamma::logGamma(1.0), 1e-12);
        self::assertEqualsWithDelta(0.0, Gamma::logGamma(2.0), 1e-12);
        self::assertEqualsWithDelta(log(24), Gamma::logGamma(5.0), 1e-12);
        self::assertEqualsWithDelta(log(39916800), Gamma::logGamma(12.0), 1e-10);
        self::assertEqualsWithDelta(log(6227020800), Gamma::logGamma(14.0), 1e-10);
        self::assertEqualsWithDelta(log(sqrt(\M_PI)), Gamma::logGamma(0.5), 1e-12);
    }

    /** A die with faces 0, 1 and 2, of which 1 is on half of them. */
    private static function die(): Counts
    {
        return Counts::of([1.0, 2.0, 1.0]);
    }

    /** By hand: mean 1, variance 1/2; beyond 0 lies 1, beyond 1 a quarter, beyond 2 nothing, and evenly between. */
    public function testADieOfThreeFaces(): void
    {
        $die = self::die();
        self::assertSame([0.25, 0.5, 0.25], $die->probabilities);
        self::assertSame([1.0, sqrt(0.5)], [$die->mean(), $die->deviation()]);
        $until = static fn (float $units): float => $die->cumulative($units);
        self::assertSame([0.0, 0.25, 0.25, 0.75, 1.0, 1.0], array_map($until, [-0.1, 0.0, 0.9, 1.0, 2.0, 9.0]));
        $loss = static fn (float $units): float => $die->loss($units);
        self::assertSame(
            [2.0, 1.0, 0.625, 0.25, 0.125, 0.0, 0.0],
            array_map($loss, [-1.0, 0.0, 0.5, 1.0, 1.5, 2.0, 7.0]),
        );
        $quantile = static fn (float $probability): float => $die->quantile($probability);
        self::assertSame([0.0, 0.0, 1.0, 1.0, 2.0, 2.0], array_map($quantile, [0.1, 0.25, 0.26, 0.75, 0.76, 1.0]));
    }

    /** By hand: two dice together 1, 4, 6, 4, 1 of 16; none of them nothing for certain. */
    public function testSumsOfDice(): void
    {
        $two = array_map(static fn (float $one): float => 16 * $one, self::die()->times(2)->probabilities);
        self::assertEqualsWithDelta([1.0, 4.0, 6.0, 4.0, 1.0], $two, 1e-12);
        self::assertSame([1.0], self::die()->times(0)->probabilities);
        self::assertEqualsWithDelta(self::die()->probabilities, self::die()->times(1)->probabilities, 1e-12);
        self::assertEqualsWithDelta([5.0, sqrt(2.5)], [self::die()->times(5)->mean(),
            self::die()->times(5)->deviation()], 1e-9);
        $shifted = self::die()->plus(Counts::of([0.0, 1.0]));
        self::assertEqualsWithDelta([0.0, 0.25, 0.5, 0.25], $shifted->probabilities, 1e-12);
    }

    /** By hand: a quarter of the time the die, else three for certain. */
    public function testOneOfSeveral(): void
    {
        $mixture = Counts::mixture([[Counts::of([0.0, 0.0, 0.0, 1.0]), 0.75], [self::die(), 0.25]]);
        self::assertEqualsWithDelta([0.0625, 0.125, 0.0625, 0.75], $mixture->probabilities, 1e-12);
        self::assertEqualsWithDelta(2.5, $mixture->mean(), 1e-12);
    }

    /** Each whole unit gets what lies within half a unit of it: of a normal 10 ± 0.1 all is 10. */
    public function testAnyDistributionCutIntoWholeUnits(): void
    {
        $cut = Counts::rounding(new Normal(10.0, 0.1));
        self::assertEqualsWithDelta(1.0, $cut->probabilities[10], 1e-6);
        self::assertEqualsWithDelta(10.0, $cut->mean(), 1e-6);
        $die = self::die();
        self::assertSame($die, Counts::rounding($die));
        $wide = Counts::rounding(new Normal(10.0, 2.0));
        self::assertEqualsWithDelta(
            (new Normal(10.0, 2.0))->cumulative(7.5),
            $wide->cumulative(7.0),
            1e-9,
        );
    }

    /** Poisson: e^(−2), 2 e^(−2), 2 e^(−2); negative binomial of mean 1 and variance 2 is geometric: 1/2, 1/4, 1/8. */
    public function testCountsOfChanceArrivals(): void
    {
        $poisson = Counts::poisson(2.0);
        $e = exp(-2);
        self::assertEqualsWithDelta([$e, 2 * $e, 2 * $e], array_slice($poisson->probabilities, 0, 3), 1e-12);
        self::assertEqualsWithDelta([2.0, sqrt(2)], [$poisson->mean(), $poisson->deviation()], 1e-9);
        self::assertSame([1.0], Counts::poisson(0.0)->probabilities);
        $geometric = Counts::negativeBinomial(1.0, 2.0);
        self::assertEqualsWithDelta([0.5, 0.25, 0.125], array_slice($geometric->probabilities, 0, 3), 1e-9);
        $late = Counts::negativeBinomial(50.0, 80.0);
        self::assertEqualsWithDelta([50.0, sqrt(80)], [$late->mean(), $late->deviation()], 1e-6);
    }

    public function testAShapeOfNothingIsNothingForCertain(): void
    {
        foreach (Shape::cases() as $shape) {
            self::assertSame([0.0, 0.0], [$shape->with(-1.0, 2.0)->mean(), $shape->with(-1.0, 2.0)->deviation()]);
            self::assertSame([4.0, 0.0], [$shape->with(4.0, 0.0)->mean(), $shape->with(4.0, 0.0)->deviation()]);
        }
        self::assertInstanceOf(Gamma::class, Shape::Counts->with(1201.0, 2000.0), 'too many to be counted');
        self::assertInstanceOf(Counts::class, Shape::Counts->with(1200.0, 2000.0));
        self::assertInstanceOf(Normal::class, Shape::Errors->with(5.0, 1.0), 'no errors are known');
        self::assertEqualsWithDelta(
            Counts::poisson(4.0)->probabilities[4],
            Shape::Counts->with(4.0, 1.9)->cumulative(4.0) - Shape::Counts->with(4.0, 1.9)->cumulative(3.0),
            1e-9,
            'as little spread as chance arrivals have at the least',
        );
    }
}
