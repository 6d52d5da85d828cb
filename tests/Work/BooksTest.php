<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Settle\BookPeriods;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNoteLine;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Stock\StockValue;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Settling\AskedInvoice;
use TallBarrel\Work\Settling\AskedLine;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\KeepBooks;
use TallBarrel\Work\Settling\PaperEntries;
use TallBarrel\Work\Settling\SettleInvoice;

/** What goes to the bookkeeping; entries worked by hand. */
final class BooksTest extends StoreTestCase
{
    /** @return array<string, string> amounts by account of the entry whose document has that number */
    private static function entry(string $document, string $words): array
    {
        $found = [];
        foreach (self::get(KeepBooks::class)->entries() as $entry) {
            if ($entry->document === $document && str_starts_with($entry->words, $words)) {
                foreach ($entry->lines as $line) {
                    $found[$line->account->value] = (string) $line->amount;
                }
            }
        }
        ksort($found);

        return $found;
    }

    /** 10 ordered at 10.00 came, 9 of them and 12.00 of freight are on an invoice at 10.05, taxed at 20 %. */
    private static function invoiced(): Invoice
    {
        $supplier = self::supplier();
        $supplier->agreeTerms(PaymentTerms::net(30, '2', 10));
        $order = self::sentOrder([[self::offer(self::item('K-1'), '10.00', 1, $supplier), 10]], 'PO-K1');
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $problems = new Problems();
        $twenty = BigDecimal::of(20);
        $invoice = self::get(EnterInvoice::class)->enter(new AskedInvoice($supplier, 'V-K1', self::now(), [
            new AskedLine('a', $order->lines()[0], 'Goods', BigDecimal::of(9), BigDecimal::of('10.05'), $twenty),
            new AskedLine('b', null, 'Freight', BigDecimal::one(), BigDecimal::of('12.00'), $twenty),
        ], null, 'k1'), self::person('iris'), $problems);
        self::assertSame([], $problems->all());
        self::assertNotNull($invoice);

        return self::get(SettleInvoice::class)->release($invoice->id, $invoice->version(), self::person('iris'));
    }

    /** The months before are closed, so that the one that runs is next. */
    private static function untilThisMonth(): void
    {
        $books = self::get(KeepBooks::class);
        while ($books->next() < self::now()->format('Y-m')) {
            $books->close($books->next(), self::person('iris'));
        }
    }

    public function testAReceiptAnInvoiceAndItsPaymentByHand(): void
    {
        $invoice = self::invoiced();
        self::untilThisMonth();
        self::assertSame(['received' => '-100.00', 'stock' => '100.00'], self::entry(
            self::receipt($invoice),
            'Received from Testing',
        ));
        // 90.45 and 12.00 are 102.45, with 20 % tax 122.94; the goods were ordered at 90.00.
        self::assertSame([
            'charges' => '12.00', 'payables' => '-122.94', 'price-difference' => '0.45', 'received' => '90.00',
            'tax' => '20.49',
        ], self::entry('V-K1', 'Invoice of'));
        self::assertSame([], self::entry('V-K1', 'Paid to'));
        self::get(SettleInvoice::class)->pay(
            [[$invoice->id, $invoice->version()]],
            self::now()->setTime(0, 0),
            self::person('iris'),
        );
        // 2 % of 122.94 is 2.4588, so 120.48 are paid.
        self::assertSame(
            ['bank' => '-120.48', 'discount' => '-2.46', 'payables' => '122.94'],
            self::entry('V-K1', 'Paid'),
        );
    }

    private static function receipt(Invoice $invoice): string
    {
        $number = self::connection()->fetchOne(
            'SELECT r.number FROM receipt r JOIN receipt_line x ON x.receipt_id = r.id
             JOIN invoice_line l ON l.order_line_id = x.line_id WHERE l.invoice_id = ?',
            [$invoice->id],
        );
        self::assertIsString($number);

        return $number;
    }

    /** 110 USD at 1.10 for one are 100.00; paid at 1.25 they cost 88.00. */
    public function testWhatTheRateGainedIsADifference(): void
    {
        $invoice = new Invoice(self::supplier(), 'V-K2', self::now(), ExchangeRate::of('EUR', 'USD', '1.10'),
            self::person('iris'), self::now(), 'k2');
        new InvoiceLine($invoice, 1, null, 'Goods', BigDecimal::one(), BigDecimal::of('110'),
            BigDecimal::zero());
        $invoice->release(self::person('rowan'), self::now());
        $invoice->pay(self::now(), ExchangeRate::of('EUR', 'USD', '1.25'), null);
        self::entities()->persist($invoice);
        self::entities()->flush();
        self::untilThisMonth();
        self::assertSame(
            ['bank' => '-88.00', 'exchange-difference' => '-12.00', 'payables' => '100.00'],
            self::entry('V-K2', 'Paid'),
        );
    }

    /** 100 USD booked in at 1.25 for one are 80.00; at 1.00 for one 110 are owed, 10 of them for a dearer price. */
    public function testADearerPriceAndAnotherRateAreTwoDifferences(): void
    {
        self::connection()->executeStatement("UPDATE exchange_rate SET foreign_for_one = 1.25 WHERE currency = 'USD'");
        $supplier = self::supplier('USD');
        $order = self::sentOrder([[self::offer(self::item('K-3'), '10.00', 1, $supplier), 10]], 'PO-K3',
            ExchangeRate::of('EUR', 'USD', '1.2'));
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $invoice = new Invoice($supplier, 'V-K3', self::now(), ExchangeRate::of('EUR', 'USD', '1.00'),
            self::person('iris'), self::now(), 'k3');
        $line = new InvoiceLine($invoice, 1, $order->lines()[0], 'Goods', BigDecimal::of(10), BigDecimal::of('11'),
            BigDecimal::zero());
        $line->decide(null, PriceVerdict::Accepted);
        $invoice->release(self::person('rowan'), self::now());
        self::entities()->persist($invoice);
        self::entities()->flush();
        self::untilThisMonth();
        self::assertSame([
            'exchange-difference' => '20.00', 'payables' => '-110.00', 'price-difference' => '10.00',
            'received' => '80.00',
        ], self::entry('V-K3', 'Invoice of'));
    }

    public function testACreditNoteAndWhatItIsTakenOff(): void
    {
        $one = BigDecimal::one();
        $note = new CreditNote(self::supplier(), 'CN-K', self::now(), 'EUR', $one, null, self::now(), 'ck');
        new CreditNoteLine($note, 1, 'Bonus', BigDecimal::of('50'), BigDecimal::of('20'), null, null);
        $note->takeOff(self::now());
        self::entities()->persist($note);
        self::entities()->flush();
        self::untilThisMonth();
        self::assertSame(
            ['payables' => '60.00', 'price-difference' => '-50.00', 'tax' => '-10.00'],
            self::entry('CN-K', 'Credit note'),
        );
        self::assertSame(['bank' => '60.00', 'payables' => '-60.00'], self::entry('CN-K', 'Taken off'));
    }

    public function testAMonthIsClosedOnceInTurnAndWhatComesLaterGoesToTheNext(): void
    {
        $books = self::get(KeepBooks::class);
        $first = $books->next();
        self::mustRefuse(
            static fn () => $books->close(self::now()->format('Y-m'), self::person('iris')),
            'its turn has not come',
        );
        foreach ($books->entries() as $entry) {
            self::assertTrue($entry->difference()->isZero(), $entry->key);
        }
        $books->close($first, self::person('iris'));
        self::mustRefuse(static fn () => $books->close($first, self::person('iris')), 'is closed already');
        self::assertTrue(self::get(BookPeriods::class)->isClosed(new \DateTimeImmutable($first.'-15')));

        $invoice = self::invoiced();
        self::connection()->executeStatement(
            "UPDATE invoice SET released_at = '$first-20 10:00:00' WHERE id = ?",
            [$invoice->id],
        );
        self::entities()->clear();
        $next = $books->close($books->next(), self::person('iris'));
        $late = array_values(array_filter(
            $next->entries(),
            static fn ($entry): bool => $entry->bookedKey === 'invoice-'.$invoice->id,
        ));
        self::assertSame([$next->month.'-01'], array_map(
            static fn ($entry): string => $entry->day->format('Y-m-d'),
            $late,
        ));
        $again = self::entities()->find(Invoice::class, $invoice->id);
        self::assertNotNull($again);
        self::mustRefuse(
            static fn () => self::get(SettleInvoice::class)
                ->reopen($again->id, $again->version(), self::person('iris')),
            'in the books of a closed month',
        );
        self::untilThisMonth();
        self::mustRefuse(
            static fn () => $books->close($books->next(), self::person('iris')),
            'is not over yet',
        );
    }

    public function testTheStockAccountStandsAtWhatTheStockIsWorth(): void
    {
        self::untilThisMonth();
        $end = self::now()->modify('last day of previous month');
        $worth = BigDecimal::zero();
        foreach (self::get(StockValue::class)->byCategory($end) as $row) {
            $worth = $worth->plus($row['value']);
        }
        self::assertTrue($worth->isPositive());
        self::assertTrue($worth->isEqualTo(self::get(BookPeriods::class)->stock()));
    }

    public function testAnEntryIsInBalanceWhateverIsLeftOpen(): void
    {
        $entry = BookEntry::of('k', self::now(), 'D', 'w', [
            LedgerAccount::Stock->value => BigDecimal::of('10.004'),
            LedgerAccount::Received->value => BigDecimal::of('-9.996'),
            LedgerAccount::Tax->value => BigDecimal::zero(),
        ], LedgerAccount::PriceDifference);
        self::assertTrue($entry->difference()->isZero());
        self::assertCount(2, $entry->lines, 'nothing is booked with 0.00');
    }

    /**
     * @return array<string, string> sums by account
     *
     * @phpstan-impure
     */
    private static function booked(Invoice $invoice): array
    {
        $sums = [];
        foreach (self::get(PaperEntries::class)->until(self::now()) as $entry) {
            foreach ($entry->document === $invoice->number ? $entry->lines : [] as $line) {
                $sums[$line->account->value] = (string) $line->amount;
            }
        }
        ksort($sums);

        return $sums;
    }

    /**
     * By hand: goods for 100.00 from another member state, untaxed: 23 % of it is owed by us and deducted at once. A
     * deposit is no supply yet.
     */
    public function testTaxThatIsNotChargedIsAccountedForOnBothSides(): void
    {
        $supplier = self::supplier();
        $supplier->deliversAs('', Tax::of(TaxCategory::WithinTheUnion));
        $order = self::sentOrder([[self::offer(self::item('K-9'), '10.00', 1, $supplier), 10]], 'PO-K9');
        $problems = new Problems();
        $none = BigDecimal::zero();
        $invoice = self::get(EnterInvoice::class)->enter(new AskedInvoice($supplier, 'V-K9', self::now(), [
            new AskedLine('a', $order->lines()[0], 'Goods', BigDecimal::of(10), BigDecimal::of(10), $none),
            new AskedLine('b', null, 'Deposit', BigDecimal::one(), BigDecimal::of(50), $none, $order),
        ], null, 'k9'), self::person('iris'), $problems) ?? self::fail(implode(' ', $problems->all()));
        $invoice->lines()[0]->decide(QuantityVerdict::Awaited, null);
        $invoice->lines()[1]->decide(null, PriceVerdict::Accepted);
        self::entities()->flush();
        self::get(SettleInvoice::class)->release($invoice->id, $invoice->version(), self::person('iris'));
        $plain = ['deposits' => '50.00', 'payables' => '-150.00', 'received' => '100.00'];
        self::assertSame($plain, self::booked($invoice));
        self::get(CurrentBusiness::class)->get()->accountForTaxBy('Standard');
        self::assertSame($plain + ['tax' => '23.00', 'tax-owed' => '-23.00'], self::booked($invoice));
    }
}
