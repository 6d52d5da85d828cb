<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\CashFlows;
use TallBarrel\Store\Settle\DepositRow;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Settling\AskedInvoice;
use TallBarrel\Work\Settling\AskedLine;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\PaperEntries;
use TallBarrel\Work\Settling\SettleInvoice;

/**
 * A deposit before the goods come. Worked by hand: 10 packs at 50.00 are 500.00, of which the terms let 30 %, 150.00,
 * be asked when ordering; the invoice of the goods is for 500.00 less 150.00: 350.00.
 */
final class DepositsTest extends StoreTestCase
{
    private static function order(): PurchaseOrder
    {
        $supplier = self::supplier();
        $supplier->agreeTerms(PaymentTerms::net(30)->withDeposit(30));

        return self::sentOrder([[self::offer(self::item('D-1'), '50.00', 10, $supplier), 10]], 'PO-D1');
    }

    private static function deposit(PurchaseOrder $order, string $amount): AskedLine
    {
        return new AskedLine('deposit', null, 'Deposit', BigDecimal::one(), BigDecimal::of($amount), BigDecimal::zero(),
            $order);
    }

    private static function enter(PurchaseOrder $order, string $number, AskedLine ...$lines): Invoice|string
    {
        $problems = new Problems();
        $day = self::now()->setTime(0, 0);
        $asked = new AskedInvoice($order->supplier, $number, $day, array_values($lines), null, $number);

        return self::get(EnterInvoice::class)->enter($asked, self::person('iris'), $problems)
            ?? implode(' ', $problems->all());
    }

    private static function entered(PurchaseOrder $order, string $number, AskedLine ...$lines): Invoice
    {
        $invoice = self::enter($order, $number, ...$lines);

        return $invoice instanceof Invoice ? $invoice : self::fail($invoice);
    }

    private static function refused(PurchaseOrder $order, string $number, AskedLine ...$lines): string
    {
        $said = self::enter($order, $number, ...$lines);

        return is_string($said) ? $said : self::fail('it was entered');
    }

    private static function settle(Invoice $invoice): Invoice
    {
        return self::get(SettleInvoice::class)->release($invoice->id, $invoice->version(), self::person('iris'));
    }

    private static function goods(PurchaseOrder $order): AskedLine
    {
        $line = $order->lines()[0];

        return new AskedLine('goods', $line, 'Goods', BigDecimal::of(10), $line->price(), BigDecimal::zero());
    }

    private static function balance(PurchaseOrder $order): string
    {
        return (string) self::get(Deposits::class)->balance($order)->toScale(2);
    }

    /** @return array<string, string> what the invoices of an order booked, by account */
    private static function booked(Invoice ...$invoices): array
    {
        $numbers = array_map(static fn (Invoice $one): string => $one->number, $invoices);
        $sums = [];
        foreach (self::get(PaperEntries::class)->until(self::now()) as $entry) {
            foreach (in_array($entry->document, $numbers, true) ? $entry->lines : [] as $line) {
                $sums[$line->account->value] = $line->amount->plus($sums[$line->account->value] ?? 0);
            }
        }

        return array_map(static fn (BigDecimal $sum): string => (string) $sum, $sums);
    }

    public function testADepositIsAskedPaidAndTakenOffTheInvoiceOfTheGoods(): void
    {
        $order = self::order();
        /** @return list<DepositRow> */
        $due = static fn (): array => array_values(array_filter(
            self::get(Deposits::class)->due(),
            static fn (DepositRow $row): bool => $row->number === $order->number,
        ));
        self::assertEquals($order->depositAgreed(), $due()[0]->agreed);
        self::assertFalse($due()[0]->agreed->isZero());
        self::assertSame($order->supplier->shortName(), $due()[0]->shortSupplier());
        $first = self::settle(self::entered($order, 'D-77', self::deposit($order, '150.00')));
        self::assertSame([], $due());
        $toPay = array_filter(
            self::get(Invoices::class)->toPay(),
            static fn (array $one): bool => $one[0]->id === $first->id,
        );
        self::assertEquals([[$first, $first->payable()]], array_values($toPay), 'due when it is asked for');
        self::assertSame('150.00', self::balance($order));
        self::assertSame(['deposits' => '150.00', 'payables' => '-150.00'], self::booked($first));
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertStringContainsString(
            '160.00 is taken off for PO-D1, of whose deposits 150.00 is left',
            self::refused($order, 'V-78', self::goods($order), self::deposit($order, '-160.00')),
        );
        $last = self::settle(self::entered($order, 'V-79', self::goods($order), self::deposit($order, '-150.00')));
        self::assertSame('350.00', (string) $last->owed()->total->amount);
        self::assertSame('0.00', self::balance($order));
        $booked = self::booked($first, $last);
        self::assertSame(['0.00', '500.00', '-500.00'], [
            $booked[LedgerAccount::Deposits->value],
            $booked[LedgerAccount::Received->value],
            $booked[LedgerAccount::Payables->value],
        ]);
    }

    public function testMoreThanTheTermsSayIsDecidedBySomebody(): void
    {
        $order = self::order();
        $invoice = self::entered($order, 'D-1', self::deposit($order, '200.00'));
        self::mustRefuse(static fn () => self::settle($invoice), 'nobody has decided yet');
        $order = self::entities()->find(PurchaseOrder::class, $order->id) ?? self::fail('no order');
        $invoice = self::get(SettleInvoice::class)->decide(
            $invoice->id,
            $invoice->version(),
            $invoice->lines()[0]->id,
            PriceVerdict::AsAgreed,
            self::person('rowan'),
        );
        self::assertSame('150.00', (string) $invoice->owed()->total->amount);
        self::assertSame('150.00', self::balance($order));
        $second = self::entered($order, 'D-2', self::deposit($order, '10.00'));
        self::assertFalse($second->lines()[0]->isDecided(), 'all that was agreed is asked already');
    }

    public function testWhatWasTakenOffIsNotGivenUp(): void
    {
        $order = self::order();
        $invoice = self::entered($order, 'D-1', self::deposit($order, '150.00'));
        self::entered($order, 'V-1', self::goods($order), self::deposit($order, '-100.00'));
        self::mustRefuse(
            static function () use ($invoice): void {
                self::get(SettleInvoice::class)->discard($invoice->id, $invoice->version(), self::person('iris'));
            },
            'The deposit of PO-D1 is taken off another invoice already',
        );
    }

    /** What is on an invoice of its own is not expected beside it. */
    public function testTheCashCalendarCountsItOnce(): void
    {
        $order = self::order();
        $expected = static function () use ($order): float {
            $sum = 0.0;
            foreach (self::get(CashFlows::class)->from(self::now()->setTime(0, 0)) as $flow) {
                $sum += in_array($flow->of, [$order->number, 'D-1'], true) ? $flow->amount->amount->toFloat() : 0.0;
            }

            return $sum;
        };
        self::assertSame(500.0, $expected());
        self::entered($order, 'D-1', self::deposit($order, '150.00'));
        self::assertSame(500.0, $expected());
    }
}
