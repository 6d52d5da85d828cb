<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Money;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;

final class MoneyTest extends TestCase
{
    public function testIsExactUntilItIsRounded(): void
    {
        $third = Money::of('0.335', 'EUR')->multipliedBy(3);
        self::assertSame('1.005', (string) $third->amount);
        self::assertSame('1.01', (string) $third->rounded()->amount);
        self::assertSame('101', (string) Money::of('100.5', 'JPY')->rounded()->amount);
        self::assertSame('1.235', (string) Money::of('1.2345', 'KWD')->rounded()->amount);
    }

    public function testCurrenciesDoNotMix(): void
    {
        $this->expectExceptionMessage('EUR and GBP cannot be mixed');
        Money::of(1, 'EUR')->plus(Money::of(1, 'GBP'));
    }

    public function testAnUnknownCurrencyIsNamed(): void
    {
        $this->expectExceptionMessage('“ZZQ” is not a currency');
        Money::of(1, 'zzq');
    }

    public function testConvertsByTheRateOfTheDay(): void
    {
        $rate = ExchangeRate::of('EUR', 'PLN', '4.268');
        self::assertSame('4899.250234', (string) $rate->toHome(Money::of('20910', 'PLN'))->amount);
        $this->expectExceptionMessage('converts PLN, not USD');
        $rate->toHome(Money::of(1, 'USD'));
    }

    public function testARateOfNothingIsRefused(): void
    {
        $this->expectException(InvalidValue::class);
        ExchangeRate::of('EUR', 'PLN', 0);
    }

    public function testTermsSayWhenToPayAndWhatEarlySaves(): void
    {
        $terms = PaymentTerms::net(30, 2, 10);
        $invoiced = new \DateTimeImmutable('2026-11-29');
        self::assertSame('2/10 net 30', $terms->label());
        self::assertSame('2026-12-29', $terms->dueOn($invoiced)->format('Y-m-d'));
        self::assertSame('2026-12-09', $terms->discountUntil($invoiced)?->format('Y-m-d'));
        self::assertSame('1015.64', (string) $terms->discounted(Money::of('1036.37', 'EUR'))->amount);
        self::assertSame('net 60', PaymentTerms::net(60)->label());
        self::assertNull(PaymentTerms::net(60)->discountUntil($invoiced));
    }

    public function testADiscountAfterTheDueDateIsRefused(): void
    {
        $this->expectExceptionMessage('The discount ends after 30 days, but payment is due after 14');
        PaymentTerms::net(14, 2, 30);
    }
}
