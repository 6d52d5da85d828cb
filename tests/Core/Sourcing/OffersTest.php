<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\NestedPacks;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\AgreementPace;
use TallBarrel\Core\Sourcing\AgreementState;
use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\Comparison;
use TallBarrel\Core\Sourcing\CostPart;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\Incoterm;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/** What an offer says, and what one landed unit of it costs. Arithmetic is worked out beside each figure. */
final class OffersTest extends TestCase
{
    private const TODAY = '2026-11-23';

    public function testABreakLowersAllOfTheQuantityOrOnlyWhatGoesBeyondIt(): void
    {
        $steps = [[1, '10'], [10, '9'], [30, '8']];
        $all = PriceBreaks::of($steps);
        $beyond = PriceBreaks::of($steps, BreakKind::Incremental);
        self::assertSame('320', (string) $all->costOf(40));
        // 10 at 10, 20 at 9, 10 at 8.
        self::assertSame('360', (string) $beyond->costOf(40));
        self::assertSame('9', (string) $beyond->priceFor(40));
        self::assertSame('90', (string) $beyond->costOf(9));
        // Never cheaper than all-units, and never falling in total (an all-units total does fall at a break).
        $before = BigDecimal::zero();
        for ($packs = 1; $packs <= 60; ++$packs) {
            self::assertTrue($beyond->costOf($packs)->isGreaterThanOrEqualTo($all->costOf($packs)));
            self::assertTrue($beyond->costOf($packs)->isGreaterThan($before));
            $before = $beyond->costOf($packs);
        }
        self::assertTrue($all->costOf(30)->isLessThan($all->costOf(29)));
    }

    public function testABreakByValueStartsWhereTheListPriceReachesIt(): void
    {
        $prices = PriceBreaks::of([[0, '5'], [500, '4.80']], BreakKind::AllUnits, BreakBasis::Value);
        self::assertSame(['5', '4.80'], [(string) $prices->priceFor(99), (string) $prices->priceFor(100)]);
        self::assertSame('4.56', (string) $prices->after(ChainedDiscounts::read('5'))->priceFor(100));
    }

    public function testOnePriceChangesAndTheOtherStepsStay(): void
    {
        $changed = PriceBreaks::read('1=10 10=9 30=8')->withPriceAt(12, BigDecimal::of('8.50'));
        self::assertSame(
            ['10', '8.50', '8'],
            [(string) $changed->priceFor(1), (string) $changed->priceFor(12), (string) $changed->priceFor(30)],
        );
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('From 30 on the price rises from 7 to 8');
        $changed->withPriceAt(12, BigDecimal::of(7));
    }

    public function testDiscountsAreTakenOneAfterTheOther(): void
    {
        self::assertSame('0.855', (string) ChainedDiscounts::read('10 + 5')->factor());
        self::assertSame('10 + 5', ChainedDiscounts::read('10%+5,0')->label());
        self::assertSame('1', (string) ChainedDiscounts::read('')->factor());
    }

    /** @return iterable<string, array{callable(): mixed, string}> */
    public static function nonsense(): iterable
    {
        yield 'two prices at one place' => [
            static fn (): PriceBreaks => PriceBreaks::read('40=8 40=7'),
            'Two prices both start at 40',
        ];
        yield 'a break that rises' => [
            static fn (): PriceBreaks => PriceBreaks::read('1=8 40=9'),
            'From 40 on the price rises from 8 to 9',
        ];
        yield 'no price' => [static fn (): PriceBreaks => PriceBreaks::read('about eight'), '“about” is not a price'];
        yield 'a discount of everything' => [
            static fn (): ChainedDiscounts => ChainedDiscounts::read('100'),
            '“100” is not a discount',
        ];
        yield 'a pack that contains itself' => [
            static fn (): NestedPacks => NestedPacks::read(Pack::of('case', 12), 'layer=8 case=6'),
            'A case cannot contain a case',
        ];
        yield 'units that do not convert' => [
            static fn (): BigDecimal => Unit::Kilogram->amountOf(BigDecimal::of(5), Unit::Litre),
            'LTR cannot be converted to KGM',
        ];
        yield 'no such rule' => [
            static fn (): array => Incoterm::read('DDU Larkmoor'),
            '“DDU” is no rule of Incoterms 2020',
        ];
        yield 'freight that falls' => [
            static fn (): FreightTariff => FreightTariff::readSteps('0=18 30=9'),
            'must start later and cost no less',
        ];
        yield 'freight without a beginning' => [
            static fn (): FreightTariff => FreightTariff::readSteps('30=9'),
            'a first step from 0 kg',
        ];
        yield 'instalments of too much' => [
            static fn (): PaymentTerms => PaymentTerms::net(30)->withDeposit(30)->inInstalments('50@30 50@60'),
            'come to 130 %',
        ];
    }

    /** @param callable(): mixed $make */
    #[DataProvider('nonsense')]
    public function testNonsenseIsRefusedByName(callable $make, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        $make();
    }

    public function testPacksOfPacks(): void
    {
        $packs = NestedPacks::read(Pack::of('case', 12), 'layer=8 pallet=6');
        self::assertSame('case × 12, layer × 96, pallet × 576', $packs->label());
    }

    public function testUnitFactorsAreExact(): void
    {
        // NIST SP 811: 1 lb = 0.45359237 kg.
        self::assertSame('22.679619', (string) Unit::Kilogram->amountOf(BigDecimal::of(50), Unit::Pound));
        self::assertSame('48', (string) Unit::Each->amountOf(BigDecimal::of(4), Unit::Dozen));
    }

    public function testFreightByWeightByPalletAndFree(): void
    {
        $steps = FreightTariff::readSteps('0=9 30=18 100=45', 400.0);
        self::assertSame(
            [9.0, 9.0, 18.0, 45.0, 0.0],
            [$steps->of(10, 0), $steps->of(10, 29.9), $steps->of(10, 30), $steps->of(10, 500), $steps->of(400, 500)],
        );
        $pallets = FreightTariff::byPallet(35, 600);
        self::assertSame([35.0, 35.0, 70.0], [$pallets->of(1, 1), $pallets->of(1, 600), $pallets->of(1, 600.5)]);
        self::assertSame(0.0, $pallets->of(0, 0));
        // The cheapest tier an order may choose is the tariff, for any order.
        foreach ([$steps, $pallets, FreightTariff::flat(12, 100)] as $tariff) {
            foreach (
                [[50.0, 5.0], [50.0, 29.0], [50.0, 31.0], [120.0, 650.0], [450.0, 1300.0]] as [$value, $kilograms]
            ) {
                $allowed = array_filter(
                    $tariff->tiers(2000),
                    static fn (array $tier): bool => (null === $tier['valueFrom'] || $value >= $tier['valueFrom'])
                        && (null === $tier['kgUpTo'] || $kilograms <= $tier['kgUpTo']),
                );
                self::assertSame($tariff->of($value, $kilograms), min([\INF, ...array_column($allowed, 'cost')]));
            }
        }
    }

    /**
     * Source: checks of cash discount, any text on trade credit: 2/10 net 30 is 2/98 × 365/20 simple, (100/98)^(365/20)
     * − 1 compounded.
     */
    public function testTheCashDiscountsYearlyWorth(): void
    {
        $terms = PaymentTerms::net(30, 2, 10);
        self::assertSame('37.24', (string) $terms->yearlyWorthPercent());
        self::assertEqualsWithDelta(44.59, $terms->yearlyWorthCompoundedPercent(), 0.005);
    }

    public function testWhatTermsAreWorth(): void
    {
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        $worth = static fn (PaymentTerms $terms): float => $terms->worth($day('2026-11-01'), $day('2026-11-11'), 7.3);
        // 7.3 % a year is 0.02 % a day.
        self::assertEqualsWithDelta(60 * 0.0002, $worth(PaymentTerms::net(60)), 1e-12);
        self::assertEqualsWithDelta(0.02 + 0.98 * 10 * 0.0002, $worth(PaymentTerms::net(30, 2, 10)), 1e-12);
        // From 11 Nov to the month's end are 19 days.
        self::assertEqualsWithDelta((19 + 30) * 0.0002, $worth(PaymentTerms::net(30)->fromEndOfMonth()), 1e-12);
        self::assertEqualsWithDelta(
            -0.3 * 10 * 0.0002 + 0.7 * 30 * 0.0002,
            $worth(PaymentTerms::net(30)->withDeposit(30)),
            1e-12,
        );
        self::assertEqualsWithDelta(
            0.5 * 30 * 0.0002 + 0.5 * 60 * 0.0002,
            $worth(PaymentTerms::net(60)->inInstalments('50@30 50@60')),
            1e-12,
        );
        self::assertSame(
            '30 % when ordering, 35 % after 30 d, 35 % after 60 d',
            PaymentTerms::net(60)->withDeposit(30)->inInstalments('35@30 35@60')->label(),
        );
    }

    public function testALandedCostAddsUpFromItsParts(): void
    {
        // 100 pieces at 2 USD, 1.25 USD to 1 EUR: 160 EUR. Freight 25 USD: 20 EUR. Duty 5 % of 180: 9. The bank: 0.5 %
        // of
        // 180: 0.90. Net 30 at 7.3 %: 0.6 % of 180: −1.08. Lasts 20 days at 5 a day, half is 10: 18.25 % of 189 ×
        // 10/365: 0.945.
        // Stock lasts 6 days; deliveries took 5 and 9, promised 7: late 0, 3, 1, on average 4/3 days × 5 × margin 3:
        // 20.
        $cost = LandedCost::of(
            self::offer('2', 'USD', '1.25', duty: 5.0, lead: 7),
            self::seller(PaymentTerms::net(30), FreightTariff::flat(25), [5, 9]),
            100,
            new Usage(5.0, 6.0, 3.0),
            new CostRates(7.3, 18.25, 0.5),
            new \DateTimeImmutable(self::TODAY),
        );
        $expected = [
            'price' => 160.0,
            'freight' => 20.0,
            'duty' => 9.0,
            'currency' => 0.9,
            'terms' => -1.08,
            'holding' => 0.945,
            'late' => 20.0,
        ];
        foreach ($expected as $part => $amount) {
            self::assertEqualsWithDelta($amount, $cost->part(CostPart::from($part)), 1e-9, $part);
        }
        self::assertEqualsWithDelta(209.765, $cost->total(), 1e-9);
        self::assertEqualsWithDelta(2.09765, $cost->unit(), 1e-12);
        self::assertSame(
            '1.3 days without, expected, of 2 deliveries and the promise',
            $cost->words(CostPart::Late),
        );
        $lasting = LandedCost::of(
            self::offer('2'),
            self::seller(null, FreightTariff::none()),
            100,
            new Usage(0.0, null, 3.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable(self::TODAY),
        );
        self::assertSame(0.0, $lasting->part(CostPart::Late));
        self::assertSame('it does not run out', $lasting->words(CostPart::Late));
        self::assertSame('no terms known', $lasting->words(CostPart::Terms));
    }

    /** By hand: freight of 20.00 that came to half as much again is 30.00; duty of 5 % is of 190.00 then. */
    public function testFreightIsReckonedAsItCameTo(): void
    {
        $cost = LandedCost::of(
            self::offer('2', 'USD', '1.25', duty: 5.0, lead: 7),
            self::seller(PaymentTerms::net(30), FreightTariff::flat(25), [])->whoseFreightCameTo(1.5),
            100,
            new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable(self::TODAY),
        );
        self::assertEqualsWithDelta([160.0, 30.0, 9.5], array_map($cost->part(...), [
            CostPart::Price, CostPart::Freight, CostPart::Duty,
        ]), 1e-9);
        self::assertSame(
            'of this order alone, 1.50 times the tariff, as it came to before',
            $cost->words(CostPart::Freight),
        );
        $other = $cost->seller->withFreight(FreightTariff::flat(10));
        self::assertSame(1.5, $other->freightCame, 'whatever the tariff');
    }

    public function testDutyPaidBySellerAndFreightSharedByValue(): void
    {
        $seller = new Seller(
            1,
            'S',
            null,
            Incoterm::DeliveredDutyPaid,
            FreightTariff::flat(30),
            OrderMinimum::of(500.0),
        );
        $cost = LandedCost::of(
            self::offer('1', duty: 8.0),
            $seller,
            100,
            new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable(self::TODAY),
            new Alongside(200.0),
        );
        self::assertSame([10.0, 0.0], [round($cost->part(CostPart::Freight), 9), $cost->part(CostPart::Duty)]);
        self::assertSame('200 short of their minimum of 500 in goods', $cost->short);
    }

    public function testAComparisonPutsTheCheapestFirstAndWhatMissesAMinimumLast(): void
    {
        $cheapButSmall = [
            self::offer('0.90', id: 1),
            new Seller(1, 'A', null, null, FreightTariff::none(), OrderMinimum::of(1000.0)),
            new Alongside(),
        ];
        $middle = [
            self::offer('1.00', id: 2),
            new Seller(2, 'B', null, null, FreightTariff::none(), OrderMinimum::none()),
            new Alongside(),
        ];
        $dear = [
            self::offer('1.10', id: 3),
            new Seller(3, 'C', null, null, FreightTariff::none(), OrderMinimum::none()),
            new Alongside(),
        ];
        $costs = self::comparison([$dear, $cheapButSmall, $middle])->at(100);
        self::assertSame([2, 3, 1], array_map(static fn (LandedCost $cost): int => $cost->offer->id, $costs));
    }

    public function testASplitIsOfferedOnlyWhereTwoOrdersCostLess(): void
    {
        // A gives 100 at 0.50 and no more at that price: beyond it costs 2. B asks 1 throughout.
        $first = [
            new OfferTerms(
                1,
                1,
                BuyingRule::of(Pack::of('each', 1), 1, 100),
                PriceBreaks::of([[1, '0.5']]),
                ExchangeRate::of('EUR', 'EUR', 1),
                1,
                5,
            ),
            self::seller(null, FreightTariff::none()),
            new Alongside(),
        ];
        $second = [
            self::offer('1', id: 2),
            new Seller(2, 'B', null, null, FreightTariff::none(), OrderMinimum::none()),
            new Alongside(),
        ];
        // 150: two hundreds of A are 100; 100 of A and 50 of B are 100 too; nothing to gain.
        self::assertNull(self::comparison([$first, $second])->split(150));
        // 110: two hundreds of A are 100, all from B 110; 100 of A and 10 of B are 60.
        $split = self::comparison([$first, $second])->split(110);
        self::assertNotNull($split);
        self::assertSame([100.0, 10.0], [$split[0]->units, $split[1]->units]);
        self::assertEqualsWithDelta(40.0, $split[2], 1e-9);
    }

    public function testCurvesComeFromTheSameSumAndBreakWhereAPriceBegins(): void
    {
        $bid = [
            new OfferTerms(
                7,
                1,
                BuyingRule::of(Pack::of('case', 12), 2),
                PriceBreaks::of([[1, '12'], [10, '9']]),
                ExchangeRate::of('EUR', 'EUR', 1),
                1,
                5,
            ),
            self::seller(null, FreightTariff::flat(24)),
            new Alongside(),
        ];
        $comparison = self::comparison([$bid]);
        $curves = $comparison->curves(1, 600)[7];
        self::assertCount(2, $curves);
        self::assertSame([24.0, 2.0], $curves[0][0]);
        self::assertSame(120.0, $curves[1][0][0]);
        foreach ($curves as $stretch) {
            foreach ($stretch as [$units, $unit]) {
                self::assertEqualsWithDelta($comparison->at((string) $units)[0]->unit(), $unit, 1e-12);
            }
        }
    }

    public function testAnAgreementsPace(): void
    {
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        // 1,000 over 100 days; after 50 days 500 are due.
        $pace = static fn (float $drawn, string $today = '2026-02-20'): AgreementPace => AgreementPace::of(
            1000,
            10,
            $day('2026-01-01'),
            $day('2026-04-10'),
            $drawn,
            $day($today),
        );
        self::assertSame([AgreementState::OnPace, 500.0], [$pace(480)->state, $pace(480)->due]);
        self::assertSame(
            [AgreementState::Behind, AgreementState::NearlyUsed, AgreementState::UsedUp],
            [$pace(300)->state, $pace(920)->state, $pace(1000)->state],
        );
        // 700 in 50 days is 14 a day: the 300 left last 21 days, to 13 March; 20 % ahead of the even pace.
        self::assertSame(
            [AgreementState::Ahead, '2026-03-13'],
            [$pace(700)->state, $pace(700)->usedUpOn?->format('Y-m-d')],
        );
        self::assertNull($pace(480)->usedUpOn);
        self::assertSame(
            [AgreementState::NotBegun, AgreementState::Ended, AgreementState::EndsSoon],
            [$pace(0, '2025-12-31')->state, $pace(0, '2026-04-11')->state, $pace(880, '2026-04-01')->state],
        );
        // 900 is enough with the tolerance: 420 more in 50 days.
        self::assertEqualsWithDelta((420 / 50) * 7, $pace(480)->perWeek, 1e-9);
        self::assertSame([520.0, 620.0], [$pace(480)->left(), round($pace(480)->room(), 9)]);
    }

    /** Each measure of a minimum counts what is on the order already, and what lies exactly on it reaches it. */
    #[TestWith([10.0, null, null, 0.0, 0.0, 0.0, null])]
    #[TestWith([11.0, null, null, 1.0, 0.0, 0.0, null])]
    #[TestWith([12.0, null, null, 1.0, 0.0, 0.0, '1 short of their minimum of 12 in goods'])]
    #[TestWith([null, 30.0, null, 0.0, 30.0, 0.0, null])]
    #[TestWith([null, 30.0, null, 0.0, 28.0, 0.0, '2 short of their minimum of 30 kg'])]
    #[TestWith([null, null, 9.0, 0.0, 0.0, 4.0, null])]
    #[TestWith([null, null, 9.0, 0.0, 0.0, 3.0, '1 short of their minimum of 9 packs'])]
    public function testWhatIsAlongsideCountsTowardsAMinimum(
        ?float $value,
        ?float $kilograms,
        ?float $packs,
        float $goods,
        float $weight,
        float $others,
        ?string $short,
    ): void {
        $cost = LandedCost::of(
            self::offer('2.00'),
            new Seller(1, 'A', null, null, FreightTariff::none(), OrderMinimum::of($value, $kilograms, $packs), []),
            5,
            new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable(self::TODAY),
            new Alongside($goods, $weight, $others),
        );
        self::assertSame($short, $cost->short, 'five at 2.00, without weight');
    }

    /** @param list<array{OfferTerms, Seller, Alongside}> $bids */
    private static function comparison(array $bids): Comparison
    {
        return new Comparison(
            $bids,
            new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0),
            new \DateTimeImmutable(self::TODAY),
        );
    }

    private static function offer(
        string $price,
        string $currency = 'EUR',
        string $rate = '1',
        float $duty = 0.0,
        int $lead = 5,
        int $id = 1,
    ): OfferTerms {
        return new OfferTerms(
            $id,
            $id,
            BuyingRule::of(Pack::of('each', 1)),
            PriceBreaks::of([[1, $price]]),
            ExchangeRate::of('EUR', $currency, $rate),
            1,
            $lead,
            null,
            $duty,
        );
    }

    /** @param list<int> $met */
    private static function seller(?PaymentTerms $terms, FreightTariff $freight, array $met = []): Seller
    {
        return new Seller(1, 'A', $terms, null, $freight, OrderMinimum::none(), $met);
    }
}
