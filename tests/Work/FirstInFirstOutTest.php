<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\LayersProof;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockValue;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\TakeBackReceipt;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\KeepBooks;
use TallBarrel\Work\Settling\SpreadCharge;

/** The stock valued first in, first out: what is there is what came last, of each lot. */
final class FirstInFirstOutTest extends StoreTestCase
{
    private const CATEGORY = 'First in, first out';

    protected function setUp(): void
    {
        parent::setUp();
        self::get(CurrentBusiness::class)->get()->valueBy(Valuing::Fifo);
        self::entities()->flush();
    }

    private static function ours(string $code): Item
    {
        $item = self::item($code);
        self::entities()->flush();
        self::connection()->executeStatement('UPDATE item SET category = ? WHERE id = ?', [self::CATEGORY, $item->id]);

        return $item;
    }

    private static function move(
        Item $item,
        MovementKind $kind,
        int $units,
        ?string $cost,
        string $day,
        string $lot = '',
    ): void {
        $paid = null === $cost ? null : BigDecimal::of($cost);
        $on = new \DateTimeImmutable($day);
        $site = self::site('FERRY')->id;
        self::get(Ledger::class)->enter([
            new Posting($item->id, $site, $kind, BigDecimal::of($units), $paid, $on, 'by hand', null, $lot),
        ], null);
    }

    private static function worth(string $day = '2026-11-23'): string
    {
        foreach (self::get(StockValue::class)->byCategory(new \DateTimeImmutable($day)) as $row) {
            if (self::CATEGORY === $row['category']) {
                return $row['value'];
            }
        }

        return 'nothing';
    }

    /** By hand: of 10 at 4.00 three went, 5 came at 6.40: 7 × 4.00 + 5 × 6.40 = 60.00; 8 more go: 4 × 6.40 = 25.60. */
    public function testWhatCameFirstGoesFirstOnAnyPastDay(): void
    {
        $item = self::ours('F-1');
        self::move($item, MovementKind::Opening, 10, '4.00', '2026-09-01');
        self::move($item, MovementKind::Sale, -3, null, '2026-09-02');
        self::move($item, MovementKind::Receipt, 5, '6.40', '2026-09-04');
        self::move($item, MovementKind::Sale, -8, null, '2026-09-06');
        self::assertSame(
            ['nothing', '40.00', '28.00', '60.00', '25.60'],
            array_map(self::worth(...), ['2026-08-31', '2026-09-01', '2026-09-03', '2026-09-05', '2026-09-06']),
        );
        self::get(CurrentBusiness::class)->get()->valueBy(Valuing::Average);
        self::assertNotSame('25.60', self::worth('2026-09-06'));
    }

    /** By hand: lot A holds 7 at 4.00, lot B, of which 4 of 5 went, one at 6.40, though A came first. */
    public function testEachLotCostsWhatItCameAt(): void
    {
        $item = self::ours('F-2');
        self::move($item, MovementKind::Opening, 7, '4.00', '2026-09-01', 'A');
        self::move($item, MovementKind::Receipt, 5, '6.40', '2026-09-04', 'B');
        self::move($item, MovementKind::Sale, -4, null, '2026-09-05', 'B');
        $lots = [];
        foreach (self::get(StockValue::class)->everything(new \DateTimeImmutable('2026-09-05')) as $row) {
            if ('F-2' === $row['code']) {
                $lots[$row['lot']] = $row['value'];
            }
        }
        self::assertSame(['A' => '28.00', 'B' => '6.40'], $lots);
        self::assertSame('34.40', self::worth());
        $rows = self::get(StockValue::class)->ofCategory(new \DateTimeImmutable('2026-09-05'), self::CATEGORY);
        self::assertSame(['34.40', 8.0, 4.3], [$rows[0]['value'], (float) $rows[0]['units'], (float) $rows[0]['cost']]);
    }

    /** By hand: 2 were found that nobody ever bought: they cost the average, and count as the first. */
    public function testWhatNobodyKnowsTheCostOfCountsAtTheAverage(): void
    {
        $item = self::ours('F-3');
        self::move($item, MovementKind::Receipt, 5, '6.00', '2026-09-01');
        self::move($item, MovementKind::Count, 2, null, '2026-09-02');
        self::connection()->executeStatement('UPDATE item SET average_cost = 4 WHERE id = ?', [$item->id]);
        self::assertSame('38.00', self::worth());
        self::move($item, MovementKind::Sale, -2, null, '2026-09-03');
        self::assertSame('30.00', self::worth());
    }

    private static function received(Item $item, string $price, string $order): Receipt
    {
        $delivery = self::delivery(self::sentOrder([[self::offer($item, $price, 10, self::supplier()), 10]], $order));
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    /**
     * By hand: of 100 at 5.00 forty went; 100 more at 6.00: 60 × 5 + 600 = 900. Freight of 50 on the first is 0.50
     * each, 30 on what is left of it. Without the second receipt there are 60 at 5.50.
     */
    public function testChargesAreOnTheirLayerAndWhatIsTakenBackIsOnNone(): void
    {
        $item = self::ours('F-4');
        $first = self::received($item, '50.00', 'PO-F1');
        self::move($item, MovementKind::Sale, -40, null, '2026-11-23');
        $second = self::received($item, '60.00', 'PO-F2');
        self::assertSame('900.00', self::worth());
        $charge = self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('50', 'EUR'), SpreadBasis::Value, [$first], []),
            self::person('iris'),
            'fifo',
        );
        self::assertSame('930.00', self::worth());
        self::get(TakeBackReceipt::class)->takeBack($second, [$second->lines()[0]->id], 'slip', self::person('tam'));
        self::assertSame('330.00', self::worth());
        $charge = self::get(LandedCharges::class)->byNumber($charge->number) ?? self::fail('no charge');
        self::get(SpreadCharge::class)->takeBack($charge, 'not ours', self::person('iris'));
        self::assertSame('300.00', self::worth());
    }

    /** Backwards from what is there now, or forwards from the first movement: the same, and what the ledger says. */
    public function testUnitsAreThoseOfTheLedgerOnDaysNearTheFirstMovementAndTheLast(): void
    {
        $item = self::ours('F-6');
        self::move($item, MovementKind::Opening, 9, '2.00', '2026-08-01', 'A');
        self::move($item, MovementKind::Sale, -4, null, '2026-11-20', 'A');
        self::move($item, MovementKind::Receipt, 3, '3.00', '2026-11-22', 'B');
        foreach (['2026-08-02', '2026-09-20', '2026-10-10', '2026-11-19', '2026-11-21', '2026-11-23'] as $day) {
            $units = [];
            foreach (self::get(StockValue::class)->everything(new \DateTimeImmutable($day)) as $row) {
                $units[$row['code'].' '.$row['site'].' '.$row['state'].' '.$row['lot']] = (float) $row['units'];
            }
            /** @var array<string, string> $ledger */
            $ledger = self::connection()->fetchAllKeyValue(
                "SELECT CONCAT(i.code, ' ', s.name, ' ', m.state, ' ', m.lot), SUM(m.quantity) FROM stock_movement m
                 JOIN item i ON i.id = m.item_id JOIN site s ON s.id = m.site_id WHERE m.day <= ?
                 GROUP BY i.id, s.id, m.state, m.lot HAVING SUM(m.quantity) <> 0",
                [$day],
            );
            self::assertEqualsCanonicalizing(array_map(floatval(...), $ledger), $units, $day);
            self::assertCount(count($ledger), array_intersect_key($units, $ledger), $day);
        }
    }

    /** Worked out twice: back from what is there, and movement by movement from the first. */
    public function testLayersAreProvenMovementByMovement(): void
    {
        $item = self::ours('F-7');
        $first = self::received($item, '50.00', 'PO-F7');
        self::move($item, MovementKind::Sale, -70, null, '2026-11-23');
        $second = self::received($item, '60.00', 'PO-F8');
        self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('50', 'EUR'), SpreadBasis::Value, [$first], []),
            self::person('iris'),
            'fifo',
        );
        self::get(TakeBackReceipt::class)->takeBack($second, [$second->lines()[0]->id], 'slip', self::person('tam'));
        $proof = static fn (): array => self::get(LayersProof::class)->differences(self::now());
        self::assertSame([], $proof(), 'of all of the demo, too');
        self::connection()->executeStatement(
            "UPDATE stock_movement SET unit_cost = unit_cost + 1 WHERE item_id = ? AND kind = 'receipt'",
            [$item->id],
        );
        self::assertSame([], $proof(), 'both rest on the ledger');
        self::connection()->executeStatement(
            'UPDATE stock_balance SET quantity = quantity + 2 WHERE item_id = ?',
            [$item->id],
        );
        self::assertStringContainsString('F-7 stands at', implode("\n", $proof()));
    }

    public function testTheBooksEndAtWhatTheStockIsWorth(): void
    {
        $item = self::ours('F-5');
        self::received($item, '50.00', 'PO-F5');
        $worth = 0.0;
        foreach (self::get(StockValue::class)->byCategory(new \DateTimeImmutable('2026-07-31')) as $row) {
            $worth += (float) $row['value'];
        }
        $stock = 0.0;
        foreach (self::get(KeepBooks::class)->entries() as $entry) {
            foreach ($entry->lines as $line) {
                $stock += 'stock' === $line->account->value ? $line->amount->toFloat() : 0.0;
            }
        }
        self::assertEqualsWithDelta($worth, $stock, 0.001);
        self::assertGreaterThan(1000, $worth);
    }
}
