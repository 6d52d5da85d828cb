<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Settling\MatchStatement;
use TallBarrel\Work\Settling\Payout;
use TallBarrel\Work\Settling\SettleInvoice;
use TallBarrel\Work\Settling\StatementMatch;

/** What was paid, in whole or in part, by hand or as a bank statement says (ISO 20022 camt.053). */
final class BankStatementTest extends StoreTestCase
{
    private static function invoice(
        string $number,
        string $amount,
        ?Supplier $of = null,
        string $day = '-3 days',
    ): Invoice {
        $supplier = $of ?? self::supplier();
        $invoice = new Invoice($supplier, $number, self::now()->modify($day)->setTime(0, 0),
            ExchangeRate::of('EUR', 'EUR', 1), self::person('iris'), self::now(), 'key-'.$number);
        new InvoiceLine($invoice, 1, null, 'Goods', BigDecimal::one(), BigDecimal::of($amount), BigDecimal::zero());
        $invoice->release(self::person('rowan'), self::now());
        self::entities()->persist($invoice);
        self::entities()->flush();

        return $invoice;
    }

    /** @return list<StatementMatch> */
    private static function read(string $reference = 'none', string $iban = 'DE89370400440532013000'): array
    {
        $xml = (string) file_get_contents(dirname(__DIR__).'/Reference/statement.xml');
        self::get(CurrentBusiness::class)->get()->paysFrom(Iban::of($iban), '');

        return self::get(MatchStatement::class)->match('s.xml', str_replace('{reference}', $reference, $xml));
    }

    private static function pay(
        Invoice $invoice,
        string $amount,
        string $reference = '',
        string $day = 'today',
    ): Invoice {
        return self::get(SettleInvoice::class)->pay(
            [[$invoice->id, $invoice->version()]],
            self::now()->modify($day)->setTime(0, 0),
            self::person('iris'),
            [],
            new Payout(Money::of($amount, 'EUR'), $reference),
        )[0];
    }

    public function testPaymentsAreKnownByOurReferenceOrTheNumberOfTheInvoice(): void
    {
        $whole = self::invoice('V-B1', '300.00');
        $whole->goesToBank('B-7');
        $part = self::invoice('V-B2', '120.00');
        self::entities()->flush();
        $found = self::read('B-7-'.$whole->id);
        self::assertSame(
            [
                ['300.00', ['V-B1'], 'by our reference', false],
                ['100.00', ['V-B2'], 'by the number that stands there, a part', true],
                ['70.00', [], 'no invoice of that number waits to be paid', false],
            ],
            array_map(static fn (StatementMatch $one): array => [
                (string) $one->entry->amount->amount,
                array_map(static fn (Invoice $invoice): string => $invoice->number, $one->invoices),
                $one->words,
                $one->isPart,
            ], $found),
            'only what is booked and went out; another number that contains it is another',
        );
        self::assertSame(['BANK-1', 'BANK-2/1', 'BANK-2/2'], array_map(
            static fn (StatementMatch $one): string => $one->entry->bankReference,
            $found,
        ));
        self::pay($whole, '300.00', 'BANK-1', '-2 days');
        self::assertSame(InvoiceState::Paid, $whole->state());
        self::assertStringContainsString('noted already, for V-B1', self::read('B-7-'.$whole->id)[0]->words);
        self::assertSame(InvoiceState::Settled, $part->state());
    }

    public function testAPartLeavesTheRestToBePaidAndTheDiscountIsGone(): void
    {
        $supplier = self::supplier();
        $supplier->agreeTerms(PaymentTerms::net(30, '2', 10));
        $invoice = self::invoice('V-B3', '100.00', $supplier);
        self::assertSame('98.00', (string) $invoice->payable()->toPayOn(self::now())->rounded()->amount);
        self::mustRefuse(static fn () => self::pay($invoice, '0'), 'cannot be paid');
        self::mustRefuse(static fn () => self::pay($invoice, '98.01'), '98.00 is left');
        $invoice = self::pay(self::again($invoice), '40');
        self::assertSame([InvoiceState::Settled, '60.00'], [
            $invoice->state(), (string) $invoice->payable()->toPayOn(self::now())->rounded()->amount,
        ]);
        self::mustRefuse(
            static fn () => self::get(SettleInvoice::class)
                ->reopen($invoice->id, $invoice->version(), self::person('iris')),
            'A part of V-B3 is paid already',
        );
        $invoice = self::pay(self::again($invoice), '60');
        self::assertSame([InvoiceState::Paid, '100.00'], [$invoice->state(), (string) $invoice->paid()?->amount]);
    }

    /** Sent on the last day of the discount, booked two days later. */
    public function testMoneyThatWasUnderWayStillHasTheDiscount(): void
    {
        $supplier = self::supplier();
        $supplier->agreeTerms(PaymentTerms::net(30, '2', 10));
        $late = self::pay(self::invoice('V-B4', '100.00', $supplier, '-12 days'), '98');
        self::assertSame(InvoiceState::Paid, $late->state());
        $tooLate = self::pay(self::invoice('V-B5', '100.00', $supplier, '-15 days'), '98');
        self::assertSame(InvoiceState::Settled, $tooLate->state(), 'two are left');
    }

    public function testAStatementOfAnotherAccountIsRefused(): void
    {
        self::mustRefuse(static fn () => self::read(iban: 'GB82WEST12345698765432'), 'is of the account DE89');
        self::mustRefuse(
            static fn () => self::get(MatchStatement::class)->match('s.xml', '<Document xmlns="urn:x"/>'),
            'is no bank statement',
        );
    }

    /** Worked by hand: 121.00 at 1.10 for one were 110.00; at 1.21 they cost 100.00, 10.00 less. */
    public function testWhatTheRateGainedIsTold(): void
    {
        $invoice = new Invoice(self::supplier(), 'V-B6', self::now(), ExchangeRate::of('EUR', 'USD', '1.10'),
            self::person('iris'), self::now(), 'key-V-B6');
        new InvoiceLine($invoice, 1, null, 'Goods', BigDecimal::one(), BigDecimal::of('121'), BigDecimal::zero());
        $invoice->release(self::person('rowan'), self::now());
        $invoice->pay(self::now(), ExchangeRate::of('EUR', 'USD', '1.21'), null);
        self::assertSame('-10.00', (string) $invoice->payments()[0]->exchangeDifference());
    }

    private static function again(Invoice $invoice): Invoice
    {
        self::entities()->clear();

        return self::entities()->find(Invoice::class, $invoice->id) ?? self::fail('It is gone.');
    }
}
