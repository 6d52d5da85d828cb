<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\Receipts;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\CountDelivery;
use TallBarrel\Work\Receiving\LineCount;
use TallBarrel\Work\Receiving\Scan;
use TallBarrel\Work\Receiving\TakeBackReceipt;

/** Counting with a scanner that says more than a code, and goods that are not all in one lot or not all good. */
final class DockCountTest extends StoreTestCase
{
    private const GTIN = '09506000134352';

    private function expected(Item $item, int $packs = 5): Delivery
    {
        $item->mark(Gtin::of(self::GTIN));

        return self::delivery(self::sentOrder([[self::offer($item, '12.00'), $packs]], 'PO-D1'));
    }

    private static function byLot(): Item
    {
        $item = self::item('D-1', null, true);
        $item->isReceived(LotDetails::Always, false, InspectionRule::Never, '1.5');

        return $item;
    }

    private static function scan(Delivery $delivery, string $symbol): string
    {
        $problems = new Problems();
        $said = self::get(CountDelivery::class)->count($delivery, [], false, new Scan($symbol), $problems);

        return $said ?? (string) $problems->at('scan');
    }

    /** @return list<array{string, string, string}> lot, packs, use by */
    private static function rows(Delivery $delivery): array
    {
        return array_map(static fn (DeliveryLine $line): array => [
            $line->lot(),
            (string) $line->counted()?->strippedOfTrailingZeros(),
            $line->expiresOn()?->format('Y-m-d') ?? '',
        ], $delivery->lines());
    }

    private static function order(Delivery $delivery): PurchaseOrder
    {
        return $delivery->orders()[0];
    }

    /** @return array<string, string> stock units by lot and state */
    private static function stands(Item $item): array
    {
        /** @var array<string, string> $rows */
        $rows = self::connection()->fetchAllKeyValue(
            "SELECT CONCAT(lot, ' ', state), CAST(quantity AS DOUBLE) FROM stock_balance
             WHERE item_id = ? AND quantity <> 0 ORDER BY 1",
            [$item->id],
        );

        return array_map(strval(...), $rows);
    }

    private static function book(Delivery $delivery): void
    {
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testASymbolBringsItsLotAndDaysAndAnotherLotGetsARowOfItsOwn(): void
    {
        $item = self::byLot();
        $delivery = $this->expected($item);
        self::assertSame(
            'Read: Test item D-1, lot A1, now 1 case.',
            self::scan($delivery, '01'.self::GTIN.'1727033110A1'),
        );
        self::scan($delivery, '(01)'.self::GTIN.'(17)270630(10)B2');
        self::scan($delivery, ']C101'.self::GTIN.'17270331'."10a1\x1D3024");
        self::assertSame([['A1', '3', '2027-03-31'], ['B2', '1', '2027-06-30']], self::rows($delivery));
        self::assertSame('1 short', $delivery->lines()[0]->finding()->words());

        $delivery->lines()[0]->keepRest(false);
        self::book($delivery);
        self::assertSame(['A1 available' => '36', 'B2 available' => '12'], self::stands($item));
        self::assertSame(OrderState::Received, self::order($delivery)->state(), 'the one case less is given up');
        self::assertTrue(self::order($delivery)->lines()[0]->closedShort()->isEqualTo(1));
    }

    public function testALotThatIsOverIsSaidAndHeldBack(): void
    {
        $item = self::byLot();
        $delivery = $this->expected($item);
        self::assertStringContainsString(
            'use by 31 Oct 2026, which is over: it will be held back',
            self::scan($delivery, '(01)'.self::GTIN.'(15)261031(10)OLD'),
        );
        self::book($delivery);
        self::assertSame(['OLD held' => '12'], self::stands($item));
    }

    public function testWhatIsWrongWithASymbolIsSaidAndCountsNothing(): void
    {
        $delivery = $this->expected(self::byLot());
        foreach ([
            '(01)09506000134353(10)A1' => 'check digit is 2',
            '(01)'.self::GTIN.'(17)270231(10)A1' => 'February 2027 has 28 days',
            '(01)05012345678900(10)A1' => 'GTIN 5012345678900 is on none of these orders',
            '(00)106141412345678908' => 'The symbol names no goods',
            '(01)'.self::GTIN.'(10)A1(30)9999' => 'more than was ordered',
        ] as $symbol => $words) {
            self::assertStringContainsString($words, self::scan($delivery, $symbol));
        }
        self::assertSame([['', '', '']], self::rows($delivery));
    }

    public function testSerialNumbersAreReadOneByOneAndNoneTwice(): void
    {
        $item = self::item('D-2');
        $item->isReceived(LotDetails::Never, true, InspectionRule::Never, '1.5');
        $item->mark(Gtin::of(self::GTIN));
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '40.00', 1), 2]], 'PO-D2'));
        self::scan($delivery, '(01)'.self::GTIN.'(21)SN1');
        self::assertStringContainsString('SN1 stands twice', self::scan($delivery, '(01)'.self::GTIN.'(21)SN1'));
        self::scan($delivery, '(01)'.self::GTIN.'(21)SN2');
        self::assertSame(['SN1', 'SN2'], $delivery->lines()[0]->serials());
        self::book($delivery);
    }

    public function testWhatIsNotGoodIsOursAndHeldBack(): void
    {
        $item = self::item('D-3');
        $delivery = $this->expected($item);
        $line = $delivery->lines()[0];
        $count = static function (string $bad, string $because) use ($delivery, $line): string {
            $problems = new Problems();
            $said = new LineCount(true, BigDecimal::of(5), bad: BigDecimal::of($bad), badBecause: $because);
            self::get(CountDelivery::class)->count($delivery, [$line->id => $said], false, null, $problems);

            return (string) $problems->at('bad-'.$line->id);
        };
        self::assertSame('6 not good of 5 counted.', $count('6', 'wet'));
        self::assertSame('Say what is wrong with them.', $count('2', ' '));
        self::assertSame('', $count('2', 'wet'));
        self::book($delivery);
        self::assertSame([' available' => '36', ' held' => '24'], self::stands($item));
        self::assertTrue(self::order($delivery)->lines()[0]->outstanding()->isZero());
        self::assertSame('1', (string) $item->averageCost()?->strippedOfTrailingZeros());
        self::assertSame(
            '2 cases of D-3 not good: wet',
            self::connection()->fetchOne("SELECT words FROM audit_entry WHERE words LIKE '%not good%'"),
        );
        self::assertSame(
            [StockState::Held->value],
            self::connection()->fetchFirstColumn(
                "SELECT state FROM stock_movement WHERE item_id = ? AND idempotency_key LIKE '%/1/1'",
                [$item->id],
            ),
        );

        $receipt = self::get(Receipts::class)->of($delivery);
        self::assertNotNull($receipt);
        $lines = array_map(static fn (ReceiptLine $one): int => $one->id, $receipt->lines());
        self::get(TakeBackReceipt::class)->takeBack($receipt, $lines, 'wrong door', self::person('tam'));
        self::assertSame([], self::stands($item), 'good and bad, each from where it stands');
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testAllAsOrderedFillsWhatIsInNoLotYet(): void
    {
        $delivery = $this->expected(self::byLot());
        self::scan($delivery, '(01)'.self::GTIN.'(17)270331(10)A1');
        $problems = new Problems();
        self::get(CountDelivery::class)->count($delivery, [], false, null, $problems, $delivery->lines()[0]->id);
        self::assertCount(2, $delivery->lines());
        self::get(CountDelivery::class)->count($delivery, [], true, null, $problems);
        self::assertSame([['A1', '1', '2027-03-31'], ['', '', '']], self::rows($delivery), 'what is counted stays');
    }

    public function testAScanThatIsSentAgainCountsOnce(): void
    {
        $delivery = $this->expected(self::item('D-9'));
        $scan = static fn (string $key): ?string => self::get(CountDelivery::class)->count(
            $delivery, [], false, new Scan(self::GTIN, null, $key), new Problems(),
        );
        self::assertStringContainsString('now 1', (string) $scan('a'));
        self::assertNull($scan('a'), 'no answer was heard, and it came again');
        self::assertStringContainsString('now 2', (string) $scan('b'));
        self::assertSame([['', '2', '']], self::rows($delivery));
    }
}
