<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Settling\OpenParts;

/** Worked by hand: 1,000.00 of 1 March, half after 30 days (31 March), half after 60 (30 April). */
final class OpenPartsTest extends TestCase
{
    private const DAY = '2027-03-01';

    private static function parts(string $paid, string $instalments = '50@30 50@60', string $total = '1000'): OpenParts
    {
        return OpenParts::of(
            PaymentTerms::net(30)->inInstalments($instalments),
            Money::of($total, 'EUR'),
            new \DateTimeImmutable(self::DAY),
            Money::of($paid, 'EUR'),
        );
    }

    /** @return list<string> */
    private static function told(OpenParts $parts): array
    {
        return array_map(
            static fn (Payment $part): string => $part->day->format('j M').' '.$part->amount->rounded()->amount,
            $parts->parts,
        );
    }

    /** @return iterable<string, array{string, list<string>, bool}> */
    public static function whatWasPaid(): iterable
    {
        yield 'nothing' => ['0', ['31 Mar 500.00', '30 Apr 500.00'], false];
        yield 'some of the first' => ['499.99', ['31 Mar 0.01', '30 Apr 500.00'], true];
        yield 'the first' => ['500', ['30 Apr 500.00'], false];
        yield 'the first and some' => ['500.01', ['30 Apr 499.99'], true];
        yield 'all' => ['1000', ['30 Apr 0.00'], false];
    }

    /** @param list<string> $left */
    #[DataProvider('whatWasPaid')]
    public function testWhatWasPaidCountsForThePartThatIsDueFirst(string $paid, array $left, bool $begun): void
    {
        $parts = self::parts($paid);
        self::assertSame($left, self::told($parts));
        self::assertSame($begun, $parts->begun);
        self::assertSame(
            (string) Money::of('1000', 'EUR')->minus(Money::of($paid, 'EUR'))->rounded()->amount,
            (string) $parts->left()->rounded()->amount,
        );
    }

    public function testTheNextPartIsDueAndOnItsDayTheOneAfter(): void
    {
        $due = static fn (string $day, string $paid = '0'): string => (string) self::parts($paid)
            ->dueBy(new \DateTimeImmutable($day))->rounded()->amount;
        self::assertSame('500.00', $due(self::DAY), 'before any is due, the first');
        self::assertSame('500.00', $due('2027-04-29'));
        self::assertSame('1000.00', $due('2027-04-30 08:00'), 'whatever the hour');
        self::assertSame('500.00', $due('2027-04-30', '500'));
    }

    /** Three thirds of 100.00: the last carries the cent. */
    public function testPartsAddUpToTheCent(): void
    {
        $parts = self::parts('0', '33.33@10 33.33@20 33.34@30', '100.01');
        self::assertSame(['11 Mar 33.33', '21 Mar 33.33', '31 Mar 33.35'], self::told($parts));
    }

    public function testWithoutTermsAllIsDueAtOnceAndNothingIsDueOfNothing(): void
    {
        $day = new \DateTimeImmutable(self::DAY);
        $all = OpenParts::of(null, Money::of('70', 'EUR'), $day, Money::zero('EUR'));
        self::assertSame(['1 Mar 70.00'], self::told($all));
        $nothing = OpenParts::of(null, Money::zero('EUR'), $day, Money::zero('EUR'));
        self::assertSame(['1 Mar 0.00'], self::told($nothing));
    }

    /** 30 % when ordering, then 40@30 30@60: of an invoice without the deposit 40/70 and 30/70. */
    public function testInstalmentsKeepTheirWeightOnceTheDepositIsTakenOff(): void
    {
        $terms = PaymentTerms::net(30)->withDeposit(30)->inInstalments('40@30 30@60')->afterDeposit();
        $parts = OpenParts::of(
            $terms,
            Money::of('700', 'EUR'),
            new \DateTimeImmutable(self::DAY),
            Money::zero('EUR'),
        );
        self::assertSame(['31 Mar 400.00', '30 Apr 300.00'], self::told($parts));
        self::assertSame('0', (string) $terms->depositPercent);
        self::assertCount(1, PaymentTerms::net(14)->withDeposit(100)->afterDeposit()->payments(
            Money::of('10', 'EUR'),
            new \DateTimeImmutable(self::DAY),
            new \DateTimeImmutable(self::DAY),
        ), 'what is charged beside a deposit of all of it is due at once');
    }
}
