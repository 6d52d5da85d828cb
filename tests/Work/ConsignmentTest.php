<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Settle\ConsignedGoods;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\SendBack;
use TallBarrel\Work\Receiving\TakeBackReceipt;
use TallBarrel\Work\Settling\GoodsEntries;
use TallBarrel\Work\Settling\TakenOver;
use TallBarrel\Work\Settling\TakeOverConsigned;

/** Goods a supplier leaves with us. By hand: 10 cases of 10 at 50.00; of 100 pieces 35 are sold: 3.5 cases, 175.00. */
final class ConsignmentTest extends StoreTestCase
{
    private static function left(string $code, int $days = 0): Receipt
    {
        $offer = self::offer(self::item($code), '50.00', 10, self::supplier());
        $offer->consign(true, $days);
        $delivery = self::delivery(self::sentOrder([[$offer, 10]], 'PO-'.$code));
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function itemOf(Receipt $receipt): Item
    {
        return $receipt->lines()[0]->line->item ?? self::fail('no item');
    }

    private static function move(Item $item, MovementKind $kind, int $units): void
    {
        self::get(Ledger::class)->enter([
            new Posting($item->id, self::site('FERRY')->id, $kind, BigDecimal::of($units), null, self::now(), 'x',
                null),
        ], null);
    }

    /** @return list<string> packs that became ours */
    private static function take(): array
    {
        return array_map(
            static fn (TakenOver $one): string => (string) $one->packs()->strippedOfTrailingZeros(),
            self::get(TakeOverConsigned::class)->take(self::person('iris')),
        );
    }

    private static function invoiceable(Receipt $receipt): float
    {
        foreach (self::get(Invoices::class)->uninvoiced() as $one) {
            if ($one->receipt === $receipt->number) {
                return $one->value;
            }
        }

        return 0.0;
    }

    /** @return array{string, string} on goods on consignment, and on goods received, not invoiced */
    private static function booked(Receipt $receipt, string ...$also): array
    {
        $sums = array_fill_keys(
            [LedgerAccount::Consigned->value, LedgerAccount::Received->value],
            BigDecimal::zero(),
        );
        $order = $receipt->lines()[0]->line->order->number;
        $documents = [$receipt->number, $order, ...$also];
        $first = self::now()->modify('first day of this month');
        foreach (self::get(GoodsEntries::class)->until($first, self::now()) as $entry) {
            foreach (in_array($entry->document, $documents, true) ? $entry->lines : [] as $line) {
                if (isset($sums[$line->account->value])) {
                    $sums[$line->account->value] = $sums[$line->account->value]->plus($line->amount);
                }
            }
        }

        return array_values(array_map(static fn (BigDecimal $sum): string => (string) $sum->toScale(2), $sums));
    }

    public function testWhatIsUsedIsTakenOverAndItsInvoiceExpected(): void
    {
        $before = self::get(ConsignedGoods::class)->worth();
        $receipt = self::left('Q-1');
        self::assertSame([[], 0.0], [self::take(), self::invoiceable($receipt)]);
        self::assertSame(['-500.00', '0.00'], self::booked($receipt));
        self::assertSame('500.00', (string) self::get(ConsignedGoods::class)->worth()->minus($before));
        self::move(self::itemOf($receipt), MovementKind::Sale, -35);
        self::assertSame(['3.5'], self::take());
        self::assertSame(175.0, self::invoiceable($receipt));
        self::assertSame(['-325.00', '-175.00'], self::booked($receipt));
        self::assertSame([], self::take(), 'pressed again');
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testOursGoFirst(): void
    {
        $receipt = self::left('Q-2');
        self::move(self::itemOf($receipt), MovementKind::Count, 20);
        self::move(self::itemOf($receipt), MovementKind::Sale, -20);
        self::assertSame([], self::take());
        self::move(self::itemOf($receipt), MovementKind::Sale, -10);
        self::assertSame(['1'], self::take());
    }

    public function testAfterItsDayItIsOursAnyway(): void
    {
        $receipt = self::left('Q-3', 30);
        $found = self::get(TakeOverConsigned::class)->found();
        $ours = array_values(array_filter(
            $found,
            static fn (TakenOver $one): bool => $one->line === $receipt->lines()[0]->line,
        ))[0];
        self::assertSame(self::now()->modify('+30 days')->format('Y-m-d'), $ours->until?->format('Y-m-d'));
        self::assertSame([], self::take());
        self::connection()->executeStatement(
            'UPDATE receipt SET day = ? WHERE id = ?',
            [self::now()->modify('-30 days')->format('Y-m-d'), $receipt->id],
        );
        self::assertSame(['10'], self::take());
        self::assertSame(500.0, self::invoiceable($receipt));
    }

    /** By hand: 2 of 10 cases go back before they are used: 400.00 are theirs, and nobody asks or owes anything. */
    public function testWhatGoesBackWasNeverOurs(): void
    {
        $receipt = self::left('Q-5');
        $send = self::get(SendBack::class);
        $documents = [];
        $packs = [$receipt->lines()[0]->id => BigDecimal::of(2)];
        $tam = self::person('tam');
        foreach ([[ReturnWish::Credit, '-400.00'], [ReturnWish::Replacement, '-300.00']] as [$wish, $theirs]) {
            $back = $send->begin($receipt, $packs, StockState::Available, $wish, 'torn', '', false, $tam, $wish->value,
                new Problems());
            self::assertNotNull($back);
            $send->send($back, false, $tam);
            $documents[] = $back->number;
            self::assertTrue($back->lines()[0]->isTheirs());
            self::assertSame($theirs, self::booked($receipt, ...$documents)[0]);
            self::assertSame([[], 0.0], [self::take(), self::invoiceable($receipt)]);
        }
        self::assertSame([], self::get(Verification::class)->differences());
    }

    /** By hand: 35 of 100 are used, 3.5 of 10 cases ours: neither all 10 nor 8 of them go as if they were one's. */
    public function testOursAndTheirsDoNotGoBackAsOne(): void
    {
        $receipt = self::left('Q-6');
        self::move(self::itemOf($receipt), MovementKind::Sale, -35);
        self::assertSame(['3.5'], self::take());
        self::move(self::itemOf($receipt), MovementKind::Count, 35);
        $line = $receipt->lines()[0]->id;
        $tam = self::person('tam');
        $send = self::get(SendBack::class);
        $back = $send->begin($receipt, [$line => BigDecimal::of(8)], StockState::Available, ReturnWish::Credit, 'torn',
            '', false, $tam, 'mixed', new Problems());
        self::assertNotNull($back);
        self::mustRefuse(static fn () => $send->send($back, false, $tam), '6.5 of Test item Q-6 are theirs yet');
        $back = self::get(SupplierReturns::class)->byNumber($back->number) ?? self::fail('no return');
        $send->drop($back, self::person('tam'));
        $receipt = self::entities()->find(Receipt::class, $receipt->id) ?? self::fail('no receipt');
        self::mustRefuse(
            static fn () => self::get(TakeBackReceipt::class)->takeBack($receipt, [$line], 'slip', self::person('tam')),
            'some of it is ours by now',
        );
    }

    public function testTakenBackItIsAsIfItHadNotCome(): void
    {
        $receipt = self::left('Q-4');
        self::get(TakeBackReceipt::class)->takeBack($receipt, [$receipt->lines()[0]->id], 'slip', self::person('tam'));
        self::assertSame('0', (string) $receipt->lines()[0]->line->stillTheirs()->strippedOfTrailingZeros());
        self::assertSame([], self::take());
    }
}
