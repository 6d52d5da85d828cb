<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Stock\AverageCosts;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Receiving\BookDelivery;

final class BookingTest extends StoreTestCase
{
    public function testStockCostAndStateFollowTheCount(): void
    {
        $item = self::item('T-1', '2.00');
        $order = self::sentOrder([[self::offer($item, '31.20'), 5]], 'PO-T1');
        self::get(Ledger::class)->enter(
            [
                new Posting(
                    $item->id,
                    self::site('DEPOT')->id,
                    MovementKind::Opening,
                    BigDecimal::of(100),
                    BigDecimal::of(2),
                    self::now(),
                    'opening',
                    null,
                ),
            ],
            null,
        );
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(5));
        $receipt = self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));

        self::assertSame('160', self::held($item));
        self::assertSame(
            '2.225',
            (string) $item->averageCost()?->strippedOfTrailingZeros(),
            '(100 × 2.00 + 60 × 2.60) / 160',
        );
        self::assertSame(OrderState::Received, $order->state());
        self::assertSame('5', (string) $order->lines()[0]->received());
        self::assertCount(1, $receipt->lines());
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testASecondPressBooksNothingTwice(): void
    {
        $item = self::item('T-2');
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '12.00'), 4]], 'PO-T2'));
        $delivery->lines()[0]->count(BigDecimal::of(4));
        $first = self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $second = self::get(BookDelivery::class)->book($delivery->id, self::person('mara'));
        self::assertSame($first->number, $second->number);
        self::assertSame('48', self::held($item));
        self::assertSame('4', (string) $delivery->lines()[0]->line->received());
    }

    public function testTheLedgerRefusesTheSameBookingTwice(): void
    {
        $item = self::item('T-3');
        self::entities()->flush();
        $posting = new Posting(
            $item->id,
            self::site('DEPOT')->id,
            MovementKind::Receipt,
            BigDecimal::of(1),
            null,
            self::now(),
            'R-T',
            'delivery-T/1',
        );
        self::get(Ledger::class)->enter([$posting], null);
        $this->expectException(\Doctrine\DBAL\Exception\UniqueConstraintViolationException::class);
        self::get(Ledger::class)->enter([$posting], null);
    }

    public function testShortIsKeptOrClosedAsTheCounterSays(): void
    {
        [$kept, $closed] = [self::item('T-4'), self::item('T-5')];
        $supplier = self::supplier();
        $order = self::sentOrder(
            [[self::offer($kept, '12.00', 12, $supplier), 10], [self::offer($closed, '12.00', 12, $supplier), 10]],
            'PO-T4',
        );
        $delivery = self::delivery($order);
        [$first, $second] = $delivery->lines();
        $first->count(BigDecimal::of(7));
        $second->count(BigDecimal::of(8));
        $second->keepRest(false);
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame(OrderState::PartReceived, $order->state());
        self::assertSame('3', (string) $order->lines()[0]->outstanding());
        self::assertSame('0', (string) $order->lines()[1]->outstanding());
        self::assertSame('2', (string) $order->lines()[1]->closedShort());

        $rest = self::delivery($order);
        $rest->lines()[0]->count(BigDecimal::of(3));
        $rest->lines()[1]->count(null);
        self::get(BookDelivery::class)->book($rest->id, self::person('tam'));
        self::assertSame(OrderState::Received, $order->state());
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testAForeignPriceBecomesCostAtTheRateOfTheDay(): void
    {
        self::get(CurrentBusiness::class)->get()->expectCharges(false, BigDecimal::zero(), BigDecimal::zero());
        $item = self::item('T-6');
        $offer = self::offer(
            $item,
            '48.00',
            12,
            self::entities()
                ->getRepository(Supplier::class)
                ->findOneBy(['code' => 'BRENMOOR']),
        );
        $order = self::sentOrder([[$offer, 2]], 'PO-T6', ExchangeRate::of('EUR', 'GBP', '0.8'));
        self::connection()->executeStatement(
            "REPLACE INTO exchange_rate (currency, day, foreign_for_one) VALUES ('GBP', '2026-11-23', 0.5)",
        );
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(2));
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame(
            '8',
            (string) $item->averageCost()?->strippedOfTrailingZeros(),
            '48 pounds a case of 12, half a pound for one euro',
        );
    }

    public function testALotIsAskedForAndKept(): void
    {
        $item = self::item('T-7', null, true);
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '12.00'), 1]], 'PO-T7'));
        $delivery->lines()[0]->count(BigDecimal::of(1));
        try {
            self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
            self::fail('A lot is needed.');
        } catch (Refused $refused) {
            self::assertStringContainsString('T-7 needs its lot number', $refused->getMessage());
        }
        self::assertSame(
            '0',
            self::connection()->fetchOne('SELECT COUNT(*) FROM stock_movement WHERE item_id = ?', [$item->id]) ?: '0',
        );
    }

    public function testTooMuchIsRefusedWhole(): void
    {
        $item = self::item('T-8');
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '12.00'), 10]], 'PO-T8'));
        $delivery->lines()[0]->count(BigDecimal::of(12));
        $this->expectExceptionMessage('12 counted, 10 on order; more than 11 is not taken in');
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    public function testNothingCountedIsSaid(): void
    {
        $delivery = self::delivery(self::sentOrder([[self::offer(self::item('T-9'), '12.00'), 10]], 'PO-T9'));
        $this->expectExceptionMessage('Nothing has been counted yet');
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    public function testThreeAndAHalfJarsAreNotACount(): void
    {
        $delivery = self::delivery(self::sentOrder([[self::offer(self::item('T-10'), '12.00'), 10]], 'PO-T10'));
        $this->expectExceptionMessage('count whole ones');
        $delivery->lines()[0]->count(BigDecimal::of('0.3'));
    }

    public function testVerificationNamesEveryDifference(): void
    {
        self::assertSame([], self::get(Verification::class)->differences(), 'the demo is proven');
        self::connection()->executeStatement(
            "UPDATE stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
                SET b.quantity = b.quantity + 5 WHERE i.code = 'JAR-340R' AND s.code = 'DEPOT'",
        );
        $sent = self::connection()->fetchOne(
            "SELECT o.number FROM purchase_order o JOIN order_line l ON l.order_id = o.id WHERE o.state = 'sent'
                GROUP BY o.id HAVING COUNT(*) > 1 ORDER BY o.id LIMIT 1",
        );
        self::assertIsString($sent);
        self::connection()->executeStatement(
            'UPDATE order_line l JOIN purchase_order o ON o.id = l.order_id SET l.received = 1
                WHERE o.number = ? AND l.position = 2',
            [$sent],
        );
        $differences = implode("\n", self::get(Verification::class)->differences());
        self::assertStringContainsString('JAR-340R at DEPOT', $differences);
        self::assertStringContainsString($sent.' line 2 stands at 1', $differences);
        self::assertStringContainsString($sent.' stands at sent, proven part-received', $differences);
    }

    public function testAnAverageCostThatIsNotWhatTheReceiptsComeToIsNamed(): void
    {
        self::connection()->executeStatement(
            "UPDATE item SET average_cost = average_cost + 0.01 WHERE code = 'JAR-340R'",
        );
        $differences = self::get(Verification::class)->differences();
        self::assertCount(2, $differences);
        self::assertStringContainsString('kept costs against the average: JAR-340R stands at', $differences[0]);
        self::assertStringContainsString('average cost against receipts: JAR-340R stands at', $differences[1]);
    }

    /**
     * The moving average by hand: 10 at 5.00 and 10 at 7.00 make 6.00; 4 sold, 4 at 3.00 come in: (16 × 6 + 12) / 20.
     */
    public function testAverageCostsAreWorkedOutAnewInTheOrderOfTheLedger(): void
    {
        $item = self::connection()->fetchOne("SELECT id FROM item WHERE code = 'CND-WICK-S'");
        self::assertIsInt($item);
        self::connection()->executeStatement('DELETE FROM stock_movement WHERE item_id = ?', [$item]);
        foreach (
            [
                ['opening', 10, '5'],
                ['receipt', 10, '7'],
                ['sale', -4, null],
                ['receipt', 4, '3'],
                ['transfer', -5, null],
                ['transfer', 5, null],
            ] as [$kind, $units, $cost]
        ) {
            self::connection()->insert('stock_movement', [
                'item_id' => $item,
                'site_id' => 1,
                'state' => 'available',
                'lot' => '',
                'kind' => $kind,
                'quantity' => $units,
                'unit_cost' => $cost,
                'day' => '2026-11-20',
                'at' => '2026-11-20 10:00:00',
                'reference' => 'by hand',
            ]);
        }
        $proven = iterator_to_array(self::get(AverageCosts::class)->proven());
        self::assertSame('5.400000', (string) $proven[$item]);
    }
}
