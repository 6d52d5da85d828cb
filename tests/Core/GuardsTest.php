<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Distribution\Mixture;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Replenish\BestReorderLevels;
use TallBarrel\Core\Replenish\DynamicLots;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\LeadTimeDemand;
use TallBarrel\Core\Replenish\StockPolicy;
use TallBarrel\Core\Sourcing\ChainedDiscounts;

/** Each limit by itself: what lies just outside is refused, what lies on it is taken. */
final class GuardsTest extends TestCase
{
    /** @return iterable<string, array{callable(): mixed}> */
    public static function outside(): iterable
    {
        $counts = static fn (): Counts => Counts::poisson(4.0);
        yield 'best levels: order cost' => [fn () => BestReorderLevels::of($counts(), $counts(), -1.0, 1.0, 9.0)];
        yield 'best levels: holding' => [fn () => BestReorderLevels::of($counts(), $counts(), 64.0, 0.0, 9.0)];
        yield 'best levels: shortage' => [fn () => BestReorderLevels::of($counts(), $counts(), 64.0, 1.0, 0.0)];
        yield 'best levels: demand' => [fn () => BestReorderLevels::of(Counts::of([1.0]), $counts(), 64.0, 1.0, 9.0)];
        yield 'lead times: sum' => [fn () => new LeadTimeDemand($counts(), [1 => 0.5, 2 => 0.4])];
        yield 'lead times: periods' => [fn () => new LeadTimeDemand($counts(), [-1 => 0.5, 2 => 0.5])];
        yield 'lead times: chance' => [fn () => new LeadTimeDemand($counts(), [1 => -0.5, 2 => 1.5])];
        yield 'counts: none' => [fn () => Counts::of([])];
        yield 'counts: below zero' => [fn () => Counts::of([2.0, -0.5])];
        yield 'counts: nothing' => [fn () => Counts::of([0.0, 0.0])];
        yield 'negative binomial: mean' => [fn () => Counts::negativeBinomial(0.0, 2.0)];
        yield 'negative binomial: variance' => [fn () => Counts::negativeBinomial(2.0, 2.0)];
        yield 'negative binomial: too much' => [fn () => Counts::negativeBinomial(1e9, 1e10)];
        yield 'economic quantity: demand' => [fn () => EconomicOrderQuantity::of(-1.0, 1.0, 1.0)];
        yield 'economic quantity: order' => [fn () => EconomicOrderQuantity::of(1.0, -1.0, 1.0)];
        yield 'economic quantity: holding' => [fn () => EconomicOrderQuantity::of(1.0, 1.0, 0.0)];
        yield 'policy: levels' => [fn () => StockPolicy::upTo(5.0, 4.9)];
        yield 'policy: lot' => [fn () => StockPolicy::inLots(5.0, 0.0)];
        yield 'lots: no demand' => [fn () => DynamicLots::silverMeal([], 1.0, 1.0)];
        yield 'lots: holding' => [fn () => DynamicLots::silverMeal([1.0], 1.0, -0.1)];
        yield 'lots: demand' => [fn () => DynamicLots::silverMeal([1.0, -1.0], 1.0, 1.0)];
        yield 'lots: order' => [fn () => DynamicLots::silverMeal([1.0], -1.0, 1.0)];
        yield 'lots: as many orders as periods' => [fn () => DynamicLots::wagnerWhitin([1.0, 2.0], [1.0], 1.0)];
        yield 'lots: one order below zero' => [fn () => DynamicLots::wagnerWhitin([1.0, 2.0], [1.0, -1.0], 1.0)];
        yield 'seven discounts' => [fn () => ChainedDiscounts::read('1 + 1 + 1 + 1 + 1 + 1 + 1')];
    }

    /** @param callable(): mixed $outside */
    #[DataProvider('outside')]
    public function testWhatLiesOutsideIsRefused(callable $outside): void
    {
        $this->expectException(InvalidValue::class);
        $outside();
    }

    public function testWhatLiesOnTheLimitIsTaken(): void
    {
        self::assertSame(0.0, EconomicOrderQuantity::of(0.0, 10.0, 0.5));
        self::assertSame(0.0, EconomicOrderQuantity::of(100.0, 0.0, 0.5));
        self::assertSame(0.0, StockPolicy::upTo(5.0, 5.0)->orderAt(5.1));
        self::assertSame(1.0, Counts::of([0.0, 3.0])->mean());
        self::assertCount(6, explode('+', ChainedDiscounts::read('1 + 1 + 1 + 1 + 1 + 1')->label()));
        self::assertSame([0.0, 2.0], [
            Counts::of([1.0])->mean(),
            (new LeadTimeDemand(Counts::of([0.0, 1.0]), [0 => 0.5, 2 => 0.5]))->with(1)->mean(),
        ]);
        self::assertTrue((new Problems())->areNone());
        $problems = new Problems();
        $problems->refuse('a', 'first');
        $problems->refuse('a', 'second');
        self::assertFalse($problems->areNone());
        self::assertSame(['a' => 'first'], $problems->all());
        self::assertSame([true, false], [$problems->concern('a'), $problems->concern('b')]);
    }

    public function testAShapeOfNothingOrWithoutDoubtIsOneValue(): void
    {
        foreach (Shape::cases() as $shape) {
            self::assertSame([0.0, 0.0], [$shape->with(0.0, 3.0)->mean(), $shape->with(0.0, 3.0)->deviation()]);
            self::assertSame([7.0, 0.0], [$shape->with(7.0, 0.0)->mean(), $shape->with(7.0, 0.0)->deviation()]);
            self::assertSame(0.0, $shape->with(-1.0, 2.0)->mean());
        }
        self::assertInstanceOf(Counts::class, Shape::Counts->with(4.0, 2.0));
        self::assertInstanceOf(Gamma::class, Shape::Counts->with(100_000.0, 2000.0));
    }

    public function testAMixtureMeetsItsQuantilesBetweenThoseOfItsParts(): void
    {
        // Half at 10, half at 20, each give or take one: the median lies half-way, the quarters near the parts' own
        // middle.
        $mixture = new Mixture([[new Normal(10.0, 1.0), 0.5], [new Normal(20.0, 1.0), 0.5]]);
        self::assertEqualsWithDelta(15.0, $mixture->mean(), 1e-9);
        self::assertEqualsWithDelta(0.25, $mixture->cumulative($mixture->quantile(0.25)), 1e-6);
        self::assertEqualsWithDelta(10.0, $mixture->quantile(0.25), 1e-3);
        self::assertEqualsWithDelta(20.0, $mixture->quantile(0.75), 1e-3);
        self::assertEqualsWithDelta(20.6745, $mixture->quantile(0.875), 1e-3, 'the third quarter of the upper part');
    }
}
