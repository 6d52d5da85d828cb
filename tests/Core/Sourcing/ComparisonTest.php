<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\Comparison;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/** Two orders in place of one, and the curves of what one costs; by hand, with nothing to pay but goods and freight. */
final class ComparisonTest extends TestCase
{
    /** @return array{OfferTerms, Seller, Alongside} sold one by one */
    private static function bid(
        int $id,
        string $prices,
        float $freight = 0.0,
        float $least = 0.0,
        ?int $supplier = null,
        int $content = 1,
        int $minimum = 1,
        int $multiple = 1,
    ): array {
        $supplier ??= $id;

        return [
            new OfferTerms(
                $id,
                $supplier,
                BuyingRule::of(Pack::of('pack', $content), $minimum, $multiple),
                PriceBreaks::read($prices),
                ExchangeRate::of('EUR', 'EUR', 1),
                1,
                5,
            ),
            new Seller(
                $supplier,
                'Supplier '.$supplier,
                null,
                null,
                FreightTariff::flat($freight),
                $least > 0 ? OrderMinimum::of($least) : OrderMinimum::none(),
            ),
            new Alongside(),
        ];
    }

    /** @param array{OfferTerms, Seller, Alongside} ...$bids */
    private static function among(array ...$bids): Comparison
    {
        return new Comparison(
            array_values($bids),
            new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable('2026-11-23'),
        );
    }

    /**
     * @param array{OfferTerms, Seller, Alongside} ...$bids
     *
     * @return array{int, float, int, float, float}|null offer and units of both parts, and what they save
     */
    private static function split(int $units, array ...$bids): ?array
    {
        $split = self::among(...$bids)->split($units);

        return null === $split ? null : [
            $split[0]->offer->id,
            $split[0]->units,
            $split[1]->offer->id,
            $split[1]->units,
            round($split[2], 9),
        ];
    }

    /** Hundreds at 0.50 from one, singles at 1.00 from the other: 110 are 100 either way, 60 in two. */
    public function testTwoOrdersWhereTheyCostLess(): void
    {
        $hundreds = self::bid(1, '0.50', multiple: 100);
        $singles = self::bid(2, '1.00');
        self::assertSame([1, 100.0, 2, 10.0, 40.0], self::split(110, $hundreds, $singles));
        self::assertSame([1, 100.0, 2, 10.0, 40.0], self::split(110, $singles, $hundreds), 'in whatever order');
        self::assertNull(self::split(150, $hundreds, $singles), 'two hundreds are 100 as well');
        self::assertNull(self::split(100, $hundreds, $singles), 'one hundred is all');
        self::assertNull(self::split(110, $hundreds), 'nobody for the rest');
    }

    public function testTheRestIsNotBoughtFromTheSameSupplier(): void
    {
        $hundreds = self::bid(1, '0.50', multiple: 100);
        self::assertNull(self::split(110, $hundreds, self::bid(2, '1.00', supplier: 1)));
        self::assertSame(
            [1, 100.0, 3, 10.0, 39.0],
            self::split(110, $hundreds, self::bid(2, '1.00', supplier: 1), self::bid(3, '1.10')),
        );
    }

    /** 60.00 in two orders and 100.00 in one: 40.00 of freight on the second are too much, 39.40 are worth it. */
    public function testItHasToSaveHalfAPercent(): void
    {
        $hundreds = self::bid(1, '0.50', multiple: 100);
        self::assertNull(self::split(110, $hundreds, self::bid(2, '1.00', 40.0)));
        self::assertNull(self::split(110, $hundreds, self::bid(2, '1.00', 39.5)));
        self::assertSame([1, 100.0, 2, 10.0, 0.6], self::split(110, $hundreds, self::bid(2, '1.00', 39.4)));
    }

    public function testBothPartsReachTheirMinimum(): void
    {
        $hundreds = self::bid(1, '0.50', multiple: 100);
        self::assertNull(self::split(110, $hundreds, self::bid(2, '1.00', least: 11.0)), 'the rest is 10.00');
        self::assertNotNull(self::split(110, $hundreds, self::bid(2, '1.00', least: 10.0)));
        self::assertNull(
            self::split(110, self::bid(1, '0.50', least: 51.0, multiple: 100), self::bid(2, '1.00')),
            'the first is 50.00',
        );
        self::assertNull(self::split(110, self::bid(1, '0.50', least: 200.0, multiple: 100)), 'nor alone');
    }

    public function testTheBestOfSeveralIsTaken(): void
    {
        $hundreds = self::bid(1, '0.50', multiple: 100);
        $split = self::split(110, $hundreds, self::bid(2, '1.00'), self::bid(3, '0.95'), self::bid(4, '0.98'));
        self::assertSame([1, 100.0, 3, 10.0, 40.5], $split);
    }

    /**
     * Packs of 6 from two on, a price from ten packs: from 12 to 54 and from 60 on, each unit at the price of its
     * stretch.
     */
    public function testACurveBreaksWhereAPriceBegins(): void
    {
        $curves = self::among(self::bid(1, '1=6.00 10=4.50', content: 6, minimum: 2))->curves(1, 300)[1];
        self::assertCount(2, $curves);
        [$dear, $cheap] = $curves;
        self::assertSame([12.0, 54.0], [$dear[0][0], $dear[count($dear) - 1][0]]);
        self::assertSame([60.0, 300.0], [$cheap[0][0], $cheap[count($cheap) - 1][0]]);
        self::assertSame([1.0], array_values(array_unique(array_column($dear, 1))));
        self::assertSame([0.75], array_values(array_unique(array_column($cheap, 1))));
        foreach ([...$dear, ...$cheap] as [$units]) {
            self::assertSame(0.0, fmod($units, 6.0), 'whole packs');
        }
    }

    public function testACurveBeginsWhereItIsLookedFromAndEndsWhereItIsLookedTo(): void
    {
        $comparison = self::among(self::bid(1, '1=6.00 10=4.50 100=3.00', content: 6));
        $late = $comparison->curves(90, 600)[1];
        self::assertCount(2, $late, 'the price from 60 on is in force at 90');
        self::assertSame([90.0, 0.75], $late[0][0]);
        self::assertSame([600.0, 0.5], $late[1][0]);
        self::assertCount(2, $comparison->curves(60, 599)[1] + [1 => []], 'just short of the third price');
        self::assertSame([60.0, 0.75], $comparison->curves(60, 90)[1][0][0], 'looked from where it begins');
    }

    public function testFreightFallsByTheUnit(): void
    {
        [$curve] = self::among(self::bid(1, '1.00', 10.0))->curves(1, 100)[1];
        self::assertEqualsWithDelta([1.0, 11.0], $curve[0], 1e-9);
        self::assertEqualsWithDelta([100.0, 1.1], $curve[count($curve) - 1], 1e-9);
        for ($i = 1; $i < count($curve); ++$i) {
            self::assertLessThan($curve[$i - 1][1], $curve[$i][1]);
            self::assertGreaterThan($curve[$i - 1][0], $curve[$i][0]);
        }
    }

    public function testNobodyWhoSellsIsNoSplitAndNoCurve(): void
    {
        self::assertNull(self::among()->split(10));
        self::assertSame([], self::among()->curves(1, 10));
        self::assertSame([], self::among()->at(BigDecimal::of(10)));
    }
}
