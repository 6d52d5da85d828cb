<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Day;
use TallBarrel\Core\Demand\Contest;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Gamma;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\BudgetUse;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Ordering\SpentLately;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\ItemCode;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\SerialNumbers;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Replenish\Way;

/** What is just within a bound is taken, what is just beyond is refused, and the refusal says why. */
final class BoundsTest extends TestCase
{
    /** @return iterable<string, array{callable(): mixed, string}> */
    public static function beyond(): iterable
    {
        $flat = array_fill(0, 12, 5.0);
        yield 'a forecast over nothing' => [static fn () => Contest::over($flat, 1, 0), 'A horizon of 0'];
        yield 'a season of nothing' => [static fn () => Contest::over($flat, 0, 1), 'a period of 0'];
        yield 'nothing known' => [static fn () => Contest::over([null, null], 1, 1), 'no known value'];
        yield 'a season in one year' => [
            static fn () => Contest::over($flat, 12, 1, null, MethodName::HoltWintersAdditive),
            '12 values are too few for',
        ];
        yield 'a method nobody knows' => [static fn () => MethodName::named('oracle'), '“oracle” is not a method'];
        yield 'no gamma of mean 0' => [static fn () => new Gamma(0.0, 1.0), 'mean 0 and deviation 1'];
        yield 'no gamma without spread' => [static fn () => new Gamma(1.0, 0.0), 'mean 1 and deviation 0'];
        yield 'chance below zero' => [static fn () => Counts::poisson(-0.1), 'A Poisson mean of -0.1'];
        yield 'four decimals' => [static fn () => Quantity::of('1.2345', Unit::Kilogram), 'more than three decimals'];
        yield 'a pack without a name' => [static fn () => Pack::of('  ', 12), 'A pack needs a name'];
        yield 'sixty-one days' => [static fn () => Way::of(61, 1.0), 'A way of 61 days'];
        yield 'a way back in time' => [static fn () => Way::of(-1, 1.0), 'A way of -1 days'];
        yield 'a journey that is paid for' => [static fn () => Way::of(1, -0.01), 'A journey for -0.01'];
        yield 'a dear journey' => [static fn () => Way::of(1, 10000.5), 'expected 0 to 10000'];
        yield 'the second thirtieth of February' => [static fn () => Day::read('2026-02-30'), 'is not a day'];
        yield 'a code of forty-one' => [static fn () => ItemCode::read(str_repeat('x', 41)), 'is no item code'];
        yield 'too many numbers' => [
            static fn () => SerialNumbers::read(implode("\n", range(100_000, 105_000))),
            'serial numbers at once',
        ];
        yield 'planning from nowhere' => [static fn () => PlanningOptions::of('a hunch'), 'cannot start from'];
        yield 'a history nobody kept' => [
            static fn () => PlanningOptions::of(PlanningOptions::DUE, history: 'yesterday'),
            'There is no history called',
        ];
        yield 'to cover nothing' => [static fn () => PlanningOptions::of(PlanningOptions::COVER, 0.9), '1 to 730'];
        yield 'to cover two years and a day' => [
            static fn () => PlanningOptions::of(PlanningOptions::COVER, 731.0),
            '1 to 730',
        ];
        yield 'sales of nothing' => [static fn () => PlanningOptions::of(PlanningOptions::VALUE, 0.0), 'above 0'];
        yield 'from after to' => [
            static fn () => PlanningOptions::of(
                PlanningOptions::DUE,
                history: PlanningOptions::RANGE,
                from: '2026-03-02',
                to: '2026-03-01',
            ),
            'in this order',
        ];
    }

    /** @param callable(): mixed $act */
    #[DataProvider('beyond')]
    public function testBeyondABoundItIsRefused(callable $act, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        $act();
    }

    public function testWithinItIsTaken(): void
    {
        self::assertSame([60, 10000.0], [Way::of(60, 10000.0)->days, Way::of(60, 10000.0)->cost]);
        self::assertSame([0, 0.0], [Way::of(0, 0.0)->days, Way::of(0, 0.0)->cost]);
        self::assertSame(str_repeat('x', 40), ItemCode::read(str_repeat('x', 40)));
        self::assertSame('1.234', (string) Quantity::of('1.2340', Unit::Kilogram)->amount);
        self::assertSame('0', (string) Quantity::zero(Unit::Each)->amount);
        self::assertSame(MethodName::Croston, MethodName::named(MethodName::Croston->value));
        self::assertSame([1.0], Counts::poisson(0.0)->probabilities);
        self::assertSame(730.0, PlanningOptions::of(PlanningOptions::COVER, 730.0)->figure);
        self::assertCount(
            5000,
            SerialNumbers::read(implode("\n", range(100_001, 105_000))),
        );
    }

    public function testWhatPlanningWasAskedForIsSaidInWords(): void
    {
        self::assertSame('covering 30 days', PlanningOptions::of(PlanningOptions::COVER, 30.0)->words());
        self::assertSame(
            'enough for sales of 12,500',
            PlanningOptions::of(PlanningOptions::VALUE, 12_500.0)->words(),
        );
        $ranged = PlanningOptions::of(
            PlanningOptions::DUE,
            history: PlanningOptions::RANGE,
            from: '2026-03-01',
            to: '2026-05-31',
            countStock: false,
            wholePacks: false,
        );
        self::assertStringEndsWith(
            ', resting on 2026-03-01 to 2026-05-31, stock on hand not counted, cases split where allowed',
            $ranged->words(),
        );
        self::assertEquals($ranged, PlanningOptions::fromArray($ranged->toArray()));
    }

    public function testTermsOfPaymentAsTheyAreSaid(): void
    {
        self::assertSame('due on receipt', PaymentTerms::net(0)->label());
        self::assertSame('net 0 after the month’s end', PaymentTerms::net(0)->fromEndOfMonth()->label());
        self::assertSame('2/10 net 30', PaymentTerms::net(30, 2, 10)->label());
        $parts = PaymentTerms::net(30)->withDeposit(20)->inInstalments('50@30 30@60');
        self::assertSame('20 % when ordering, 50 % after 30 d, 30 % after 60 d', $parts->label());
        self::assertSame('50@30 30@60', $parts->instalmentsLabel());
        self::assertSame('', PaymentTerms::net(30)->instalmentsLabel());
        self::assertSame('0', (string) PaymentTerms::net(30)->yearlyWorthPercent());
        self::assertSame(0.0, PaymentTerms::net(30)->yearlyWorthCompoundedPercent());
        self::assertSame('37.24', (string) PaymentTerms::net(30, 2, 10)->yearlyWorthPercent());
        self::assertEqualsWithDelta(44.59, PaymentTerms::net(30, 2, 10)->yearlyWorthCompoundedPercent(), 0.005);
    }

    public function testWhatIsLeftOfABudget(): void
    {
        $euros = static fn (string $amount): Money => Money::of($amount, 'EUR');
        $use = new BudgetUse($euros('1000'), $euros('300.10'), $euros('200'), $euros('600'));
        self::assertSame('1100.10', (string) $use->spokenFor()->rounded()->amount);
        self::assertSame('-100.10', (string) $use->left()?->amount);
        self::assertNull((new BudgetUse(null, $euros('1'), $euros('1'), $euros('1')))->left());
        self::assertTrue(SpentLately::nothing()->toSupplier->isZero() && SpentLately::nothing()->inMonth->isZero());
        self::assertTrue($euros('1')->isLessThan($euros('1.01')));
        self::assertFalse($euros('1')->isLessThan($euros('1')));
    }

    public function testAPartOfWhatIsBoughtNeedNotReachTheMinimum(): void
    {
        $rule = BuyingRule::of(Pack::of('case', 12), 10, 2);
        self::assertNotNull($rule->objectionTo(4));
        self::assertNull($rule->objectionToPart(4));
        self::assertNotNull($rule->objectionToPart(3), 'twos all the same');
        self::assertNull($rule->objectionTo(10));
    }

    public function testANumberUnderBarsIsShortUnlessItIsACase(): void
    {
        self::assertSame('4006381333931', Gtin::of('4006381333931')->short());
        self::assertSame('14006381333938', Gtin::of('14006381333938')->short());
    }

    public function testDaysAreTheSameWhateverTheHour(): void
    {
        $at = static fn (string $time): \DateTimeImmutable => new \DateTimeImmutable($time);
        self::assertTrue(Day::isSame($at('2026-11-23 08:00'), $at('2026-11-23 23:59')));
        self::assertFalse(Day::isSame($at('2026-11-23'), $at('2026-11-24')));
        self::assertTrue(Day::isSame(null, null));
        self::assertFalse(Day::isSame(null, $at('2026-11-23')));
    }

    public function testWhatComesIsInTheOrderItIsDue(): void
    {
        $today = new \DateTimeImmutable('2026-11-23');
        $order = static fn (string $number, string $day): OpenOrder => new OpenOrder(
            $number,
            BigDecimal::one(),
            new \DateTimeImmutable($day),
            null,
        );
        $coming = Coming::of([$order('B', '2026-12-01')], $today)->with([
            $order('C', '2026-12-03'), $order('A', '2026-11-25'),
        ]);
        self::assertSame(
            ['A', 'B', 'C'],
            array_map(static fn (OpenOrder $one): string => $one->number, $coming->orders),
        );
    }

    public function testASuppliersMeanLeadTimeIsOfWhatWasMet(): void
    {
        $days = OrderDays::of([], '14:00');
        self::assertNull((new SupplierTerms('A', $days, []))->meanLeadTime());
        self::assertSame(6.0, (new SupplierTerms('A', $days, [4, 5, 9]))->meanLeadTime());
    }
}
