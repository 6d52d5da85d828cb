<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\BasketDraft;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/** Small baskets whose award can be reckoned on paper; freight by its tariff; what is asked in parts. */
final class AwardByHandTest extends TestCase
{
    /** Jars are cheaper at x by 4, lids at y by 3; each order of y carries freight of 10. */
    private static function basket(?Bidder $x = null, ?Bidder $y = null): Basket
    {
        return new Basket(
            [
                'jars' => ['x' => new Bid(100.0, 100.0, 50.0, 5.0), 'y' => new Bid(104.0, 104.0, 50.0, 5.0)],
                'lids' => ['x' => new Bid(43.0, 43.0, 4.0, 2.0), 'y' => new Bid(40.0, 40.0, 4.0, 2.0)],
                'corks' => [],
            ],
            [
                'x' => $x ?? new Bidder(FreightTariff::none(), OrderMinimum::none()),
                'y' => $y ?? new Bidder(FreightTariff::flat(10), OrderMinimum::none()),
            ],
        );
    }

    public function testOneOrderIsCheaperThanTwoWithFreight(): void
    {
        $best = self::basket()->best();
        self::assertSame(['jars' => 'x', 'lids' => 'x'], $best->chosen);
        self::assertSame([143.0, ['corks'], true], [$best->cost(), $best->unmet, $best->isAllowed()]);
        self::assertTrue($best->isProvenBest());
        $each = self::basket()->cheapestLineByLine();
        self::assertSame(['jars' => 'x', 'lids' => 'y'], $each->chosen);
        self::assertSame(150.0, $each->cost());
        self::assertFalse($each->isProvenBest());
        self::assertSame(154.0, self::basket()->allFrom('y')->cost());
        self::assertSame(150.0, self::basket()->valued(['jars' => 'x', 'lids' => 'y', 'corks' => 'x'])->cost());
    }

    /** By hand: freight of 2 makes two orders 142, one less than x alone. */
    public function testFreightInAnotherCurrencyAndItsDutyCount(): void
    {
        $cheap = new Bidder(FreightTariff::flat(2), OrderMinimum::none());
        self::assertSame(142.0, self::basket(y: $cheap)->best()->cost());
        $abroad = new Bidder(FreightTariff::flat(2), OrderMinimum::none(), homeForOne: 0.5, freightFactor: 1.1);
        self::assertEqualsWithDelta(141.1, self::basket(y: $abroad)->best()->cost(), 1e-9);
        $dearOrder = new Bidder(FreightTariff::flat(2), OrderMinimum::none(), orderCost: 1.5);
        self::assertSame(143.0, self::basket(y: $dearOrder)->best()->cost(), 'an order costs, too');
    }

    public function testAMinimumIsKeptWhereItCanBeAndNamedWhereItCannot(): void
    {
        $small = self::basket(new Bidder(FreightTariff::none(), OrderMinimum::of(144.0)));
        self::assertSame(['jars' => 'y', 'lids' => 'y'], $small->best()->chosen, 'x is a euro short');
        self::assertSame(154.0, $small->best()->cost());
        $both = self::basket(
            new Bidder(FreightTariff::none(), OrderMinimum::of(144.0)),
            new Bidder(FreightTariff::none(), OrderMinimum::of(null, 55.0)),
        )->best();
        self::assertFalse($both->isAllowed());
        self::assertSame(['1 short of their minimum of 144 in goods'], array_column(
            array_filter([$both->shares['x'] ?? null, $both->shares['y'] ?? null]),
            'short',
        ));
        $reached = self::basket(new Bidder(FreightTariff::none(), OrderMinimum::of(143.0, 54.0, 7.0)));
        self::assertSame(143.0, $reached->best()->cost());
    }

    public function testNobodySuppliesMoreThanTheyCan(): void
    {
        $limited = static fn (float $capacity): Basket => self::basket(
            new Bidder(FreightTariff::none(), OrderMinimum::none(), capacity: $capacity),
        );
        self::assertSame(143.0, $limited(143.0)->best()->cost());
        self::assertSame(150.0, $limited(142.9)->best()->cost(), 'x the jars, y the lids');
        $short = $limited(142.0)->allFrom('x')->shares['x']->short;
        self::assertSame('1 more than the 142 they can supply', $short);
    }

    public function testAPersonsWishesComeFirst(): void
    {
        self::assertSame('y', self::basket()->wished(['jars' => 'y'], [])->best()->chosen['jars']);
        self::assertSame(['jars' => 'y', 'lids' => 'y'], self::basket()->wished([], ['x'])->best()->chosen);
        $unmet = self::basket()->wished([], ['x', 'y'])->best();
        self::assertSame([[], ['jars', 'lids', 'corks']], [$unmet->chosen, $unmet->unmet]);
        $stranger = self::basket()->wished(['jars' => 'z'], [])->best();
        self::assertSame('x', $stranger->chosen['jars'], 'nobody of that name');
    }

    /** @return iterable<string, array{Bid, string, string}> */
    public static function wrong(): iterable
    {
        yield 'a stranger' => [new Bid(1.0, 1.0), 'z', 'a bid of “z”, who is not among the suppliers'];
        yield 'goods below nothing' => [new Bid(1.0, -1.0), 'x', 'is below zero or no number'];
        yield 'weight below nothing' => [new Bid(1.0, 1.0, -1.0), 'x', 'is below zero or no number'];
        yield 'packs below nothing' => [new Bid(1.0, 1.0, 1.0, -1.0), 'x', 'is below zero or no number'];
        yield 'a cost without end' => [new Bid(\INF, 1.0), 'x', 'is below zero or no number'];
    }

    #[DataProvider('wrong')]
    public function testWhatIsNoBidIsRefused(Bid $bid, string $supplier, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        new Basket(['jars' => [$supplier => $bid]], [
            'x' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
        ]);
    }

    private static function draft(): BasketDraft
    {
        $draft = new BasketDraft(new CostRates(0, 0, 0), 2.0, new \DateTimeImmutable('2027-01-04'));
        $draft->line('corks');
        $offer = static fn (int $id, string $prices, int $content, int $multiple = 1): OfferTerms => new OfferTerms(
            $id,
            1,
            BuyingRule::of(Pack::of('case', $content), 1, $multiple),
            PriceBreaks::read($prices),
            ExchangeRate::of('EUR', 'USD', '2'),
            1,
            5,
            null,
            10.0,
            0.5,
        );
        $seller = new Seller(1, 'S', null, null, FreightTariff::flat(30), OrderMinimum::none());
        $ask = static fn (OfferTerms $terms): mixed => $draft->ask(
            'jars',
            's',
            $terms,
            $seller,
            BigDecimal::of(90),
            new Usage(1.0, null, 0.0),
        );
        self::assertNotNull($ask($offer(7, '1=20 5=16', 12)));
        self::assertNull($ask($offer(8, '1=20', 12)), 'dearer than what they ask already');

        return $draft;
    }

    /**
     * By hand: 90 need 8 cases of 12 at 16.00 of theirs, which are 64.00 of ours, with a tenth of duty 70.40; they
     * weigh 48 kg. One of freight, ours, comes to 1.10 with duty.
     */
    public function testAnOfferBecomesABid(): void
    {
        $draft = self::draft();
        $basket = $draft->basket();
        $bid = $basket->lines['jars']['s'];
        self::assertEqualsWithDelta([70.4, 128.0, 48.0, 8.0], [$bid->cost, ...$bid->uses()], 1e-9);
        self::assertSame([], $basket->lines['corks']);
        $bidder = $basket->suppliers['s'];
        self::assertEqualsWithDelta([0.5, 2.0, 1.1], [$bidder->homeForOne, $bidder->orderCost, $bidder->freightFactor],
            1e-9);
        self::assertEqualsWithDelta(2.0 + 30 * 0.5 * 1.1, $basket->orderCost('s', $bid->uses()), 1e-9);
        self::assertSame(0.0, $basket->orderCost('s', [0.0, 0.0, 0.0]));
        self::assertSame([90.0, 0.0], [$draft->units('jars'), $draft->units('corks')]);
    }

    public function testNoPartIsSmallerThanWhatTheySell(): void
    {
        $draft = new BasketDraft(new CostRates(0, 0, 0), 2.0, new \DateTimeImmutable('2027-01-04'));
        $pallet = new OfferTerms(
            9,
            1,
            BuyingRule::of(Pack::of('pallet', 100)),
            PriceBreaks::read('20'),
            ExchangeRate::of('EUR', 'USD', '2'),
            1,
            5,
        );
        $seller = new Seller(1, 'S', null, null, FreightTariff::none(), OrderMinimum::none());
        $draft->line('jars');
        $draft->ask('jars', 's', $pallet, $seller, BigDecimal::of(90), new Usage(1.0, null, 0.0));
        self::assertSame([], $draft->steps('jars', 's'), 'none of 90 is a whole pallet of 100');
    }

    /** By hand: 24 are two cases at 20.00 of theirs; a break begins at 5 × 12, whole cases up to 84. */
    public function testAPartOfALineIsAskedByItself(): void
    {
        $draft = self::draft();
        $part = $draft->part('jars', 's', 24.0);
        self::assertNotNull($part);
        self::assertEqualsWithDelta([22.0, 40.0, 12.0, 2.0], [$part->cost, ...$part->uses()], 1e-9);
        self::assertSame([12.0, 60.0, 84.0], $draft->steps('jars', 's'));
        self::assertNull($draft->part('jars', 's', 0.0));
        self::assertNull($draft->part('jars', 'nobody', 24.0));
        self::assertSame([], $draft->steps('corks', 's'));
    }

    /** @return iterable<string, array{FreightTariff, float, float, float}> */
    public static function orders(): iterable
    {
        $weight = FreightTariff::readSteps('0=9 30=18 100=45');
        yield 'nothing ordered' => [$weight, 0.0, 0.0, 0.0];
        yield 'light' => [$weight, 50.0, 29.9, 9.0];
        yield 'at a step' => [$weight, 50.0, 30.0, 18.0];
        yield 'heavy' => [$weight, 50.0, 5000.0, 45.0];
        yield 'goods of no weight' => [$weight, 50.0, 0.0, 9.0];
        $pallet = FreightTariff::byPallet(60.0, 400.0, 900.0);
        yield 'a part of a pallet' => [$pallet, 50.0, 1.0, 60.0];
        yield 'just one' => [$pallet, 50.0, 400.0, 60.0];
        yield 'a little more' => [$pallet, 50.0, 400.1, 120.0];
        yield 'nearly free' => [$pallet, 899.99, 400.0, 60.0];
        yield 'free' => [$pallet, 900.0, 4000.0, 0.0];
        yield 'flat' => [FreightTariff::flat(12.5), 1.0, 0.0, 12.5];
        yield 'none' => [FreightTariff::none(), 50.0, 90.0, 0.0];
    }

    #[DataProvider('orders')]
    public function testFreightByItsTariff(FreightTariff $tariff, float $value, float $kilograms, float $cost): void
    {
        self::assertSame($cost, $tariff->of($value, $kilograms));
    }

    public function testWhatAnOrderLacksOfTheirMinimum(): void
    {
        $minimum = OrderMinimum::of(500.0, 100.0, 10.0);
        self::assertNull($minimum->shortfall(500.0, 100.0, 10.0));
        self::assertSame('1 short of their minimum of 500 in goods', $minimum->shortfall(499.5, 100.0, 10.0));
        self::assertSame('20 short of their minimum of 100 kg', $minimum->shortfall(500.0, 80.0, 1.0));
        self::assertSame('9 short of their minimum of 10 packs', $minimum->shortfall(500.0, 100.0, 1.0));
        self::assertNull(OrderMinimum::of(0.0, 0.0, 0.0)->value, 'a minimum of nothing is none');
        $this->expectException(InvalidValue::class);
        OrderMinimum::of(10.0, -1.0);
    }
}
