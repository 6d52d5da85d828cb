<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Settling\Payable;

/**
 * Worked by hand: 1,000.00 of 1 March, 2 % off until 11 March, the rest after 30 days (31 March); in two parts half
 * then and half after 60 (30 April).
 */
final class PayableTest extends TestCase
{
    private const ALL = '';
    private const HALVES = '50@30 50@60';

    private static function payable(?string $paid = null, string $parts = self::ALL, string $percent = '2'): Payable
    {
        $terms = PaymentTerms::net(30, $percent, 10);

        return new Payable(
            self::ALL === $parts ? $terms : $terms->inInstalments($parts),
            self::money('1000'),
            self::on('1 March'),
            null === $paid ? null : self::money($paid),
        );
    }

    private static function money(string $amount): Money
    {
        return Money::of($amount, 'EUR');
    }

    private static function on(string $day): \DateTimeImmutable
    {
        return new \DateTimeImmutable($day.' 2027');
    }

    private static function said(Money $money): string
    {
        return (string) $money->rounded()->amount;
    }

    /** @return iterable<string, array{string|null, string, string, string, string}> */
    public static function days(): iterable
    {
        yield 'while the discount is to be had' => [null, self::ALL, '11 March', '980.00', '980.00'];
        yield 'the day after' => [null, self::ALL, '12 March', '1000.00', '1000.00'];
        yield 'with a discount, all at once' => [null, self::HALVES, '11 March', '980.00', '980.00'];
        yield 'before the first part is due' => [null, self::HALVES, '12 March', '500.00', '1000.00'];
        yield 'the day before the second' => [null, self::HALVES, '29 April', '500.00', '1000.00'];
        yield 'when the second is due, too' => [null, self::HALVES, '30 April', '1000.00', '1000.00'];
        yield 'a part was paid: no discount' => ['300', self::ALL, '5 March', '700.00', '700.00'];
        yield 'some of the first part was paid' => ['300', self::HALVES, '5 March', '200.00', '700.00'];
        yield 'the first was' => ['500', self::HALVES, '5 March', '500.00', '500.00'];
        yield 'all was' => ['1000', self::HALVES, '5 March', '0.00', '0.00'];
    }

    #[DataProvider('days')]
    public function testWhatIsToBePaidOnADay(?string $paid, string $parts, string $day, string $pay, string $left): void
    {
        $payable = self::payable($paid, $parts);
        self::assertSame($pay, self::said($payable->toPayOn(self::on($day))));
        self::assertSame($left, self::said($payable->leftOn(self::on($day))));
    }

    public function testTimeOfDayDoesNotEndADiscount(): void
    {
        self::assertSame('980.00', self::said(self::payable()->toPayOn(self::on('11 March')->modify('23:59'))));
    }

    public function testWithoutTermsAllIsDueAtOnceAndNothingIsTakenOff(): void
    {
        $payable = new Payable(null, self::money('1000'), self::on('1 March'), null);
        self::assertEquals(self::on('1 March'), $payable->dueOn());
        self::assertSame('1000.00', self::said($payable->toPayOn(self::on('1 March'))));
        self::assertCount(1, $payable->best(self::on('1 March'), 5.0));
    }

    public function testTheLastOfItIsDueWhenItsLastPartIs(): void
    {
        self::assertEquals(self::on('31 March'), self::payable()->dueOn());
        self::assertEquals(self::on('30 April'), self::payable(parts: self::HALVES)->dueOn());
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function transfers(): iterable
    {
        // What left our account within four days after the discount ended was sent while it was to be had.
        yield 'sent on the last day' => ['980', '15 March', '980.00'];
        yield 'too late for it' => ['980', '16 March', '1000.00'];
        yield 'in time, but another amount' => ['979.99', '15 March', '1000.00'];
        yield 'in time' => ['980', '3 March', '980.00'];
        yield 'in time, but all of it' => ['1000', '15 March', '1000.00'];
    }

    #[DataProvider('transfers')]
    public function testMoneyMayBeUnderWayForFourDays(string $amount, string $day, string $left): void
    {
        self::assertSame($left, self::said(self::payable()->leftFor(self::money($amount), self::on($day))));
    }

    /** @return iterable<string, array{string|null, string, string, string, string}> */
    public static function expectations(): iterable
    {
        yield 'all at once' => [null, self::ALL, '400', '20 March', '1000.00'];
        yield 'just the part that is due' => [null, self::HALVES, '500', '20 March', '500.00'];
        yield 'a cent more than that' => [null, self::HALVES, '500.01', '20 March', '1000.00'];
        yield 'both when both are due' => [null, self::HALVES, '1000', '30 April', '1000.00'];
        yield 'one when both are' => [null, self::HALVES, '500', '30 April', '1000.00'];
        yield 'the last part' => ['500', self::HALVES, '500', '20 March', '500.00'];
        yield 'some of the last part' => ['500', self::HALVES, '20', '20 March', '500.00'];
        yield 'with the discount' => [null, self::HALVES, '980', '15 March', '980.00'];
    }

    #[DataProvider('expectations')]
    public function testWhatAPaymentIsSetBeside(
        ?string $paid,
        string $parts,
        string $amount,
        string $day,
        string $expected,
    ): void {
        $payable = self::payable($paid, $parts);
        self::assertSame($expected, self::said($payable->expectedOf(self::money($amount), self::on($day))));
    }

    /**
     * 2 % for 20 days are worth 2 / 98 × 365 / 20 = 37 % a year.
     *
     * @return iterable<string, array{string|null, string, float, string, list<string>}>
     */
    public static function bestDays(): iterable
    {
        $all = ['31 Mar 1000.00'];
        yield 'the discount gains more' => [null, '2 March', 5.0, self::ALL, ['11 Mar 980.00 early']];
        yield 'on its last day' => [null, '11 March', 5.0, self::ALL, ['11 Mar 980.00 early']];
        yield 'when it is over' => [null, '12 March', 5.0, self::ALL, $all];
        yield 'keeping the money gains more' => [null, '2 March', 40.0, self::ALL, $all];
        yield 'a part was paid' => ['300', '2 March', 5.0, self::ALL, ['31 Mar 700.00']];
        yield 'before the parts' => [null, '2 March', 5.0, self::HALVES, ['11 Mar 980.00 early']];
        yield 'part by part' => [null, '12 March', 5.0, self::HALVES, ['31 Mar 500.00', '30 Apr 500.00']];
        yield 'the next part' => ['500', '2 March', 5.0, self::HALVES, ['30 Apr 500.00']];
    }

    /** @param list<string> $told */
    #[DataProvider('bestDays')]
    public function testWhenItIsBestPaid(?string $paid, string $today, float $cost, string $parts, array $told): void
    {
        self::assertSame($told, array_map(
            static fn (Payment $one): string => sprintf(
                '%s %s%s',
                $one->day->format('j M'),
                self::said($one->amount),
                $one->early ? ' early' : '',
            ),
            self::payable($paid, $parts)->best(self::on($today), $cost),
        ));
    }

    public function testNoDiscountIsNeverEarly(): void
    {
        $best = self::payable(percent: '0')->best(self::on('2 March'), 0.0);
        self::assertFalse($best[0]->early);
        self::assertEquals(self::on('31 March'), $best[0]->day);
    }
}
