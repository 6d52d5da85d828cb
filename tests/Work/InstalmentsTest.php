<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Settling\CashFlow;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Desk\Settle\PaymentDue;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Settle\CashFlows;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\SupplierAccount;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Settling\SendToBank;
use TallBarrel\Work\Settling\SettleInvoice;

/** Half of an invoice after 30 days, half after 60: each part is due, paid and reckoned with by itself. */
final class InstalmentsTest extends StoreTestCase
{
    private static function invoice(PaymentTerms $terms, string $day = '-10 days'): Invoice
    {
        $supplier = self::supplier();
        $supplier->agreeTerms($terms);
        $invoice = new Invoice($supplier, 'V-P1', self::now()->modify($day)->setTime(0, 0),
            ExchangeRate::of('EUR', 'EUR', 1), self::person('iris'), self::now(), 'key-V-P1');
        new InvoiceLine($invoice, 1, null, 'Goods', BigDecimal::one(), BigDecimal::of('901'), BigDecimal::zero());
        $invoice->release(self::person('rowan'), self::now());
        self::entities()->persist($invoice);
        self::entities()->flush();

        return $invoice;
    }

    private static function halves(): PaymentTerms
    {
        return PaymentTerms::net(30)->inInstalments('50@30 50@60');
    }

    /** What is ticked as paid on a day. */
    private static function pay(Invoice $invoice, string $day = 'today'): Invoice
    {
        return self::get(SettleInvoice::class)->pay(
            [[$invoice->id, $invoice->version()]],
            self::now()->modify($day)->setTime(0, 0),
            self::person('iris'),
        )[0];
    }

    /** @return list<array{string, string}> days from today, and what flows then */
    private static function expected(): array
    {
        $flows = array_filter(
            self::get(CashFlows::class)->from(self::now()->setTime(0, 0)),
            static fn (CashFlow $flow): bool => 'V-P1' === $flow->of,
        );

        return array_map(
            static fn (CashFlow $flow): array => [
                self::now()->setTime(0, 0)->diff($flow->day)->format('%r%a'),
                (string) $flow->amount->rounded()->amount,
            ],
            array_values($flows),
        );
    }

    private static function due(Invoice $invoice): PaymentDue
    {
        foreach (self::get(Invoices::class)->toPay() as [$one, $payable]) {
            if ($one->id === $invoice->id) {
                self::assertEquals($invoice->payable(), $payable, 'as its lines say');

                return PaymentDue::of($one, $payable, self::now()->setTime(0, 0), 5.0);
            }
        }
        self::fail('It is not to be paid.');
    }

    public function testEachPartIsDueAndPaidByItself(): void
    {
        $invoice = self::invoice(self::halves());
        $due = self::due($invoice);
        self::assertSame(['450.50', 2, false], [(string) $due->amount->amount, $due->parts, $due->late]);
        self::assertSame('20', self::now()->setTime(0, 0)->diff($due->day)->format('%r%a'));
        self::assertSame([['20', '450.50'], ['50', '450.50']], self::expected());

        $invoice->goesToBank('B-8');
        self::entities()->flush();
        $invoice = self::pay($invoice);
        self::assertSame([InvoiceState::Settled, '450.50', ''], [
            $invoice->state(),
            (string) $invoice->payable()->leftOn(self::now())->rounded()->amount,
            $invoice->bankFile(),
        ], 'the other half goes to the bank anew');
        self::assertSame([['50', '450.50']], self::expected());

        self::entities()->clear();
        $again = self::get(Invoices::class)->find($invoice->id) ?? self::fail('no invoice');
        self::assertSame(InvoiceState::Paid, self::pay($again)->state());
        self::assertSame([], self::expected());
    }

    /** Each half goes by itself, and only what went and was not paid asks whether it is to go once more. */
    public function testEachPartGoesToTheBankByItself(): void
    {
        $invoice = self::invoice(self::halves());
        $iban = Iban::of('DE89370400440532013000');
        self::get(CurrentBusiness::class)->get()->paysFrom($iban, '');
        $account = new SupplierAccount($invoice->supplier, $iban, '', 'Testing', self::person('iris'), self::now());
        $account->decide(true, self::person('rowan'), self::now(), false);
        self::entities()->persist($account);
        self::entities()->flush();
        $send = static function (int $id): string {
            self::entities()->clear();
            $seen = self::get(Invoices::class)->find($id) ?? self::fail('no invoice');
            $day = self::now()->setTime(0, 0);

            return self::get(SendToBank::class)->send([[$id, $seen->version()]], $day, false, self::person('iris'))[1];
        };
        self::assertStringContainsString('>450.50</InstdAmt>', $send($invoice->id));
        self::mustRefuse(static fn () => $send($invoice->id), 'tick “once more” if that was not sent');
        self::entities()->clear();
        self::pay(self::get(Invoices::class)->find($invoice->id) ?? self::fail('no invoice'));
        self::assertStringContainsString('>450.50</InstdAmt>', $send($invoice->id));
    }

    public function testWhatIsOverdueIsPaidTogether(): void
    {
        $invoice = self::invoice(self::halves(), '-70 days');
        self::assertTrue(self::due($invoice)->late);
        self::assertSame('901.00', (string) self::due($invoice)->amount->rounded()->amount);
        self::assertSame(InvoiceState::Paid, self::pay($invoice)->state());
    }

    public function testAPartOfAPartLeavesTheRestOfItDueFirst(): void
    {
        $invoice = self::invoice(self::halves());
        $invoice->goesToBank('B-9');
        $part = Money::of('50', 'EUR');
        self::entities()->flush();
        $invoice = self::get(SettleInvoice::class)
            ->payPart($invoice->id, $invoice->version(), $part, self::now()->setTime(0, 0), self::person('iris'));
        self::assertSame('B-9', $invoice->bankFile(), 'that payment is still under way');
        self::assertSame([['20', '400.50'], ['50', '450.50']], self::expected());
    }

    /** Money at 5 % a year gains less than 2 % for 20 days and more: then all of it goes at once, early. */
    public function testADiscountThatGainsMoreComesBeforeInstalments(): void
    {
        $invoice = self::invoice(PaymentTerms::net(30, '2', 14)->inInstalments('50@30 50@60'));
        $due = self::due($invoice);
        self::assertSame([true, '882.98', 1], [$due->early, (string) $due->amount->amount, $due->parts]);
        self::assertSame(InvoiceState::Paid, self::pay($invoice)->state());
    }

    public function testTheBankIsExpectedToPayWhatIsDue(): void
    {
        $invoice = self::invoice(self::halves());
        $of = static fn (string $amount): string => (string) $invoice
            ->payable()->expectedOf(Money::of($amount, 'EUR'), self::now())->rounded()->amount;
        self::assertSame('450.50', $of('450.50'), 'an instalment is no part that somebody has to look into');
        self::assertSame('901.00', $of('100'));
        self::assertSame('901.00', $of('901'));
        $invoice->supplier->agreeTerms(PaymentTerms::net(30, '2', 14));
        self::assertSame('882.98', $of('901'), 'all of it, where less is owed yet, is too much');
    }
}
