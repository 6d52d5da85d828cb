<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use TallBarrel\Exchange\Demo\Chance;
use TallBarrel\Exchange\Demo\LarkmoorTrade;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\OrderPaper;

/** The demo must have something worth looking at on every screen. */
final class DemoTest extends StoreTestCase
{
    private static function howMany(string $query): int
    {
        $count = self::connection()->fetchOne($query);

        return is_numeric($count) ? (int) $count : -1;
    }

    public function testIsABusinessOfTheSizePromised(): void
    {
        self::assertSame(3, self::howMany('SELECT COUNT(*) FROM site'));
        self::assertEqualsWithDelta(180, self::howMany('SELECT COUNT(*) FROM item'), 10);
        self::assertSame(12, self::howMany('SELECT COUNT(*) FROM supplier'));
        self::assertSame(4, self::howMany('SELECT COUNT(DISTINCT currency) FROM supplier'));
        self::assertGreaterThan(728, self::howMany('SELECT DATEDIFF(MAX(day), MIN(day)) FROM sales_day'));
        self::assertGreaterThan(
            20,
            self::howMany('SELECT COUNT(*) FROM item WHERE lot_tracked = 1') +
                self::howMany('SELECT COUNT(*) FROM item WHERE sold = 0'),
        );
    }

    public function testHasWhatAnOwnerMeetsInAWeek(): void
    {
        self::assertGreaterThan(
            0,
            self::howMany("SELECT COUNT(*) FROM proposal WHERE reason = 'rush'"),
            'a customer waits',
        );
        self::assertGreaterThan(20, self::howMany("SELECT COUNT(*) FROM proposal WHERE reason <> 'covered'"));
        self::assertGreaterThan(
            40,
            self::howMany(
                "SELECT COUNT(*) FROM proposal WHERE JSON_VALUE(forecast, '$.method') LIKE '%season%'
                    OR JSON_VALUE(forecast, '$.method') LIKE '%year ago%' OR JSON_VALUE(forecast,
                    '$.method') = 'mean of the best'",
            ),
            'seasons are found',
        );
        self::assertGreaterThan(
            500,
            self::howMany('SELECT COUNT(*) FROM sales_day WHERE out_of_stock = 1'),
            'shelves were empty at times',
        );
        self::assertSame(
            1,
            self::howMany(
                "SELECT COUNT(*) FROM purchase_order WHERE state = 'sent' AND wanted_on < DATE_SUB('2026-11-23',
                    INTERVAL 30 DAY)",
            ),
            'one order is forgotten',
        );
        self::assertGreaterThan(60, self::howMany("SELECT COUNT(*) FROM purchase_order WHERE state = 'received'"));
        self::assertSame(0, self::howMany('SELECT COUNT(*) FROM stock_balance WHERE quantity < 0'));
    }

    public function testTheSameSeedTradesTheSameAndCustomersComeBySeason(): void
    {
        $trade = static function (string $season): LarkmoorTrade {
            $trade = new LarkmoorTrade(
                'seed',
                70.0,
                $season,
                false,
                12,
                1,
                6,
                14,
                new \DateTimeImmutable('2026-11-23'),
                array_combine(range(8, 764, 14), range(2, 758, 14)),
            );
            $trade->run();

            return $trade;
        };
        self::assertSame($trade('spring')->sold, $trade('spring')->sold);
        $sales = $trade('spring')->sold;
        $inMonth = static fn (int $month): float => array_sum(
            array_filter(
                $sales,
                static fn (int $day): bool => (int) (new \DateTimeImmutable('2026-11-23'))
                    ->modify('-'.$day.' days')
                    ->format('n') === $month,
                \ARRAY_FILTER_USE_KEY,
            ),
        );
        self::assertGreaterThan(1.5 * $inMonth(9), $inMonth(4));
        $chance = new Chance('mean');
        $drawn = array_map(static fn (): int => $chance->poisson(4.0), range(1, 20000));
        self::assertEqualsWithDelta(4.0, array_sum($drawn) / 20000, 0.05);
    }

    public function testAnOrdersPaperNamesWhatASupplierNeeds(): void
    {
        $order = self::get(Orders::class)->byNumber('PO-1077');
        self::assertNotNull($order);
        $file = (string) tempnam(sys_get_temp_dir(), 'pdf');
        file_put_contents($file, self::get(OrderPaper::class)->pdf($order));
        $text = (string) shell_exec('pdftotext -layout '.escapeshellarg($file).' -');
        unlink($file);
        foreach (
            [
                'Order PO-1077',
                'Vetrasol Glassworks',
                'Kilnfield 4',
                'Mara Ashdown',
                'rear gate, Mon–Fri 8 to 16',
                '2/10 net 30',
                $order->lines()[0]->supplierCode(),
                number_format($order->totals()->total->amount->toFloat(), 2),
            ] as $fact
        ) {
            self::assertStringContainsString($fact, $text);
        }
        self::assertStringNotContainsString('DRAFT', $text);
    }
}
