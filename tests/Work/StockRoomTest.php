<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Core\Receiving\ReturnState;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\ReceiptLine;
use TallBarrel\Store\Dock\SupplierReturn;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\Uninvoiced;
use TallBarrel\Store\Stock\InInspection;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Serials;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\FollowSerials;
use TallBarrel\Work\Receiving\InspectGoods;
use TallBarrel\Work\Receiving\PutStockRight;
use TallBarrel\Work\Receiving\SendBack;
use TallBarrel\Work\Receiving\TakeBackReceipt;

/** What becomes of goods beside the plain way from the dock to the shelf. */
final class StockRoomTest extends StoreTestCase
{
    private function ordered(
        Item $item,
        int $packs = 5,
        string $price = '12.00',
        string $number = 'PO-S1',
    ): PurchaseOrder {
        return self::sentOrder([[self::offer($item, $price), $packs]], $number);
    }

    private function book(PurchaseOrder $order, int $packs, ?LotFacts $lot = null): Receipt
    {
        $delivery = self::delivery($order);
        $line = $delivery->lines()[0];
        $line->count(BigDecimal::of($packs));
        if (null !== $lot) {
            $line->inLot($lot);
        }
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function place(StockState $state = StockState::Available, string $lot = ''): StockPlace
    {
        return new StockPlace(self::site('FERRY'), $state, $lot);
    }

    private static function units(Item $item, StockState $state, string $lot = ''): float
    {
        $units = self::connection()->fetchOne(
            'SELECT COALESCE(SUM(quantity), 0) FROM stock_balance WHERE item_id = ? AND state = ? AND lot = ?',
            [$item->id, $state->value, $lot],
        );

        return is_numeric($units) ? (float) $units : -1.0;
    }

    /** After a refusal nothing that was read before is kept. */
    private static function again(Item $item): Item
    {
        $found = self::entities()->getRepository(Item::class)->findOneBy(['code' => $item->code]);
        self::assertNotNull($found);

        return $found;
    }

    private function proven(): void
    {
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testWhatIsInspectedIsOursButNotToBeSoldUntilItWasLookedAt(): void
    {
        $item = self::item('S-1');
        $item->isReceived(LotDetails::Never, false, InspectionRule::All, '1.5');
        $this->book($this->ordered($item), 5);
        self::assertSame(60.0, self::units($item, StockState::InInspection));
        self::assertSame(0.0, self::units($item, StockState::Available));
        $soon = self::get(InInspection::class)->coming([$item->id], self::now());
        self::assertSame(['60'], array_map(
            static fn (array $here): string => (string) $here[0]->stockUnits,
            array_values($soon),
        ), 'planning does not buy it again');

        $inspect = static fn (int $bad, string $key) => self::get(InspectGoods::class)->inspect(
            self::again($item), self::place(StockState::InInspection), $bad, self::person('tam'), $key,
        );
        self::mustRefuse(static fn () => $inspect(61, 'k'), '61 of 60 looked at');
        $found = $inspect(2, 'k1');
        self::assertSame([60, 2, true], [$found->looked, $found->bad, $found->accepted]);
        self::assertSame('Testing Supplies', $found->supplier?->name());
        self::assertSame(58.0, self::units($item, StockState::Available));
        self::assertSame(2.0, self::units($item, StockState::Held));
        $this->proven();
        self::mustRefuse(static fn () => $inspect(0, 'k1'), 'in inspection there any more');
    }

    public function testWhatIsKeptForLessIsSetFreeWhenThatIsAgreed(): void
    {
        $item = self::item('S-L');
        $receipt = $this->book($this->ordered($item), 5);
        self::get(PutStockRight::class)->become($item, self::place(), StockState::Held, BigDecimal::of(24), 'torn',
            self::person('tam'), 'torn');
        $send = self::get(SendBack::class);
        $back = $send->begin($receipt, [$receipt->lines()[0]->id => BigDecimal::of(2)], StockState::Held,
            ReturnWish::LowerPrice, 'torn', '', false, self::person('tam'), 'less', new Problems());
        self::assertNotNull($back);
        self::mustRefuse(static fn () => $send->send($back, false, self::person('tam')), 'nothing of it leaves');
        $back = self::get(SupplierReturns::class)->byNumber($back->number);
        self::assertNotNull($back);
        self::mustRefuse(static fn () => $send->settle($back, ' ', self::person('tam')), 'Which credit note');
        $back = self::get(SupplierReturns::class)->byNumber($back->number);
        self::assertNotNull($back);
        $send->settle($back, 'CN-9', self::person('tam'));
        self::assertSame(ReturnState::Settled, $back->state());
        self::assertSame([60.0, 0.0], [
            self::units($item, StockState::Available), self::units($item, StockState::Held),
        ]);
        $this->proven();
    }

    public function testASampleDecidesForAllOfIt(): void
    {
        // 60 are letter E, which points back to D at 1.5 %: 8 looked at, none bad.
        foreach ([[0, true, 60.0, 0.0], [1, false, 0.0, 60.0]] as $n => [$bad, $taken, $free, $held]) {
            $item = self::item('S-2'.$n);
            $item->isReceived(LotDetails::Never, false, InspectionRule::Sample, '1.5');
            $this->book($this->ordered($item, 5, '12.00', 'PO-S2'.$n), 5);
            $found = self::get(InspectGoods::class)
                ->inspect($item, self::place(StockState::InInspection), $bad, self::person('tam'), 'k2'.$n);
            self::assertSame([8, $taken], [$found->looked, $found->accepted]);
            self::assertSame($free, self::units($item, StockState::Available));
            self::assertSame($held, self::units($item, StockState::Held));
        }
    }

    public function testAnOfferMayAskForInspectionToo(): void
    {
        $item = self::item('S-3');
        $order = $this->ordered($item);
        $order->lines()[0]->offer?->inspect(true);
        $this->book($order, 5);
        self::assertSame(60.0, self::units($item, StockState::InInspection));
    }

    private static function byLot(LotDetails $details): Item
    {
        $item = self::item('S-4', null, true);
        $item->isReceived($details, false, InspectionRule::Never, '1.5');

        return $item;
    }

    public function testALotThatIsKnownIsNotAskedAgainAndOneThatIsOverIsHeldBack(): void
    {
        $item = self::byLot(LotDetails::NewLots);
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        $order = $this->ordered($item, 20);
        $this->book($order, 1, LotFacts::of('L1', $day('2027-05-01'), $day('2026-05-01'), 'IE'));
        $this->book($order, 1, LotFacts::of('L1', null));
        self::assertSame(24.0, self::units($item, StockState::Available, 'L1'));
        $this->book($order, 1, LotFacts::of('L2', $day('2026-11-22')));
        self::assertSame(12.0, self::units($item, StockState::Held, 'L2'));
        self::assertSame(
            ['2027-05-01', '2026-05-01', 'IE'],
            self::connection()->fetchNumeric(
                "SELECT expires_on, made_on, origin FROM lot WHERE item_id = ? AND number = 'L1'",
                [$item->id],
            ),
        );
        $this->proven();
        $item->isReceived(LotDetails::Always, false, InspectionRule::Never, '1.5');
        $this->expectExceptionMessage('until when may lot L1 be used?');
        $this->book($order, 1, LotFacts::of('L1', null));
    }

    public function testANewLotIsAskedForItsUseBy(): void
    {
        $order = $this->ordered(self::byLot(LotDetails::NewLots), 20);
        $this->expectExceptionMessage('until when may lot L1 be used?');
        $this->book($order, 1, LotFacts::of('L1', null));
    }

    public function testALotHasANumber(): void
    {
        $order = $this->ordered(self::byLot(LotDetails::Never), 20);
        $this->expectExceptionMessage('needs its lot number');
        $this->book($order, 1);
    }

    private function numbered(): PurchaseOrder
    {
        $item = self::item('S-5');
        $item->isReceived(LotDetails::Never, true, InspectionRule::Never, '1.5');

        return self::sentOrder([[self::offer($item, '200.00', 1), 6]], 'PO-S5');
    }

    /** @param list<string> $numbers */
    private function bookPieces(PurchaseOrder $order, int $pieces, array $numbers): Receipt
    {
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of($pieces));
        $delivery->lines()[0]->carries($numbers);
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    public function testEachPieceIsFollowedByItsNumber(): void
    {
        $order = $this->numbered();
        $receipt = $this->bookPieces($order, 3, ['A1', 'A2', 'A3']);
        $serials = self::get(Serials::class);
        $follow = self::get(FollowSerials::class);
        $item = $receipt->lines()[0]->line->item;
        self::assertNotNull($item);
        self::assertSame([3, 3], $serials->count($item->id));
        self::assertSame($receipt, $serials->of($item, 'a2', 9)[0]->cameWith?->receipt);
        $tam = self::person(...);
        self::mustRefuse(static fn () => $follow->add(self::again($item), 'B1 A2', $tam('tam')), 'A2 is known already');
        self::mustRefuse(static fn () => $follow->add(self::again($item), ' ', $tam('tam')), 'Type the numbers');
        $follow->add(self::again($item), 'B1-B3', $tam('tam'));
        $one = fn () => $serials->of(self::again($item), 'B2', 9)[0];
        self::mustRefuse(static fn () => $follow->gone($one(), ' ', $tam('tam')), 'Say to whom');
        $follow->gone($one(), 'Whin Top', $tam('tam'));
        self::mustRefuse(static fn () => $follow->gone($one(), 'Sallow', $tam('tam')), 'B2 went to Whin Top');
        self::assertSame([5, 6], $serials->count($item->id));
        $follow->back($one(), $tam('tam'));
        self::assertSame([6, 6], $serials->count($item->id));
    }

    public function testAsManyNumbersAsPiecesAreNeeded(): void
    {
        $order = $this->numbered();
        $this->expectExceptionMessage('2 serial numbers for 3 pieces');
        $this->bookPieces($order, 3, ['A1', 'A2']);
    }

    public function testANumberThatCameBeforeIsRefused(): void
    {
        $order = $this->numbered();
        $this->bookPieces($order, 1, ['A3']);
        $this->expectExceptionMessage('serial number A3 came before');
        $this->bookPieces($order, 1, ['a3']);
    }

    public function testStockIsPutRightBesideWhatWasBooked(): void
    {
        $item = self::item('S-6', '2.00');
        $this->book($this->ordered($item), 5);
        $right = self::get(PutStockRight::class);
        $units = BigDecimal::of(...);
        $count = static fn (int $seen, int|string $truly, string $reason = 'lost') => $right->countAs(
            self::again($item), self::place(), $units($seen), $units($truly), $reason, self::person('tam'), 'a',
        );
        $become = static fn (StockState $from, StockState $to, int $many, string $key) => $right->become(
            self::again($item), self::place($from), $to, $units($many), 'wet', self::person('tam'), $key,
        );
        $scrap = static fn (int $many) => $right->scrap(
            self::again($item), self::place(), $units($many), 'broken', self::person('tam'), 'b',
        );
        self::mustRefuse(static fn () => $count(60, 57, ' '), 'Say why');
        self::mustRefuse(static fn () => $count(48, 57), '60 stand there by now, not 48');
        self::mustRefuse(static fn () => $count(60, -1), 'expected 0 or more');
        self::mustRefuse(static fn () => $count(60, '57.5'), 'no whole number');
        self::mustRefuse(static fn () => $count(60, 2_000_000), 'more than 1,000,000');
        self::mustRefuse(static fn () => $count(60, 60), 'nothing was booked');
        $count(60, 57);
        $count(60, 57);
        self::assertSame(57.0, self::units($item, StockState::Available), 'pressed twice, booked once');

        self::mustRefuse(static fn () => $scrap(58), '57 stand at Ferry Lane, not 58');
        $scrap(7);
        $become(StockState::Available, StockState::Held, 10, 'c');
        self::mustRefuse(
            static fn () => $become(StockState::Available, StockState::Available, 1, 'd'),
            'available already',
        );
        $become(StockState::Held, StockState::Available, 4, 'd');
        self::assertSame(44.0, self::units($item, StockState::Available));
        self::assertSame(6.0, self::units($item, StockState::Held));
        $cost = (string) self::again($item)->averageCost()?->strippedOfTrailingZeros();
        self::assertSame('1', $cost, 'what is lost cost what it cost');
        $this->proven();
    }

    public function testAnItemKeptByLotIsPutRightInOneOfItsLots(): void
    {
        $item = self::item('S-7', '2.00', true);
        $this->book($this->ordered($item), 5, LotFacts::of('L1', null));
        self::mustRefuse(
            static fn () => self::get(PutStockRight::class)->countAs(
                $item, self::place(), BigDecimal::zero(), BigDecimal::one(), 'found', self::person('tam'), 'l',
            ),
            'is kept by lot',
        );
    }

    /** @param array<int, BigDecimal> $packs */
    private function back(
        Receipt $receipt,
        array $packs,
        ReturnWish $wish = ReturnWish::Credit,
        ?Problems $problems = null,
        string $key = 'r1',
    ): ?SupplierReturn {
        return self::get(SendBack::class)->begin(
            $receipt, $packs, StockState::Available, $wish, 'poor quality', '', false, self::person('tam'), $key,
            $problems ?? new Problems(),
        );
    }

    public function testWhatGoesBackTakesItsCostAlongAndIsNotAskedFor(): void
    {
        $item = self::item('S-8');
        $offer = self::offer($item, '50.00', 10);
        $first = self::sentOrder([[$offer, 1]], 'PO-S81');
        $second = self::sentOrder([[$offer, 2]], 'PO-S82');
        self::connection()->executeStatement('UPDATE order_line SET price = 70 WHERE order_id = ?', [$second->id]);
        self::entities()->refresh($second->lines()[0]);
        $this->book($first, 1);
        $receipt = $this->book($second, 1);
        // 10 at 5.00 and 10 at 7.00; hand-worked, common practice.
        self::assertSame('6', (string) $item->averageCost()?->strippedOfTrailingZeros());
        $line = $receipt->lines()[0];
        $problems = new Problems();
        self::assertNull($this->back($receipt, [$line->id => BigDecimal::of(2)], problems: $problems));
        self::assertStringContainsString('1 came, of which 1 may still go', (string) $problems->at('back-'.$line->id));

        $back = $this->back($receipt, [$line->id => BigDecimal::one()]);
        self::assertNotNull($back);
        self::assertSame($back->number, $this->back($receipt, [$line->id => BigDecimal::one()])?->number, 'begun once');
        $problems = new Problems();
        self::assertNull($this->back($receipt, [$line->id => BigDecimal::one()], problems: $problems, key: 'r2'));
        self::assertStringContainsString('of which 0 may still go', (string) $problems->at('back-'.$line->id));
        self::assertSame('20', self::held($item), 'it still stands here');

        $send = self::get(SendBack::class);
        $act = static function (string $what, string $words = '') use ($back, $send): void {
            $found = self::get(SupplierReturns::class)->byNumber($back->number);
            self::assertNotNull($found);
            match ($what) {
                'agree' => $send->agree($found, $words, self::person('tam')),
                'send' => $send->send($found, false, self::person('tam')),
                'settle' => $send->settle($found, $words, self::person('tam')),
                default => $send->drop($found, self::person('tam')),
            };
        };
        $act('agree', 'RMA-9');
        self::assertSame(1.0, self::open($second));
        $act('send');
        self::assertSame('10', self::held($item));
        self::assertSame('5', (string) self::again($item)->averageCost()?->strippedOfTrailingZeros());
        self::assertSame(0.0, self::open($second), 'it need not be paid');
        self::mustRefuse(static fn () => $act('send'), 'sent back already');
        self::mustRefuse(static fn () => $act('drop'), 'sent back already');
        self::mustRefuse(static fn () => $act('settle', ''), 'Which credit note');
        $act('settle', 'CN-7');
        self::assertSame(ReturnState::Settled, self::get(SupplierReturns::class)->byNumber($back->number)?->state());
        $this->proven();
    }

    /** Packs that came on an order and are on no invoice. */
    private static function open(PurchaseOrder $order): float
    {
        $line = $order->lines()[0]->id;
        $packs = 0.0;
        foreach (self::get(Invoices::class)->uninvoiced($order->supplier) as $one) {
            $packs += (float) ($one->packs[$line] ?? 0);
        }

        return $packs;
    }

    public function testWhatIsToComeOnceMoreIsExpectedOnItsOrderAgain(): void
    {
        $item = self::item('S-9');
        $order = $this->ordered($item, 3);
        $receipt = $this->book($order, 3);
        self::assertSame(OrderState::Received, $order->state());
        $line = $receipt->lines()[0];
        $back = $this->back($receipt, [$line->id => BigDecimal::one()], ReturnWish::Replacement);
        self::assertNotNull($back);
        self::assertSame(OrderState::Received, $order->state());
        self::get(SendBack::class)->send($back, false, self::person('tam'));
        self::assertSame(OrderState::PartReceived, $order->state());
        self::assertTrue($order->lines()[0]->outstanding()->isEqualTo(1));
        $this->proven();
        $this->book($order, 1);
        self::assertSame(OrderState::Received, $order->state());
        $this->proven();
        $all = $this->back($receipt, [$line->id => BigDecimal::of(2)], ReturnWish::Replacement, key: 'r3');
        self::assertNotNull($all);
        self::get(PutStockRight::class)->scrap(
            $item, self::place(), BigDecimal::of(24), 'broken', self::person('tam'), 'gone',
        );
        self::mustRefuse(
            static fn () => self::get(SendBack::class)->send($all, false, self::person('tam')),
            '12 stand at Ferry Lane, not 24',
        );
    }

    private function takeBack(Receipt $receipt, string $why = 'wrong delivery'): Receipt
    {
        $lines = array_map(static fn (ReceiptLine $line): int => $line->id, $receipt->lines());

        return self::get(TakeBackReceipt::class)->takeBack($receipt, $lines, $why, self::person('tam'));
    }

    /** 10 at 5.00, 10 at 7.00 by mistake, 5 sold, 10 at 8.00. Without: (5 × 5 + 10 × 8) / 15 = 7, by hand. */
    public function testAReceiptTakenBackIsAsIfItHadNotBeen(): void
    {
        $item = self::item('S-20');
        $offer = self::offer($item, '5.00', 1);
        $orders = [];
        foreach (['5', '7', '8'] as $n => $price) {
            $order = self::sentOrder([[$offer, 10]], 'PO-S20'.$n);
            self::connection()->executeStatement(
                'UPDATE order_line SET price = ? WHERE order_id = ?',
                [$price, $order->id],
            );
            self::entities()->refresh($order->lines()[0]);
            $orders[] = $order;
        }
        $this->book($orders[0], 10);
        $mistake = $this->book($orders[1], 10);
        $sold = new Posting(
            $item->id, self::site('FERRY')->id, MovementKind::Sale, BigDecimal::of(-5), null,
            new \DateTimeImmutable('2026-11-23'), 'till', 'sale-s20',
        );
        self::get(Ledger::class)->enter([$sold], null);
        $this->book($orders[2], 10);

        $back = $this->takeBack($mistake);
        self::assertSame($back->number, $this->takeBack($mistake)->number, 'asked twice, done once');
        self::assertSame('7', (string) $item->averageCost()?->strippedOfTrailingZeros());
        self::assertSame('15', self::held($item));
        self::assertSame(OrderState::Sent, $orders[1]->state());
        self::assertTrue($orders[1]->lines()[0]->outstanding()->isEqualTo(10));
        self::assertNotContains(
            $mistake->number,
            array_map(static fn (Uninvoiced $one): string => $one->receipt, self::get(Invoices::class)->uninvoiced()),
        );
        $this->proven();
        // What was taken back can be counted and booked once more.
        $this->book($orders[1], 4);
        self::assertTrue($orders[1]->lines()[0]->outstanding()->isEqualTo(6));
        self::assertSame(
            ['4'],
            array_values(array_map(
                static fn (string $packs): string => (string) BigDecimal::of($packs)->strippedOfTrailingZeros(),
                array_merge(...array_map(
                    static fn (Uninvoiced $one): array => $one->packs,
                    array_filter(
                        self::get(Invoices::class)->uninvoiced(),
                        static fn (Uninvoiced $one): bool => isset($one->packs[$orders[1]->lines()[0]->id]),
                    ),
                )),
            )),
        );
        $this->proven();
    }

    public function testWhatWentOnCannotBeTakenBack(): void
    {
        $item = self::item('S-21');
        $receipt = $this->book($this->ordered($item, number: 'PO-S21'), 5);
        self::mustRefuse(fn () => $this->takeBack($receipt, '  '), 'Say why');
        $sold = new Posting(
            $item->id, self::site('FERRY')->id, MovementKind::Sale, BigDecimal::of(-1), null,
            new \DateTimeImmutable('2026-11-23'), 'till', 'sale-s21',
        );
        self::get(Ledger::class)->enter([$sold], null);
        self::mustRefuse(fn () => $this->takeBack($receipt), '60 came and 59 still stand');
        $this->proven();
    }

    public function testWhatIsOnItsWayBackToTheSupplierIsNotTakenBackAsWell(): void
    {
        $item = self::item('S-22');
        $receipt = $this->book($this->ordered($item, number: 'PO-S22'), 5);
        $this->back($receipt, [$receipt->lines()[0]->id => BigDecimal::of(2)], key: 'r22');
        self::mustRefuse(fn () => $this->takeBack($receipt), '2 of it go back to the supplier');
    }

    public function testWhatTheSupplierChargedIsNotTakenBack(): void
    {
        $item = self::item('S-23');
        $receipt = $this->book($this->ordered($item, number: 'PO-S23'), 5);
        self::connection()->executeStatement(
            "INSERT INTO invoice_line (invoice_id, order_line_id, position, words, packs, price, received, owed_packs,
                owed_price, tax_percent) SELECT MIN(id), ?, 99, 'x', 3, 12, 5, 3, 12, 0 FROM invoice",
            [$receipt->lines()[0]->line->id],
        );
        self::mustRefuse(fn () => $this->takeBack($receipt), 'is on an invoice already');
    }

    public function testNumbersOfPiecesTakenBackMayComeAgain(): void
    {
        $receipt = $this->bookPieces($this->numbered(), 2, ['Z1', 'Z2']);
        $item = $receipt->lines()[0]->line->item;
        self::assertNotNull($item);
        self::assertSame('Z1', self::get(Serials::class)->known($item->id, ['Z1']));
        $this->takeBack($receipt);
        self::assertNull(self::get(Serials::class)->known($item->id, ['Z1']));
    }

    public function testPlanningCountsWhatIsInInspection(): void
    {
        $item = self::item('S-10');
        $item->isReceived(LotDetails::Never, false, InspectionRule::All, '1.5');
        $this->book($this->ordered($item), 5);
        $right = self::get(PutStockRight::class);
        $right->become(
            $item, self::place(StockState::InInspection), StockState::Held, BigDecimal::of(12), 'torn',
            self::person('tam'), 'h',
        );
        $places = self::get(PlanningData::class)->itemSites(self::now(), [$item->id]);
        $place = array_values(array_filter(
            $places,
            static fn (ItemSite $one): bool => !$one->stock->coming->units()->isZero(),
        ))[0] ?? null;
        self::assertNotNull($place);
        self::assertSame(0.0, $place->stock->onHand->toFloat(), 'nobody can sell it yet');
        self::assertSame(48.0, $place->stock->coming->units()->toFloat(), 'held back is not counted on');
    }

    /** Two days where nobody knows; then as long as it took in the middle of the last times, and never in the past. */
    public function testWhatIsInInspectionIsFreeAfterAsLongAsItUsuallyTakes(): void
    {
        $waiting = self::get(InInspection::class);
        self::connection()->executeStatement('UPDATE inspection SET since = NULL');
        $item = self::item('S-11');
        self::entities()->flush();
        $today = self::now()->setTime(0, 0);
        $free = static fn (string $since): string => $waiting->freeOn(
            $item->id,
            $today->modify($since)->format('Y-m-d'),
            $today,
        )->format('Y-m-d');
        self::assertSame($today->modify('+2 days')->format('Y-m-d'), $free('today'));
        foreach ([1, 4, 9] as $n => $days) {
            self::connection()->insert('inspection', [
                'item_id' => $item->id, 'site_id' => self::place()->site->id, 'lot' => '', 'units' => 1, 'looked' => 1,
                'bad' => 0, 'accepted' => 1, 'by_id' => self::person('tam')->id,
                'at' => $today->modify(sprintf('-%d days', $n))->format('Y-m-d 15:00:00'),
                'since' => $today->modify(sprintf('-%d days', $n + $days))->format('Y-m-d'),
            ]);
        }
        self::assertSame($today->modify('+4 days')->format('Y-m-d'), $free('today'), 'the middle of 1, 4 and 9');
        self::assertSame($today->modify('+3 days')->format('Y-m-d'), $free('-1 day'));
        self::assertSame($today->format('Y-m-d'), $free('-20 days'), 'overdue: today, not three weeks ago');

        $other = self::item('S-12');
        self::entities()->flush();
        self::assertSame(4, $waiting->days($other->id), 'what is known of others');
        $other->isReceived(LotDetails::Never, false, InspectionRule::All, '1.5');
        $this->book($this->ordered($other), 5);
        $found = self::get(InspectGoods::class)
            ->inspect(self::again($other), self::place(StockState::InInspection), 0, self::person('tam'), 'w');
        self::assertSame($today->format('Y-m-d'), $found->since?->format('Y-m-d'));
        self::assertSame([], $waiting->coming([$other->id], $today));
    }
}
