<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Core\Receiving\Severity;
use TallBarrel\Core\Replenish\BudgetCut;
use TallBarrel\Core\Replenish\BudgetLimit;
use TallBarrel\Core\Replenish\BudgetLine;
use TallBarrel\Core\Replenish\DynamicLots;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\FillStep;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\SupplierOrder;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\AgreedScope;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\OrderMinimum;

/** Where a figure is just what is asked for: that is enough, and nothing beyond it is. */
final class ExactlyTest extends TestCase
{
    private static function refused(callable $act): string
    {
        try {
            $act();
        } catch (InvalidValue $refused) {
            return $refused->getMessage();
        }

        return '';
    }

    /**
     * Small samples of ISO 2859-1 (the same as MIL-STD-105E, tables II-A and II-C; memory): letters A, B and C are 2, 3
     * and 5, and 2 each under reduced inspection.
     *
     * @return \Generator<string, array{string, int, int}>
     */
    public static function smallSamples(): \Generator
    {
        yield 'A' => ['6.5', 2, 2];
        yield 'B' => ['4.0', 3, 2];
        yield 'C' => ['2.5', 5, 2];
        yield 'D' => ['1.5', 8, 3];
        yield 'E' => ['1.0', 13, 5];
        yield 'F' => ['0.65', 20, 8];
        yield 'G' => ['0.40', 32, 13];
        yield 'H' => ['0.25', 50, 20];
        yield 'J' => ['0.15', 80, 32];
        yield 'K' => ['0.10', 125, 50];
    }

    #[DataProvider('smallSamples')]
    public function testTheSmallestSampleThatAcceptsNone(string $limit, int $normal, int $reduced): void
    {
        foreach ([[Severity::Normal, $normal], [Severity::Reduced, $reduced]] as [$severity, $sample]) {
            $plan = SamplingPlan::of(2, $limit, $severity);
            self::assertSame([min(2, $sample), 0], [$plan->sample, $plan->accepted], 'no more than there are');
            $plan = SamplingPlan::of(8, $limit, $severity);
            self::assertSame([min(8, $sample), 0], [$plan->sample, $plan->accepted]);
        }
    }

    public function testADiscountOfAllIsOneAndOfMoreIsNot(): void
    {
        self::assertSame('100', (string) PriceDiscount::percent(BigDecimal::of(100))->percent);
        self::assertSame(
            'A discount of 100.01 % cannot be; expected 0 to 100.',
            self::refused(static fn () => PriceDiscount::percent(BigDecimal::of('100.01'))),
        );
        self::assertSame('0', (string) PriceDiscount::percent(BigDecimal::zero())->percent);
        self::assertNotSame('', self::refused(static fn () => PriceDiscount::percent(BigDecimal::of('-0.01'))));
        self::assertSame('0', (string) PriceDiscount::each(BigDecimal::zero())->each);
        self::assertNotSame('', self::refused(static fn () => PriceDiscount::each(BigDecimal::of('-0.01'))));
    }

    public function testAMeanOfFiftyThousandIsCountedAndNoMore(): void
    {
        self::assertEqualsWithDelta(50_000.0, Counts::poisson(50_000.0)->mean(), 1e-3);
        self::assertStringContainsString(
            'A Poisson mean of 50001 is out of range; expected 0 to 50000.',
            self::refused(static fn () => Counts::poisson(50_001.0)),
        );
        self::assertSame(0.0, Counts::poisson(0.0)->mean());
        self::assertNotSame('', self::refused(static fn () => Counts::poisson(-0.001)));
    }

    /** Γ(n) = (n − 1)!, Γ(½) = √π (Abramowitz & Stegun 1964, 6.1.6 and 6.1.8). */
    public function testTheGammaFunctionOfWholeAndHalfNumbers(): void
    {
        $factorial = 0.0;
        for ($n = 1; $n <= 30; ++$n) {
            self::assertEqualsWithDelta($factorial, Gamma::logGamma((float) $n), 1e-10 * max(1.0, $factorial));
            $factorial += log($n);
        }
        self::assertEqualsWithDelta(log(M_PI) / 2, Gamma::logGamma(0.5), 1e-12);
        self::assertEqualsWithDelta(log(sqrt(M_PI) * 15 / 8), Gamma::logGamma(3.5), 1e-12);
    }

    /** @return \Generator<string, array{AgreedKind, string, string}> */
    public static function agreedSteps(): \Generator
    {
        yield 'the same discount twice' => [AgreedKind::Discount, '10=5 20=5', ''];
        yield 'a better one' => [AgreedKind::Discount, '10=5 20=5.01', ''];
        yield 'a worse one' => [AgreedKind::Discount, '10=5 20=4.99', 'more must not cost more.'];
        yield 'the same price twice' => [AgreedKind::Price, '10=5 20=5', ''];
        yield 'a lower one' => [AgreedKind::Price, '10=5 20=4.99', ''];
        yield 'a higher one' => [AgreedKind::Price, '10=5 20=5.01', 'more must not cost more.'];
        yield 'two from one quantity' => [AgreedKind::Price, '10=5 10=4', 'Two steps both start at 10.'];
        yield 'a discount of nearly all' => [AgreedKind::Discount, '99.99', ''];
        yield 'a discount of all' => [AgreedKind::Discount, '100', 'leaves nothing to pay; expected below 100.'];
        yield 'a discount of none' => [AgreedKind::Discount, '0', 'expected above 0.'];
    }

    #[DataProvider('agreedSteps')]
    public function testStepsThatWereAgreedNeverGiveLess(AgreedKind $kind, string $typed, string $words): void
    {
        $read = static fn (): AgreedPrice => AgreedPrice::read(
            1,
            AgreedScope::of(null, '', 7, ''),
            $kind,
            BreakBasis::Quantity,
            'EUR',
            $typed,
            'Winter',
        );
        if ('' === $words) {
            self::assertCount(substr_count($typed, ' ') + 1, $read()->steps);
        } else {
            self::assertStringContainsString($words, self::refused($read));
        }
    }

    public function testSixDiscountsInARowAreReadAndASeventhIsNot(): void
    {
        self::assertSame(
            '0.531441',
            (string) ChainedDiscounts::read('10+10+10+10+10+10')->factor()->strippedOfTrailingZeros(),
            '0.9 to the sixth',
        );
        self::assertStringContainsString(
            'is more than six discounts.',
            self::refused(static fn () => ChainedDiscounts::read('1+1+1+1+1+1+1')),
        );
        self::assertSame('0.66667', (string) ChainedDiscounts::read('33.333 %')->factor()->strippedOfTrailingZeros());
        self::assertNotSame('', self::refused(static fn () => ChainedDiscounts::read('33.3333')));
        self::assertNotSame('', self::refused(static fn () => ChainedDiscounts::read('100')));
    }

    public function testWhatJustFitsABudgetIsKept(): void
    {
        $line = static fn (float $value, float $loss): BudgetLine => new BudgetLine(
            $value,
            $loss,
            Reason::BelowReorderPoint,
        );
        $cut = static fn (array $lines, float $left): array => BudgetCut::within(
            $lines,
            [new BudgetLimit($left, array_map(static fn (BudgetLine $one): float => $one->value, $lines))],
        )->out;
        $lines = [1 => $line(60.0, 9.0), 2 => $line(40.0, 5.0), 3 => $line(25.0, 4.0)];
        self::assertSame([], $cut($lines, 125.0), 'to the last coin');
        self::assertSame([3], $cut($lines, 100.0));
        self::assertSame([2], $cut($lines, 99.99), '60 and 25 are worth 13, 40 and 25 are worth 9');
        self::assertSame([2, 3], $cut($lines, 60.0));
        self::assertSame([1], $cut($lines, 65.0), '40 and 25 are worth as much as 60, and are kept to the last coin');
        self::assertSame([1, 2, 3], $cut($lines, 24.99));
    }

    public function testHowLongTheFirstLotLasts(): void
    {
        $covers = static fn (float ...$demand): int => DynamicLots::wagnerWhitin(
            array_values($demand),
            10.0,
            1.0,
        )->firstCovers();
        self::assertSame(0, $covers(0.0, 0.0), 'nothing is wanted');
        self::assertSame(3, $covers(5.0, 0.0, 0.0), 'one lot is all');
        self::assertSame(2, $covers(5.0, 3.0, 90.0), 'three are held for one period, ninety are not');
        self::assertSame(2, $covers(0.0, 5.0, 90.0), 'until the next one comes');
    }

    /** All-units and incremental discounts that begin just at the quantity that is best without them. */
    public function testAPriceThatBeginsJustAtTheEconomicQuantity(): void
    {
        // √(2 × 1000 × 10 / (0.25 × 2)) = 200, and 2.00 a piece: 1000 × 2 + 2 × 50 = 2100 a year.
        [$quantity, $cost] = EconomicOrderQuantity::incremental(1000.0, 10.0, 0.25, [[0.0, 2.0], [200.0, 2.0]]);
        self::assertEqualsWithDelta(200.0, $quantity, 1e-9);
        self::assertEqualsWithDelta(2100.0, $cost, 1e-9);
        self::assertEqualsWithDelta(200.0, EconomicOrderQuantity::of(1000.0, 10.0, 0.5), 1e-9);
    }

    /** Restless demand is no bulk order as long as it stays within what it does anyway; 1500 beside it is one. */
    public function testRestlessDemandIsNotOdd(): void
    {
        $series = [];
        for ($i = 0; $i < 40; ++$i) {
            $series[] = [40.0, 160.0][$i % 2];
        }
        $series[20] = 330.0;
        $series = array_values($series);
        self::assertSame($series, Cleaning::ofSeries($series, 1));
        $bulk = array_values(array_replace($series, [20 => 1500.0]));
        $cleaned = Cleaning::ofSeries($bulk, 1);
        self::assertNotSame(1500.0, $cleaned[20] ?? null);
        unset($bulk[20], $cleaned[20]);
        self::assertSame($bulk, $cleaned);
    }

    /** @return \Generator<string, array{float, float, string}> what waiting costs, what is saved, what is best */
    public static function fillUps(): \Generator
    {
        // 100 more at 10 % a year, held for 36.5 days: 1.00.
        yield 'it saves more than it costs' => [0.0, 1.01, SupplierOrder::FILL];
        yield 'it saves no more than it costs' => [0.0, 1.0, SupplierOrder::SEND];
        yield 'below a minimum, where waiting costs as much' => [1.0, \INF, SupplierOrder::FILL];
        yield 'below a minimum, where waiting costs less' => [0.99, \INF, SupplierOrder::WAIT];
    }

    #[DataProvider('fillUps')]
    public function testAnOrderIsFilledUpWhereThatPays(float $waiting, float $saved, string $best): void
    {
        $order = SupplierOrder::complete(
            200.0,
            300.0,
            [5 => [new FillStep(10.0, 100.0, 100.0, 36.5)]],
            $saved,
            $waiting,
            0.1,
        );
        self::assertSame($best, $order->advice);
    }

    public function testARateOfNothingHasTheReasonThatWasSaid(): void
    {
        self::assertSame(TaxCategory::ZeroRated, Tax::percent(0)->category);
        self::assertSame(TaxCategory::Exempt, Tax::percent('0.00', TaxCategory::Exempt)->category);
        self::assertSame(
            TaxCategory::ZeroRated,
            Tax::percent(0, TaxCategory::Standard)->category,
            'a standard rate is above nothing',
        );
        self::assertSame(TaxCategory::Standard, Tax::percent('0.01', TaxCategory::Exempt)->category);
        self::assertSame('100', (string) Tax::percent(100)->percent);
        self::assertNotSame('', self::refused(static fn () => Tax::percent('100.01')));
    }

    /** Codes of ISO 4217 and what is none. */
    public function testACurrencyIsOneOfTheStandard(): void
    {
        foreach (['EUR' => 2, 'JPY' => 0, 'KWD' => 3] as $code => $digits) {
            self::assertSame([$code, $digits], [Currency::of($code)->code, Currency::of(strtolower($code))->decimals]);
        }
        foreach (['', 'EU', 'EURO', 'E1R', 'ZZZ', 'QQQ'] as $none) {
            self::assertStringContainsString(
                'is not a currency; expected an ISO 4217 code such as EUR.',
                self::refused(static fn () => Currency::of($none)),
            );
        }
    }

    public function testALotHasUpToFortyLettersAndMayExpireOnTheDayItWasMade(): void
    {
        $day = new \DateTimeImmutable('2026-11-23');
        self::assertSame(str_repeat('ä', 40), LotFacts::of(str_repeat('ä', 40), null)->number);
        self::assertSame(
            'A lot number has at most 40 characters.',
            self::refused(static fn () => LotFacts::of(str_repeat('ä', 41), null)),
        );
        self::assertEquals($day, LotFacts::of('L', $day, $day, today: $day)->expiresOn);
        self::assertNotSame('', self::refused(static fn () => LotFacts::of('L', $day->modify('-1 day'), $day)));
        self::assertNotSame(
            '',
            self::refused(static fn () => LotFacts::of('L', null, $day->modify('+1 day'), today: $day)),
        );
        self::assertEquals($day->modify('+30 days'), LotFacts::of('L', null, $day, '', 30)->expiresOn);
    }

    public function testAnOrderThatReachesItsMinimumLacksNothing(): void
    {
        $minimum = OrderMinimum::of(500.0, 100.0, 12);
        self::assertNull($minimum->shortfall(500.0, 100.0, 12.0));
        self::assertSame('1 short of their minimum of 500 in goods', $minimum->shortfall(499.99, 100.0, 12.0));
        self::assertSame('1 short of their minimum of 100 kg', $minimum->shortfall(500.0, 99.5, 12.0));
        self::assertSame('2 short of their minimum of 12 packs', $minimum->shortfall(500.0, 100.0, 10.0));
    }
}
