<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Stock\CostHistory;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockValue;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;

/**
 * Worked by hand: 10 came at 4.00 on the 1st, 3 were sold on the 2nd, 5 came at 6.40 on the 4th, so that 12 cost
 * (7 × 4.00 + 5 × 6.40) / 12 = 5.00 each.
 */
final class StockWorthTest extends StoreTestCase
{
    private const CATEGORY = 'Worth by hand';

    private function ledger(): Item
    {
        $item = self::item('W-1');
        $item->costs(null, BigDecimal::of('9'));
        self::entities()->flush();
        self::connection()->executeStatement('UPDATE item SET category = ? WHERE id = ?', [self::CATEGORY, $item->id]);
        $site = self::site('FERRY')->id;
        $post = static function (
            MovementKind $kind,
            int $units,
            ?string $cost,
            string $day,
            string $lot,
        ) use ($item, $site): Posting {
            $paid = null === $cost ? null : BigDecimal::of($cost);
            $on = new \DateTimeImmutable($day);

            return new Posting($item->id, $site, $kind, BigDecimal::of($units), $paid, $on, 'by hand', null, $lot);
        };
        self::get(Ledger::class)->enter([
            $post(MovementKind::Opening, 10, '4.00', '2026-09-01', 'A'),
            $post(MovementKind::Sale, -3, null, '2026-09-02', 'A'),
            $post(MovementKind::Receipt, 5, '6.40', '2026-09-04', 'B'),
        ], null);
        self::get(CostHistory::class)->fromLedger();

        return $item;
    }

    private static function on(string $day): string
    {
        $rows = array_filter(
            self::get(StockValue::class)->byCategory(new \DateTimeImmutable($day)),
            static fn (array $row): bool => self::CATEGORY === $row['category'],
        );

        return array_values($rows)[0]['value'] ?? 'nothing';
    }

    public function testTheWorthOfAPastDayIsWhatWasThereAtWhatItCostThatEvening(): void
    {
        $item = $this->ledger();
        self::assertSame('nothing', self::on('2026-08-31'));
        self::assertSame('40.00', self::on('2026-09-01'));
        self::assertSame('28.00', self::on('2026-09-03'));
        self::assertSame('60.00', self::on('2026-09-04'));
        self::assertSame('60.00', self::on('2026-11-01'));

        $lots = [];
        foreach (self::get(StockValue::class)->everything(new \DateTimeImmutable('2026-09-04')) as $row) {
            if ('W-1' === $row['code']) {
                $lots[$row['lot']] = $row['value'];
            }
        }
        self::assertSame(['A' => '35.00', 'B' => '25.00'], $lots);

        // What changes later leaves the past as it was; the history ends at what stands.
        self::connection()->executeStatement('UPDATE item SET average_cost = 5 WHERE id = ?', [$item->id]);
        self::assertSame([], self::get(Verification::class)->differences());
        self::entities()->refresh($item);
        $item->averageNow(BigDecimal::of('5.500000'));
        self::entities()->flush();
        self::assertSame('60.00', self::on('2026-11-01'));
        self::assertSame('66.00', self::on(self::now()->format('Y-m-d')));
        self::connection()->executeStatement('UPDATE item SET average_cost = 5.6 WHERE id = ?', [$item->id]);
        self::assertStringContainsString(
            'last of the kept costs against the average: W-1',
            implode("\n", self::get(Verification::class)->differences()),
        );
    }

    public function testTheWorthOfTodayIsWhatTheBalancesComeTo(): void
    {
        $sum = array_sum(array_map(
            static fn (array $row): float => (float) $row['value'],
            self::get(StockValue::class)->byCategory(self::now()),
        ));
        $stands = self::connection()->fetchOne(
            'SELECT SUM(ROUND(u.units * COALESCE(i.average_cost, i.standard_cost, 0), 2)) FROM
                (SELECT item_id, site_id, SUM(quantity) units FROM stock_balance GROUP BY item_id, site_id) u
             JOIN item i ON i.id = u.item_id',
        );
        self::assertIsNumeric($stands);
        self::assertGreaterThan(1000, (float) $stands);
        self::assertEqualsWithDelta((float) $stands, $sum, 0.001);
    }
}
