<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Money;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;

/** When money goes out, worked by hand; common practice, no source. */
final class PaymentsTest extends TestCase
{
    /** @return list<string> "day amount", and "early" */
    private static function of(PaymentTerms $terms, string $total, ?float $moneyCosts = null): array
    {
        return array_map(
            static fn (Payment $payment): string => $payment->day->format('j M').' '.$payment->amount->amount.
                ($payment->early ? ' early' : ''),
            $terms->payments(
                Money::of($total, 'EUR'),
                new \DateTimeImmutable('2026-11-02'),
                new \DateTimeImmutable('2026-11-20'),
                $moneyCosts,
            ),
        );
    }

    public function testAllOfItSoManyDaysAfterTheInvoice(): void
    {
        self::assertSame(['20 Dec 100.00'], self::of(PaymentTerms::net(30), '100'));
        self::assertSame(['20 Nov 100.00'], self::of(PaymentTerms::net(0), '100'));
        self::assertSame(['30 Dec 100.00'], self::of(PaymentTerms::net(30)->fromEndOfMonth(), '100'));
    }

    public function testADepositIsPaidWhenOrderingAndTheRestLater(): void
    {
        self::assertSame(['2 Nov 30.00', '4 Jan 70.00'], self::of(PaymentTerms::net(45)->withDeposit(30), '100'));
        self::assertSame(['2 Nov 100.00'], self::of(PaymentTerms::net(45)->withDeposit(100), '100'));
    }

    public function testInstalmentsAddUpToTheCent(): void
    {
        $thirds = PaymentTerms::net(90)->inInstalments('33.33@30 33.33@60 33.34@90');
        self::assertSame(['20 Dec 33.33', '19 Jan 33.33', '18 Feb 33.35'], self::of($thirds, '100.01'));
        $after = PaymentTerms::net(60)->withDeposit(20)->inInstalments('40@60 40@30');
        self::assertSame(['2 Nov 20.00', '20 Dec 40.00', '19 Jan 40.00'], self::of($after, '100'));
    }

    public function testPaidEarlyOnlyWhereTheDiscountGainsMoreThanKeepingTheMoney(): void
    {
        $terms = PaymentTerms::net(30, 2, 10);
        self::assertSame(['20 Dec 100.00'], self::of($terms, '100'), 'nobody asked');
        self::assertSame(['30 Nov 98.00 early'], self::of($terms, '100', 7.0));
        // Seen from the day of the invoice: 2 = 100 × 30 r − 98 × 10 r, so r × 365 = 36.14 % a year.
        self::assertSame(['30 Nov 98.00 early'], self::of($terms, '100', 36.1));
        self::assertSame(['20 Dec 100.00'], self::of($terms, '100', 36.2));
        self::assertSame(
            ['2 Nov 30.00', '30 Nov 68.60 early'],
            self::of(PaymentTerms::net(30, 2, 10)->withDeposit(30), '100', 7.0),
            'the deposit has no discount',
        );
    }
}
