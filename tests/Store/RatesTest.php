<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Planning\WhatMoved;

/** Rates are those of the latest day up to the one asked for, each currency by its own days. */
final class RatesTest extends StoreTestCase
{
    private const TAKEN = [
        '2026-11-02' => ['NOK' => '11.5', 'ISK' => '140'],
        '2026-11-03' => ['NOK' => '11.6'],
        '2026-11-06' => ['NOK' => '11.7', 'ISK' => '141'],
    ];

    private static function rates(): Rates
    {
        $rates = self::get(Rates::class);
        self::assertSame(5, $rates->take(self::TAKEN, 'by hand'));

        return $rates;
    }

    private static function on(Rates $rates, string $currency, string $day): string
    {
        return (string) $rates->on($currency, new \DateTimeImmutable($day))->foreignForOne->strippedOfTrailingZeros();
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function days(): iterable
    {
        yield 'of the day' => ['2026-11-03', '11.6', '140'];
        yield 'of a day without any' => ['2026-11-05', '11.6', '140'];
        yield 'of the day after that' => ['2026-11-06', '11.7', '141'];
        yield 'the latest' => ['2026-11-30', '11.7', '141'];
        yield 'the first' => ['2026-11-02', '11.5', '140'];
    }

    #[DataProvider('days')]
    public function testEachCurrencyHasItsLatest(string $day, string $krone, string $krona): void
    {
        $rates = self::rates();
        self::assertSame($krone, self::on($rates, 'NOK', $day));
        self::assertSame($krona, self::on($rates, 'ISK', $day));
    }

    /** Asked in any order: what one day has does not become another's. */
    public function testDaysBesideOneAnotherKeepTheirOwn(): void
    {
        $rates = self::rates();
        foreach (['2026-11-06' => '11.7', '2026-11-05' => '11.6', '2026-11-03' => '11.6', '2026-11-02' => '11.5',
            '2026-11-04' => '11.6', '2026-11-07' => '11.7'] as $day => $rate) {
            self::assertSame($rate, self::on($rates, 'NOK', $day));
        }
        self::assertSame('2026-11-03', $rates->daysOn(new \DateTimeImmutable('2026-11-05'))['NOK']['day']);
        self::assertSame('by hand', $rates->daysOn(new \DateTimeImmutable('2026-11-05'))['NOK']['source']);
    }

    public function testBeforeTheFirstThereIsNone(): void
    {
        $rates = self::rates();
        $day = new \DateTimeImmutable('2026-11-01');
        self::assertArrayNotHasKey('NOK', $rates->allOn($day));
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('There is no exchange rate for NOK on or before 1 Nov 2026.');
        $rates->on('NOK', $day);
    }

    public function testTheHomeCurrencyIsWorthItself(): void
    {
        self::assertSame('1', self::on(self::rates(), 'EUR', '1990-01-01'));
    }

    public function testWhatIsTakenHoldsAtOnceAndOnlyWhatIsNewIsCounted(): void
    {
        $rates = self::rates();
        self::assertSame('11.7', self::on($rates, 'NOK', '2026-11-06'));
        self::assertSame(0, $rates->take(self::TAKEN, 'a bank'));
        self::assertSame('by hand', $rates->daysOn(new \DateTimeImmutable('2026-11-06'))['NOK']['source']);
        self::assertGreaterThan(0, $rates->take(['2026-11-06' => ['NOK' => '11.75', 'ISK' => '141']], 'a bank'));
        self::assertSame('11.75', self::on($rates, 'NOK', '2026-11-06'));
        self::assertSame('a bank', $rates->daysOn(new \DateTimeImmutable('2026-11-06'))['NOK']['source']);
        self::assertSame('by hand', $rates->daysOn(new \DateTimeImmutable('2026-11-06'))['ISK']['source']);
    }

    public function testWhoSellsInACurrencyIsPlannedAgainWhenItsRateMoves(): void
    {
        $supplier = self::supplier('NOK');
        self::entities()->flush();
        $before = self::get(WhatMoved::class)->last();
        $moved = static fn (): mixed => self::connection()->fetchOne(
            'SELECT COUNT(*) FROM moved_item WHERE supplier_id = ? AND id > ?',
            [$supplier->id, $before],
        );
        $rates = self::rates();
        self::assertSame(1, $moved());
        $rates->take(self::TAKEN, 'by hand');
        self::assertSame(1, $moved());
        $rates->take(['2026-11-09' => ['ISK' => '142']], 'by hand');
        self::assertSame(1, $moved());
    }

    public function testHistoryIsTheLatestDayFirst(): void
    {
        $history = self::rates()->history(new \DateTimeImmutable('2026-11-03'));
        $mine = [];
        foreach ($history as $day => $taken) {
            if (isset($taken['rates']['NOK'])) {
                $mine[$day] = (float) $taken['rates']['NOK'];
            }
        }
        self::assertSame(['2026-11-06' => 11.7, '2026-11-03' => 11.6], $mine);
    }
}
