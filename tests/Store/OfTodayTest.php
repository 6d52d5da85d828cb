<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Symfony\Component\Clock\MockClock;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\OfToday;

/** What is read along waits for whoever asks for it, but neither after midnight nor once it was changed. */
final class OfTodayTest extends StoreTestCase
{
    public function testWhatWasReadBeforeMidnightIsNotGivenOutAfterIt(): void
    {
        $taken = ['2026-11-23' => ['NOK' => '11.5'], '2026-11-24' => ['NOK' => '11.9']];
        self::get(Rates::class)->take($taken, 'by hand');
        $clock = new MockClock('2026-11-23 23:59:00', 'UTC');
        $ofToday = new OfToday(self::connection(), $clock);
        $ofToday->read(OfToday::ORDER_DAYS);
        $clock->modify('+2 minutes');
        self::assertSame(
            ['2026-11-23' => '11.50000000', '2026-11-24' => '11.90000000'],
            array_column(
                array_filter(
                    $ofToday->read(OfToday::RATES),
                    static fn (array $row): bool => 'NOK' === $row['currency'],
                ),
                'rate',
                'asked',
            ),
        );
    }

    public function testWhoAsksAgainSeesWhatChanged(): void
    {
        $supplier = self::supplier('NOK');
        self::entities()->flush();
        $ofToday = self::get(OfToday::class);
        $cutOff = static fn (): mixed => array_column($ofToday->read(OfToday::ORDER_DAYS), 'cut_off', 'id')[
            $supplier->id
        ];
        $before = $cutOff();
        self::connection()->executeStatement("UPDATE supplier SET cut_off = '09:15' WHERE id = ?", [$supplier->id]);
        self::assertNotSame('09:15', $before);
        self::assertSame('09:15', $cutOff());
    }

    public function testWhatOneSupplierAndWeAreShutStandsWithItsOrderDays(): void
    {
        $shut = self::supplier('NOK');
        $open = self::supplier('NOK');
        self::entities()->flush();
        self::connection()->executeStatement('DELETE FROM closure');
        foreach ([[$shut->id, '2026-12-24', '2026-12-27'], [null, '2027-01-01', '2027-01-01']] as $closure) {
            self::connection()->executeStatement(
                "INSERT INTO closure (supplier_id, first_day, last_day, words) VALUES (?, ?, ?, 'by hand')",
                $closure,
            );
        }
        $days = array_column(self::get(OfToday::class)->read(OfToday::ORDER_DAYS), 'shut', 'id');
        $parts = explode(',', (string) $days[$shut->id]);
        sort($parts);
        self::assertSame(['they 2026-12-24 2026-12-27', 'we 2027-01-01 2027-01-01'], $parts);
        self::assertSame('we 2027-01-01 2027-01-01', $days[$open->id]);
    }
}
