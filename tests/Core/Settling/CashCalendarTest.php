<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\CashCalendar;
use TallBarrel\Core\Settling\CashFlow;
use TallBarrel\Core\Settling\CashKind;
use TallBarrel\Core\Settling\CashWeek;

/** What has to be paid, week by week; worked by hand from Thursday, 26 November 2026, with 1,000.00 there. */
final class CashCalendarTest extends TestCase
{
    private static function flow(string $day, string $amount, CashKind $kind): CashFlow
    {
        return new CashFlow(new \DateTimeImmutable($day), Money::of($amount, 'EUR'), $kind, 'N', 'S');
    }

    private static function calendar(?string $balance, CashFlow ...$flows): CashCalendar
    {
        return CashCalendar::of(
            new \DateTimeImmutable('2026-11-26 10:00'),
            array_values($flows),
            Money::zero('EUR'),
            null === $balance ? null : Money::of($balance, 'EUR'),
        );
    }

    public function testWhatIsOverdueFallsInThisWeekAndAWeekBeginsOnMonday(): void
    {
        $weeks = self::calendar(
            '1000',
            self::flow('2026-10-01', '100', CashKind::Invoiced),
            self::flow('2026-11-29', '50', CashKind::Received),
            self::flow('2026-11-30', '200', CashKind::Ordered),
            self::flow('2026-12-01', '-30', CashKind::Invoiced),
        )->weeks;
        self::assertCount(26, $weeks);
        self::assertSame(['2026-11-23', '2026-11-30'], [
            $weeks[0]->monday->format('Y-m-d'), $weeks[1]->monday->format('Y-m-d'),
        ]);
        $figures = static fn (CashWeek $week): array => [
            (string) $week->total()?->amount, (string) $week->high?->amount, (string) $week->low?->amount,
        ];
        self::assertSame(['150', '850', '850'], $figures($weeks[0]));
        self::assertSame(['170', '880', '680'], $figures($weeks[1]), 'what is ordered counts at least only');
        self::assertSame(['', '880', '680'], $figures($weeks[25]));
    }

    public function testTheWeekInWhichThereIsNotEnoughIsNamed(): void
    {
        $calendar = self::calendar(
            '100',
            self::flow('2026-12-10', '100', CashKind::Invoiced),
            self::flow('2026-12-20', '0.01', CashKind::Ordered),
            self::flow('2027-06-30', '7', CashKind::Ordered),
        );
        self::assertSame('2026-12-14', $calendar->shortIn()?->monday->format('Y-m-d'));
        self::assertSame('7', (string) $calendar->later->amount, 'beyond half a year');
        self::assertNull(self::calendar(null, self::flow('2026-12-10', '100', CashKind::Invoiced))->shortIn());
    }
}
