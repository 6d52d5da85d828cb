<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\BasketDraft;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\Award\Search;
use TallBarrel\Core\Sourcing\Award\Serving;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/** How a basket is put together, what a supplier would serve at given prices, and what orders ask as a whole. */
final class BasketTest extends TestCase
{
    /** Source: every choice of whole lines, tried one by one. */
    public function testWhatASupplierWouldServeIsABoundOnEveryChoiceOfWholeLines(): void
    {
        $tight = 0;
        for ($seed = 1; $seed <= 150; ++$seed) {
            mt_srand($seed);
            $lines = mt_rand(3, 8);
            $column = $prices = $uses = [];
            for ($i = 0; $i < $lines; ++$i) {
                $column[$i] = (float) mt_rand(10, 100);
                $prices[$i] = $column[$i] + mt_rand(-25, 25);
                $uses[$i] = [(float) mt_rand(10, 100), (float) mt_rand(1, 30), (float) mt_rand(1, 5)];
            }
            /** @var array<int, array{cost: float, from: array<int, float>, upTo: array<int, float>}> $tiers */
            $tiers = [
                ['cost' => 20.0, 'from' => [], 'upTo' => [1 => (float) mt_rand(20, 90)]],
                ['cost' => 5.0, 'from' => [0 => (float) mt_rand(50, 300), 2 => (float) mt_rand(2, 10)], 'upTo' => []],
                ['cost' => 12.0, 'from' => [0 => (float) mt_rand(20, 150)], 'upTo' => [1 => (float) mt_rand(40, 120)]],
            ];
            mt_srand();
            $serving = new Serving($tiers, $uses);
            foreach ($serving->each([Search::CLOSED, 0, 1, 2], $column, $prices) as $tier => [$value]) {
                $least = Search::CLOSED === $tier ? 0.0 : \INF;
                for ($chosen = 0; Search::CLOSED !== $tier && $chosen < 1 << $lines; ++$chosen) {
                    $gain = $tiers[$tier]['cost'];
                    $sums = [0.0, 0.0, 0.0];
                    for ($i = 0; $i < $lines; ++$i) {
                        if (1 === (($chosen >> $i) & 1)) {
                            $gain += $column[$i] - $prices[$i];
                            $sums = [$sums[0] + $uses[$i][0], $sums[1] + $uses[$i][1], $sums[2] + $uses[$i][2]];
                        }
                    }
                    $kept = true;
                    foreach ($tiers[$tier]['from'] as $r => $limit) {
                        $kept = $kept && $sums[$r] >= $limit;
                    }
                    foreach ($tiers[$tier]['upTo'] as $r => $limit) {
                        $kept = $kept && $sums[$r] <= $limit;
                    }
                    $least = $kept ? min($least, $gain) : $least;
                }
                self::assertLessThanOrEqual($least + 1e-6, $value, sprintf('seed %d, tier %d', $seed, $tier));
                $tight += abs($least - $value) < 1e-6 ? 1 : 0;
            }
            [$best] = $serving->cheapest([Search::CLOSED, 0, 1, 2], $column, $prices);
            self::assertEqualsWithDelta(
                min([\INF, ...array_column($serving->each([Search::CLOSED, 0, 1, 2], $column, $prices), 0)]),
                $best,
                1e-9,
            );
        }
        self::assertGreaterThan(200, $tight, 'mostly it is no mere bound but the cost itself');
    }

    public function testOfTwoOffersOfOneSupplierTheCheaperCountsAndFreightCarriesItsDuty(): void
    {
        // 20 packs of 1: 200 + 10 % duty = 220, or 190 + 19 = 209. One of freight pays 10 % duty too: 1.1.
        $draft = new BasketDraft(new CostRates(0, 0, 0), 4.5, new \DateTimeImmutable('2026-11-23'));
        $seller = new Seller(1, 'S', null, null, FreightTariff::flat(30), OrderMinimum::of(50.0));
        $ask = fn (string $price, float $duty): bool => null !==
            $draft->ask('a', 's', $this->offer($price, $duty), $seller, BigDecimal::of(20), new Usage(0.0, null, 0.0));
        self::assertSame([true, true, false], [$ask('10', 10.0), $ask('9.50', 10.0), $ask('9.80', 10.0)]);
        $draft->line('nobody');
        $basket = $draft->basket();
        self::assertEqualsWithDelta(209.0, $basket->lines['a']['s']->cost, 1e-9);
        self::assertEqualsWithDelta(190.0, $basket->lines['a']['s']->value, 1e-9);
        self::assertSame([4.5, 50.0], [$basket->suppliers['s']->orderCost, $basket->suppliers['s']->minimum->value]);
        self::assertEqualsWithDelta(1.1, $basket->suppliers['s']->freightFactor, 1e-9);
        $award = $basket->best();
        self::assertSame([['a' => 's'], ['nobody']], [$award->chosen, $award->unmet]);
        self::assertEqualsWithDelta(209 + 33 + 4.5, $award->cost(), 1e-9);
    }

    public function testAForeignFreightIsPaidInOurMoney(): void
    {
        // 5 USD a pack at 1.25 USD for 1 EUR is 4 EUR; freight 25 USD is 20 EUR.
        $draft = new BasketDraft(new CostRates(0, 0, 0), 0.0, new \DateTimeImmutable('2026-11-23'));
        $draft->ask(
            'a',
            's',
            $this->offer('5', 0.0, ExchangeRate::of('EUR', 'USD', '1.25')),
            new Seller(1, 'S', null, null, FreightTariff::flat(25), OrderMinimum::none()),
            BigDecimal::of(10),
            new Usage(0.0, null, 0.0),
        );
        self::assertEqualsWithDelta(40.0 + 20.0, $draft->basket()->best()->cost(), 1e-6);
    }

    public function testForbiddingSomebodySendsTheLineToTheNextAndACapacityDivides(): void
    {
        $basket = new Basket(
            [
                'a' => ['x' => new Bid(10, 10), 'y' => new Bid(12, 12)],
                'b' => ['x' => new Bid(10, 10), 'y' => new Bid(15, 15)],
            ],
            [
                'x' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
                'y' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
            ],
        );
        self::assertSame(['a' => 'x', 'b' => 'x'], $basket->best()->chosen);
        self::assertSame(['a' => 'y', 'b' => 'y'], $basket->wished([], ['x'])->best()->chosen);
        self::assertSame(['a' => 'x', 'b' => 'y'], $basket->wished(['b' => 'y'], [])->best()->chosen);
        $small = new Basket(
            $basket->lines,
            ['x' => new Bidder(FreightTariff::none(), OrderMinimum::none(), capacity: 10.0)] + $basket->suppliers,
        );
        self::assertSame(['a' => 'y', 'b' => 'x'], $small->best()->chosen, 'the line that costs less to move goes');
        self::assertStringContainsString(
            '10 more than the 10 they can supply',
            (string) $small->valued(['a' => 'x', 'b' => 'x'])->shares['x']->short,
        );
    }

    public function testALimitThatCannotBeKeptIsSaidAndNothingIsCalledTheBest(): void
    {
        $bid = static fn (float $value): Bid => new Bid($value, $value, 0.0, 1.0);
        $capped = static fn (float $most): Bidder => new Bidder(
            FreightTariff::none(),
            OrderMinimum::none(),
            capacity: $most,
        );
        $lines = ['a' => ['x' => $bid(60), 'y' => $bid(62)], 'b' => ['x' => $bid(50), 'y' => $bid(55)]];
        $kept = (new Basket($lines, ['x' => $capped(60.0), 'y' => $capped(55.0)]))->best();
        self::assertSame(['a' => 'x', 'b' => 'y'], $kept->chosen, 'each exactly within its limit');
        self::assertTrue($kept->canBeKept());
        self::assertTrue($kept->isProvenBest());
        $broken = (new Basket($lines, ['x' => $capped(59.0), 'y' => $capped(55.0)]))->best();
        self::assertFalse($broken->canBeKept(), 'x cannot have a, and y cannot have both');
        self::assertFalse($broken->isProvenBest());
    }

    public function testABidOfAStrangerIsRefused(): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('“z”, who is not among the suppliers');
        new Basket(['a' => ['z' => new Bid(1, 1)]], []);
    }

    private function offer(string $price, float $duty, ?ExchangeRate $rate = null): OfferTerms
    {
        return new OfferTerms(
            1,
            1,
            BuyingRule::of(Pack::of('each', 1)),
            PriceBreaks::read($price),
            $rate ?? ExchangeRate::of('EUR', 'EUR', '1'),
            1,
            5,
            null,
            $duty,
        );
    }
}
