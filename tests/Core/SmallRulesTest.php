<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\Method\Theta;
use TallBarrel\Core\Demand\Method\Trend;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\Adjustment;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\WayDown;
use TallBarrel\Core\Settling\Tolerance;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Usage;

/** Rules of a line or two that larger tests pass by. */
final class SmallRulesTest extends TestCase
{
    /**
     * Jarque & Bera 1980: n/6 (S² + (K − 3)²/4) against 5.991. Of 64 errors, m of them ±1 and the rest 0, S is 0 and
     * K is 64/m: with 14 it comes to 6.59, with 16 to 2.67 (worked by hand).
     */
    public function testErrorsLookNormalUpToTheFivePercentPoint(): void
    {
        $errors = static fn (int $ones): array => [
            ...array_fill(0, $ones, 1.0),
            ...array_fill(0, $ones, -1.0),
            ...array_fill(0, 64 - 2 * $ones, 0.0),
        ];
        self::assertSame(Shape::Errors, Shape::fitting(100.0, 1.0, $errors(7)));
        self::assertSame(Shape::Normal, Shape::fitting(100.0, 1.0, $errors(8)));
        self::assertSame(Shape::Normal, Shape::fitting(100.0, 1.0, array_fill(0, 29, 1.0)), 'too few to speak');
        self::assertSame(Shape::Counts, Shape::fitting(3.0, 1.0, []), 'three deviations are not beyond three');
        self::assertSame(Shape::Normal, Shape::fitting(3.01, 1.0, []));
        self::assertSame(Shape::Counts, Shape::fitting(60.0, 60.0, []));
        self::assertSame(Shape::Gamma, Shape::fitting(60.1, 60.0, []));
        self::assertInstanceOf(Normal::class, Shape::Gamma->with(0.0, 1.0));
    }

    /** Hyndman & Billah 2003, equation 11: the forecasts of a straight line drift by half its slope. */
    public function testThetaDriftsByHalfTheSlopeGapsOrNot(): void
    {
        $line = array_map(static fn (int $t): float => 20.0 + 3.0 * $t, range(0, 23));
        foreach ([$line, array_replace($line, [5 => null, 11 => null])] as $demand) {
            $theta = Theta::fit($demand, Smoothing::fit($line, Trend::None, parameters: [0.3]));
            $ahead = $theta->roll($line, [23], 4)[23];
            self::assertEqualsWithDelta(1.5, $ahead[1] - $ahead[0], 1e-9);
            self::assertEqualsWithDelta(1.5, $ahead[3] - $ahead[2], 1e-9);
        }
        $flat = array_fill(0, 12, 7.0);
        $ahead = Theta::fit($flat, Smoothing::fit($flat, Trend::None, parameters: [0.3]))->roll($flat, [11], 2)[11];
        self::assertEqualsWithDelta(7.0, $ahead[1], 1e-9);
    }

    public function testMoneyCountsInTheMonthItIsOrderedOrPaid(): void
    {
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        $months = static fn (BudgetBasis $basis, ?PaymentTerms $terms): array => array_map(
            static fn (Money $money): string => (string) $money->rounded()->amount,
            $basis->months(Money::of('100', 'EUR'), $terms, $day('2026-11-20'), $day('2026-12-05'), 8.0),
        );
        self::assertSame(['2026-11' => '100.00'], $months(BudgetBasis::Ordering, PaymentTerms::net(30)));
        self::assertSame(['2026-11' => '100.00'], $months(BudgetBasis::Ordering, null));
        self::assertSame(['2026-12' => '100.00'], $months(BudgetBasis::Paying, null), 'without terms, when it comes');
        self::assertSame(['2027-01' => '100.00'], $months(BudgetBasis::Paying, PaymentTerms::net(30)));
        self::assertSame(
            ['2026-11' => '40.00', '2027-01' => '60.00'],
            $months(BudgetBasis::Paying, PaymentTerms::net(30)->withDeposit(40)),
        );
    }

    public function testAnOrderListHoldsForItsItemsAtItsSite(): void
    {
        $of = static fn (?array $listed, ?int $site): Background => new Background(
            new \DateTimeImmutable('2026-11-23 10:30'),
            PlanningOptions::usual(),
            [],
            [],
            [],
            [],
            [],
            null === $listed ? null : array_fill_keys(array_filter($listed, is_int(...)), true),
            $site,
            null,
            4.0,
            0.2,
        );
        self::assertTrue($of(null, null)->isOnList(7, 1));
        self::assertTrue($of([7], null)->isOnList(7, 1));
        self::assertFalse($of([8], null)->isOnList(7, 1));
        self::assertTrue($of([7], 1)->isOnList(7, 1));
        self::assertFalse($of([7], 2)->isOnList(7, 1), 'the item, at another site');
        self::assertFalse($of([8], 1)->isOnList(7, 1), 'another item, at the site');
        self::assertSame([0, 0, 1], [
            $of(null, null)->weeksAgo('2026-11-23'),
            $of(null, null)->weeksAgo('2026-11-16'),
            $of(null, null)->weeksAgo('2026-11-15'),
        ]);
    }

    public function testWhatIsMostPressingComesFirst(): void
    {
        $reasons = Reason::cases();
        usort($reasons, static fn (Reason $a, Reason $b): int => [$a->urgency(), $a->value] <=> [
            $b->urgency(), $b->value,
        ]);
        self::assertSame([
            Reason::Rush, Reason::Out, Reason::BelowSafetyStock, Reason::BelowMinimum, Reason::BelowReorderPoint,
            Reason::Planned, Reason::PriceRise, Reason::Asked, Reason::FillsOrder, Reason::Covered,
        ], $reasons);
        self::assertSame([0, 1, 2, 3, 3, 3, 4, 5, 6, 7], array_map(
            static fn (Reason $one): int => $one->urgency(),
            $reasons,
        ));
        self::assertSame(
            [Reason::Rush, Reason::Out, Reason::BelowSafetyStock],
            array_values(array_filter($reasons, static fn (Reason $one): bool => $one->isShort())),
        );
    }

    public function testAnAdjustmentHoldsForBegunWeeks(): void
    {
        $today = new \DateTimeImmutable('2026-11-23');
        $until = static fn (int $days, float $percent = 50.0): Adjustment => new Adjustment(
            $percent,
            $today->modify(sprintf('+%d days', $days)),
            'a fair',
        );
        self::assertSame([1.5, 0.75, 1.0], [
            $until(1)->factor(), $until(1, -25.0)->factor(), $until(1, 0.0)->factor(),
        ]);
        self::assertSame([0, 1, 1, 2], [
            $until(0)->weeksFrom($today), $until(1)->weeksFrom($today), $until(7)->weeksFrom($today),
            $until(8)->weeksFrom($today),
        ]);
    }

    /**
     * Ten each review: 500 places from the level of 5,000 down, as often at each; what lies beyond 1,500 steps is put
     * together, and is as far down on average.
     */
    public function testALongWayDownHasAsManyPlacesAsItTakesReviews(): void
    {
        foreach ([300, 1500, 5000, 20_000] as $lot) {
            $way = WayDown::of(Counts::of([...array_fill(0, 10, 0.0), 1.0]), (float) $lot);
            $often = array_sum(array_column($way->places, 1));
            self::assertEqualsWithDelta($lot / 10, $often, 1.0, $lot.' down');
            self::assertEqualsWithDelta(
                ($lot - 10) / 2,
                $way->mean(static fn (float $below): float => $below),
                0.02 * $lot,
                $lot.' down',
            );
            self::assertLessThanOrEqual(100, count($way->places));
        }
        $none = WayDown::of(Counts::of([1.0]), 50.0);
        self::assertSame([[0.0, 1.0]], $none->places, 'where nothing is wanted it stays at the level');
    }

    public function testATaxIsReadToTwoDecimals(): void
    {
        $point = Numerals::with(Numerals::POINT);
        self::assertSame('13.25 %', Tax::read('13.25 %', $point)->words());
        self::assertSame('100 %', Tax::read('100', $point)->words());
        foreach (['13.255', '100.5', 'much'] as $typed) {
            try {
                Tax::read($typed, $point);
                self::fail($typed.' was read.');
            } catch (InvalidValue $refused) {
                self::assertNotSame('', $refused->getMessage());
            }
        }
    }

    public function testATaxIsNamedByItsRateOrWhyThereIsNone(): void
    {
        self::assertSame('23 %', Tax::percent('23.00')->words());
        self::assertSame('13.5 %', Tax::percent('13.50')->words());
        self::assertSame(TaxCategory::ReverseCharge->words(), Tax::of(TaxCategory::ReverseCharge)->words());
        self::assertSame(TaxCategory::ZeroRated->words(), Tax::percent(0)->words());
    }

    /** 20 % is the most; of 10.00 at 5 %, 0.50 may be more, and 3.00 a line. */
    public function testATolerancePassesUpToBothOfItsLimits(): void
    {
        self::assertSame('20', (string) Tolerance::of(20, 0)->percent);
        $allows = static fn (string $asked, int $packs): bool => Tolerance::of(5, 3)
            ->allows(BigDecimal::of('10.00'), BigDecimal::of($asked), BigDecimal::of($packs));
        self::assertSame(
            [true, true, false, true, false, true],
            [$allows('9', 100), $allows('10.50', 6), $allows('10.51', 1), $allows('10.03', 100),
                $allows('10.03', 101), $allows('10.00', 1_000_000)],
        );
        foreach ([['20.01', '0'], ['-0.01', '0'], ['1', '-0.01']] as [$percent, $amount]) {
            try {
                Tolerance::of($percent, $amount);
                self::fail(sprintf('%s %% and %s went through.', $percent, $amount));
            } catch (InvalidValue $refused) {
                self::assertStringContainsString('expected', $refused->getMessage());
            }
        }
    }

    public function testWhatIsUsedLastsAndIsMissedAtItsMargin(): void
    {
        $said = static fn (Usage $usage): array => [$usage->perDay, $usage->daysUntilOut, $usage->margin];
        self::assertSame([4.0, 2.5, 3.0], $said(Usage::of(4.0, 10.0, 8.0, 5.0)));
        self::assertSame([4.0, 0.0, 0.0], $said(Usage::of(4.0, -2.0, 5.0, 8.0)), 'owed already, sold below cost');
        self::assertSame([0.0, null, 0.0], $said(Usage::of(0.0, 10.0, null, 5.0)));
        self::assertSame([4.0, 2.5, 0.0], $said(Usage::of(4.0, 10.0, 8.0, null)));
        self::assertSame([1.0, 2.5, 3.0], $said(Usage::of(4.0, 10.0, 8.0, 5.0)->ofPart(0.25)));
    }

    /** A case of 12 at 24.00 and from ten at 18.00, in a currency of which one of ours buys 1.20. */
    public function testAnOffersPricesByTheUnitAtHome(): void
    {
        $offer = new OfferTerms(
            1,
            1,
            BuyingRule::of(Pack::of('case', 12), 1, 1),
            PriceBreaks::read('1=24.00 10=18.00'),
            ExchangeRate::of('EUR', 'USD', '1.2'),
            1,
            7,
        );
        [[$from, $price], [$second, $lower]] = $offer->unitBreaks();
        self::assertEqualsWithDelta([12.0, 20 / 12, 120.0, 15 / 12], [$from, $price, $second, $lower], 1e-9);
        self::assertSame(['1.666667', '1.250000'], [(string) $offer->unitCost(108), (string) $offer->unitCost(109)]);
    }

    public function testStepsOfFreightAreReadToTheGramAndUpToAThousandTonnes(): void
    {
        self::assertSame([[0.0, 9.125], [0.125, 10.0]], FreightTariff::readSteps('0=9.125 0.125=10')->steps);
        self::assertSame(999_999.0, FreightTariff::readSteps('0=9 999999=45')->steps[1][0]);
        foreach (['0=9 1000000=45', '0=9 0.1234=10', '0=9.1234', '0=10000000'] as $typed) {
            try {
                FreightTariff::readSteps($typed);
                self::fail($typed.' was read.');
            } catch (InvalidValue $refused) {
                self::assertNotSame('', $refused->getMessage());
            }
        }
    }

    public function testADiscountIsReadToFourDecimalsAndUpToAllOfIt(): void
    {
        $point = Numerals::with(Numerals::POINT);
        $read = static fn (string $typed): string => PriceDiscount::read($typed, $point)->words();
        self::assertSame(
            ['12.3456 %', '100 %', '0.2', '', ''],
            array_map($read, ['12.3456 %', ' 100%', '0.20', '', '0 %']),
        );
        foreach (['100.5 %', '12.34567 %', '-1 %', '-0.20'] as $typed) {
            try {
                $read($typed);
                self::fail($typed.' was read.');
            } catch (InvalidValue $refused) {
                self::assertNotSame('', $refused->getMessage());
            }
        }
    }

    /** Hyndman & Billah 2003, equation 10: the drift of half the slope b counts (1 − (1 − α)ⁿ) / α steps before. */
    public function testThetaStandsAsFarAheadOfSmoothingAsItLags(): void
    {
        $line = array_map(static fn (int $t): float => 20.0 + 3.0 * $t, range(0, 23));
        $level = $line[0];
        for ($t = 1; $t < 23; ++$t) {
            $level += 0.3 * ($line[$t] - $level);
        }
        $ahead = Theta::fit($line, Smoothing::fit($line, Trend::None, parameters: [0.3]))->roll($line, [23], 2)[23];
        self::assertEqualsWithDelta($level + 1.5 * (1 - 0.7 ** 23) / 0.3, $ahead[0], 1e-9);
    }
}
