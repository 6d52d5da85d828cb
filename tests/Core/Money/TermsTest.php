<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Money;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\BudgetBasis;

/** Terms of payment reckoned apart: when each part is due, what they are worth, and in which month they are spent. */
final class TermsTest extends TestCase
{
    private static function day(string $day): \DateTimeImmutable
    {
        return new \DateTimeImmutable($day);
    }

    /** @return \Generator<string, array{callable(): PaymentTerms, string}> */
    public static function nonsense(): \Generator
    {
        yield 'days before nothing' => [
            static fn () => PaymentTerms::net(-1),
            'Net -1 days is out of range; expected 0 to 365.',
        ];
        yield 'more than a year' => [
            static fn () => PaymentTerms::net(366),
            'Net 366 days is out of range; expected 0 to 365.',
        ];
        yield 'a discount of all' => [
            static fn () => PaymentTerms::net(30, 100, 10),
            'A discount of 100 % is out of range; expected 0 to 99.99.',
        ];
        yield 'a discount of less than nothing' => [
            static fn () => PaymentTerms::net(30, '-0.01', 10),
            'A discount of -0.01 % is out of range',
        ];
        yield 'a discount to the last day' => [
            static fn () => PaymentTerms::net(10, 2, 10),
            'The discount ends after 10 days, but payment is due after 10.',
        ];
        yield 'a deposit of more than all' => [
            static fn () => PaymentTerms::net(30)->withDeposit('100.01'),
            'A deposit of 100.01 % is out of range; expected 0 to 100.',
        ];
        yield 'a deposit of less than nothing' => [
            static fn () => PaymentTerms::net(30)->withDeposit(-5),
            'A deposit of -5 % is out of range',
        ];
        yield 'no instalment' => [
            static fn () => PaymentTerms::net(30)->inInstalments('half 50@30'),
            '“half” is not an instalment; expected percent, “@”, days after the invoice: 50@30 50@60.',
        ];
        yield 'instalments that leave something' => [
            static fn () => PaymentTerms::net(30)->inInstalments('50@30 49.99@60'),
            'The deposit and the instalments “50@30 49.99@60” come to 99.99 %; expected 100.',
        ];
        yield 'instalments that ask too much beside the deposit' => [
            static fn () => PaymentTerms::net(30)->withDeposit(30)->inInstalments('50@30 50@60'),
            'come to 130 %; expected 100.',
        ];
    }

    /** @param callable(): PaymentTerms $make */
    #[DataProvider('nonsense')]
    public function testTermsThatCannotBeAreRefused(callable $make, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        $make();
    }

    /** @return \Generator<string, array{PaymentTerms, string, string}> */
    public static function labels(): \Generator
    {
        yield 'at once' => [PaymentTerms::net(0), 'due on receipt', ''];
        yield 'at the end of the month' => [PaymentTerms::net(0)->fromEndOfMonth(), 'net 0 after the month’s end', ''];
        yield 'later' => [PaymentTerms::net(45), 'net 45', ''];
        yield 'less for paying early' => [PaymentTerms::net(30, '2.50', 10), '2.5/10 net 30', ''];
        yield 'days without a discount are none' => [PaymentTerms::net(30, 0, 10), 'net 30', ''];
        yield 'a deposit' => [PaymentTerms::net(30)->withDeposit('30.0'), '30 % when ordering, net 30', ''];
        yield 'parts' => [
            PaymentTerms::net(60)->inInstalments(' 50@30  50@60 '),
            '50 % after 30 d, 50 % after 60 d',
            '50@30 50@60',
        ];
        yield 'parts that are none' => [PaymentTerms::net(60)->inInstalments('  '), 'net 60', ''];
    }

    #[DataProvider('labels')]
    public function testTermsAreSaidInAFewWords(PaymentTerms $terms, string $label, string $instalments): void
    {
        self::assertSame($label, $terms->label());
        self::assertSame($instalments, $terms->instalmentsLabel());
        $again = PaymentTerms::net($terms->netDays, $terms->discountPercent, $terms->discountDays)
            ->withDeposit($terms->depositPercent)
            ->inInstalments($terms->instalmentsLabel())
            ->fromEndOfMonth($terms->endOfMonth);
        self::assertSame($label, $again->label(), 'kept and read again they say the same');
    }

    /** @return \Generator<string, array{PaymentTerms, string, string}> invoiced, due */
    public static function dueDays(): \Generator
    {
        yield 'on the day' => [PaymentTerms::net(0), '2026-11-30', '2026-11-30'];
        yield 'over the year’s end' => [PaymentTerms::net(45), '2026-11-30', '2027-01-14'];
        yield 'through a leap day' => [PaymentTerms::net(30), '2028-02-10', '2028-03-11'];
        yield 'from the end of a short month' => [PaymentTerms::net(30)->fromEndOfMonth(), '2027-02-03', '2027-03-30'];
        yield 'from the end of a leap month' => [PaymentTerms::net(30)->fromEndOfMonth(), '2028-02-03', '2028-03-30'];
        yield 'invoiced on the last day' => [PaymentTerms::net(0)->fromEndOfMonth(), '2026-11-30', '2026-11-30'];
        yield 'the last of the parts' => [
            PaymentTerms::net(10)->inInstalments('40@90 60@30'),
            '2026-11-30',
            '2027-02-28',
        ];
    }

    #[DataProvider('dueDays')]
    public function testTheLastOfItIsDueOnItsDay(PaymentTerms $terms, string $invoiced, string $due): void
    {
        self::assertSame($due, $terms->dueOn(self::day($invoiced))->format('Y-m-d'));
    }

    public function testADiscountIsToBeHadUntilItsDayAndComesOffTheWhole(): void
    {
        $terms = PaymentTerms::net(30, 2, 10);
        self::assertSame('2026-12-10', $terms->discountUntil(self::day('2026-11-30'))?->format('Y-m-d'));
        self::assertSame('98.00', (string) $terms->discounted(Money::of(100, 'EUR'))->amount);
        self::assertSame('9.79', (string) $terms->discounted(Money::of('9.99', 'EUR'))->amount, '9.99 − 0.1998');
        self::assertNull(PaymentTerms::net(30)->discountUntil(self::day('2026-11-30')));
        self::assertSame('98', (string) $terms->discounted(Money::of(100, 'JPY'))->amount);
    }

    /**
     * Source: trade credit in any text of corporate finance; 2/10 net 30 is 37.24 % simple and 44.59 % compounded, and
     * each row is d/(100 − d) × 365/days, reckoned anew.
     *
     * @return \Generator<string, array{string, int, int, string, float}>
     */
    public static function discounts(): \Generator
    {
        yield '2/10 net 30' => ['2', 10, 30, '37.24', 44.5853];
        yield '1/10 net 30' => ['1', 10, 30, '18.43', 20.1317];
        yield '3/14 net 60' => ['3', 14, 60, '24.54', 27.3397];
        yield '2/0 net 8' => ['2', 0, 8, '93.11', 151.3673];
        yield 'none' => ['0', 0, 30, '0', 0.0];
    }

    #[DataProvider('discounts')]
    public function testWhatNotTakingADiscountCosts(
        string $percent,
        int $days,
        int $net,
        string $simple,
        float $compounded,
    ): void {
        $terms = PaymentTerms::net($net, $percent, $days);
        self::assertSame($simple, (string) $terms->yearlyWorthPercent());
        self::assertEqualsWithDelta($compounded, $terms->yearlyWorthCompoundedPercent(), 0.001);
        $off = (float) $percent / 100;
        if ($off > 0) {
            self::assertEqualsWithDelta(
                100 * ($off / (1 - $off)) * (365 / ($net - $days)),
                (float) (string) $terms->yearlyWorthPercent(),
                0.005,
            );
        }
    }

    /**
     * Ordered on 2 November, invoiced on the 20th; money costs 7.3 % a year, 0.02 % a day.
     *
     * @return \Generator<string, array{PaymentTerms, float}>
     */
    public static function worths(): \Generator
    {
        yield 'on receipt' => [PaymentTerms::net(0), 0.0];
        yield 'thirty days' => [PaymentTerms::net(30), 30 * 0.0002];
        yield 'the end of the month' => [PaymentTerms::net(30)->fromEndOfMonth(), 40 * 0.0002];
        yield 'all in advance' => [PaymentTerms::net(30)->withDeposit(100), -18 * 0.0002];
        yield 'part in advance' => [PaymentTerms::net(30)->withDeposit(40), (-0.4 * 18 + 0.6 * 30) * 0.0002];
        yield 'the discount gains more' => [PaymentTerms::net(30, 2, 10), 0.02 + 0.98 * 10 * 0.0002];
        yield 'the discount gains less' => [PaymentTerms::net(90, '0.5', 10), 90 * 0.0002];
        yield 'in parts' => [
            PaymentTerms::net(60)->inInstalments('25@0 75@60'),
            0.75 * 60 * 0.0002,
        ];
        yield 'a deposit and parts' => [
            PaymentTerms::net(60)->withDeposit(20)->inInstalments('40@30 40@60'),
            (-0.2 * 18 + 0.4 * 30 + 0.4 * 60) * 0.0002,
        ];
    }

    #[DataProvider('worths')]
    public function testWhatTermsAreWorthAgainstPayingOnTheDay(PaymentTerms $terms, float $worth): void
    {
        self::assertEqualsWithDelta(
            $worth,
            $terms->worth(self::day('2026-11-02'), self::day('2026-11-20'), 7.3),
            1e-12,
        );
        self::assertEqualsWithDelta(
            max(0.0, $terms->discountPercent->toFloat() / 100) * (1 - $terms->depositPercent->toFloat() / 100),
            $terms->worth(self::day('2026-11-02'), self::day('2026-11-20'), 0.0),
            1e-12,
            'where money costs nothing only a discount is worth something',
        );
    }

    /** Whatever the terms and the sum, the parts are what is asked, none is below a coin, and they come in order. */
    public function testPartsAddUpToTheCoinWhateverTheSum(): void
    {
        $all = [
            PaymentTerms::net(30),
            PaymentTerms::net(30)->withDeposit('33.33'),
            PaymentTerms::net(90)->inInstalments('33.33@30 33.33@60 33.34@90'),
            PaymentTerms::net(90)->withDeposit(10)->inInstalments('45@90 45@30'),
            PaymentTerms::net(5)->withDeposit(100),
        ];
        foreach ($all as $terms) {
            foreach (['0.03', '1', '99.99', '100.01', '12345.67', '0'] as $sum) {
                foreach (['EUR', 'JPY', 'KWD'] as $currency) {
                    $total = Money::of($sum, $currency)->rounded();
                    $payments = $terms->payments($total, self::day('2026-11-02'), self::day('2026-11-20'));
                    $paid = BigDecimal::sum(
                        ...array_map(static fn (Payment $one): BigDecimal => $one->amount->amount, $payments),
                    );
                    self::assertTrue($paid->isEqualTo($total->amount), $terms->label().' of '.$sum.' '.$currency);
                    $days = array_map(static fn (Payment $one): string => $one->day->format('Y-m-d'), $payments);
                    $sorted = $days;
                    sort($sorted);
                    self::assertSame($sorted, $days);
                    self::assertTrue(
                        BigDecimal::sum(
                            ...array_map(static fn (Payment $one): BigDecimal => $one->percent, $payments),
                        )->isEqualTo(100),
                    );
                }
            }
        }
    }

    public function testWhatIsLeftAfterADepositKeepsItsWeights(): void
    {
        $terms = PaymentTerms::net(60)->withDeposit(30)->inInstalments('40@30 30@60')->afterDeposit();
        self::assertTrue($terms->depositPercent->isZero());
        self::assertSame(
            ['57.1428571429', '42.8571428571'],
            array_map(static fn (array $part): string => (string) $part[0], $terms->instalments),
            '40 and 30 of 70',
        );
        $payments = $terms->payments(Money::of(70, 'EUR'), self::day('2026-11-02'), self::day('2026-11-20'));
        self::assertSame(
            ['40.00', '30.00'],
            array_map(static fn (Payment $one): string => (string) $one->amount->amount, $payments),
        );
        $all = PaymentTerms::net(60)->withDeposit(100)->afterDeposit();
        self::assertSame([], $all->instalments);
        self::assertSame('net 60', PaymentTerms::net(60)->afterDeposit()->label());
    }

    /** @return \Generator<string, array{BudgetBasis, PaymentTerms|null, array<string, string>}> */
    public static function budgets(): \Generator
    {
        yield 'when it is ordered' => [BudgetBasis::Ordering, PaymentTerms::net(90), ['2026-11' => '100']];
        yield 'when it comes, where no terms are known' => [BudgetBasis::Paying, null, ['2026-12' => '100']];
        yield 'when it is paid' => [BudgetBasis::Paying, PaymentTerms::net(60), ['2027-02' => '100']];
        yield 'a deposit now and the rest later' => [
            BudgetBasis::Paying,
            PaymentTerms::net(60)->withDeposit(30),
            ['2026-11' => '30', '2027-02' => '70'],
        ];
        yield 'two parts of one month' => [
            BudgetBasis::Paying,
            PaymentTerms::net(60)->inInstalments('25@5 25@10 50@60'),
            ['2026-12' => '50', '2027-02' => '50'],
        ];
        yield 'early, for the discount' => [
            BudgetBasis::Paying,
            PaymentTerms::net(60, 2, 10),
            ['2026-12' => '98'],
        ];
    }

    /**
     * Ordered on 23 November, invoiced with the goods on 15 December; money costs 7 % a year.
     *
     * @param array<string, string> $months
     */
    #[DataProvider('budgets')]
    public function testMoneyIsSpentInTheMonthTheOwnerCountsIt(
        BudgetBasis $basis,
        ?PaymentTerms $terms,
        array $months,
    ): void {
        self::assertSame(
            $months,
            array_map(
                static fn (Money $amount): string => (string) $amount->amount->strippedOfTrailingZeros(),
                $basis->months(
                    Money::of(100, 'EUR'),
                    $terms,
                    self::day('2026-11-23'),
                    self::day('2026-12-15'),
                    7.0,
                ),
            ),
        );
    }
}
