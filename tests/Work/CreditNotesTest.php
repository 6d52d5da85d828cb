<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Iban;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\ReturnState;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Dock\SupplierReturns;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\ExpectedCredit;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\SupplierAccount;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\PutStockRight;
use TallBarrel\Work\Receiving\SendBack;
use TallBarrel\Work\Settling\AskedCredit;
use TallBarrel\Work\Settling\AskedInvoice;
use TallBarrel\Work\Settling\AskedLine;
use TallBarrel\Work\Settling\EnterCredit;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\SendToBank;
use TallBarrel\Work\Settling\SettleInvoice;

/** What suppliers give back on paper, and what it is taken off from. */
final class CreditNotesTest extends StoreTestCase
{
    private static function order(): PurchaseOrder
    {
        return self::sentOrder([[self::offer(self::item('C-1'), '10.00'), 30]], 'PO-C1');
    }

    /** 30 came and are on an invoice at that price each. */
    private static function invoiced(PurchaseOrder $order, string $price = '10.00', string $number = 'V-C1'): Invoice
    {
        $line = $order->lines()[0];
        $problems = new Problems();
        $invoice = self::get(EnterInvoice::class)->enter(new AskedInvoice($order->supplier, $number, self::now(), [
            new AskedLine('a', $line, 'Goods', BigDecimal::of(30), BigDecimal::of($price), BigDecimal::zero()),
        ], null, $number), self::person('iris'), $problems);
        self::assertSame([], $problems->all());
        self::assertNotNull($invoice);

        return $invoice;
    }

    /** @param array<string, array{string, string, string}> $lines words, amount, percent of tax */
    private static function credit(
        PurchaseOrder $order,
        array $lines,
        ?Problems $problems = null,
        string $number = 'CN-1',
        ?string $total = null,
    ): ?CreditNote {
        return self::get(EnterCredit::class)->enter(new AskedCredit(
            $order->supplier,
            $number,
            self::now()->setTime(0, 0),
            array_map(static fn (array $one): array => [
                $one[0], BigDecimal::of($one[1]), BigDecimal::of($one[2]),
            ], $lines),
            null === $total ? null : BigDecimal::of($total),
            'key-'.$number,
        ), self::person('iris'), $problems ?? new Problems());
    }

    /**
     * @return list<ExpectedCredit>
     *
     * @phpstan-impure
     */
    private static function expected(PurchaseOrder $order): array
    {
        return self::get(CreditNotes::class)->expected($order->supplier);
    }

    private static function settled(Invoice $invoice): Invoice
    {
        return self::get(SettleInvoice::class)->release($invoice->id, $invoice->version(), self::person('iris'));
    }

    private static function come(PurchaseOrder $order): void
    {
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(30));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    public function testWhatWasDisputedAndNeverPaidClosesItsDisputeAndBringsNothingBack(): void
    {
        $order = self::order();
        self::come($order);
        $invoice = self::invoiced($order, '11.00');
        self::get(SettleInvoice::class)->decide($invoice->id, $invoice->version(), $invoice->lines()[0]->id,
            PriceVerdict::Credit, self::person('mara'));
        $owed = self::expected($order);
        self::assertSame([['30.00', false]], array_map(
            static fn (ExpectedCredit $one): array => [
                (string) BigDecimal::of($one->amount)->toScale(2), $one->isPaid,
            ],
            $owed,
        ));
        $note = self::credit($order, [$owed[0]->key => ['Price', '30.00', '0']]);
        self::assertSame(['30.00', '0.00'], [
            (string) $note?->sums()->total->amount, (string) $note?->due()->amount,
        ]);
        self::assertFalse($note?->isOpen());
        self::assertSame([], self::expected($order));
        // What they answered stays as it was decided, and so does the invoice.
        $invoice = self::entities()->find(Invoice::class, $invoice->id) ?? self::fail('It is gone.');
        $settle = self::get(SettleInvoice::class);
        [$id, $version, $line] = [$invoice->id, $invoice->version(), $invoice->lines()[0]->id];
        self::mustRefuse(
            static fn () => $settle->decide($id, $version, $line, PriceVerdict::Accepted, self::person('mara')),
            'credit note CN-1 answers that already',
        );
        self::mustRefuse(static fn () => $settle->discard($id, $version, self::person('iris')), 'CN-1 answers');
        $problems = new Problems();
        self::assertNull(self::credit($order, [$owed[0]->key => ['Price', '30.00', '0']], $problems, 'CN-2'));
        self::assertStringContainsString('made good already', (string) $problems->at($owed[0]->key));
    }

    /** Of two returns that one credit note is for, the second cannot be made good any more: nothing of it is kept. */
    public function testACreditNoteIsEnteredWholeOrNotAtAll(): void
    {
        $order = self::order();
        self::come($order);
        self::settled(self::invoiced($order));
        $receipt = self::entities()->getRepository(Receipt::class)->findOneBy([], ['id' => 'DESC']);
        self::assertNotNull($receipt);
        $item = $receipt->lines()[0]->line->item;
        self::assertNotNull($item);
        $right = self::get(PutStockRight::class);
        $free = new StockPlace(self::site('FERRY'), StockState::Available, '');
        $held = new StockPlace(self::site('FERRY'), StockState::Held, '');
        $right->become($item, $free, StockState::Held, BigDecimal::of(24), 'torn', self::person('tam'), 'h');
        $send = self::get(SendBack::class);
        $begin = static fn (StockState $in, ReturnWish $wish, string $key) => $send->begin(
            $receipt, [$receipt->lines()[0]->id => BigDecimal::of(2)], $in, $wish, 'torn', '', false,
            self::person('tam'), $key, new Problems(),
        );
        $first = $begin(StockState::Available, ReturnWish::Credit, 'r1');
        self::assertNotNull($first);
        self::assertNotNull($begin(StockState::Held, ReturnWish::LowerPrice, 'r2'));
        $send->send($first, false, self::person('tam'));
        $right->become($item, $held, StockState::Available, BigDecimal::of(24), 'fine', self::person('tam'), 'f');
        $lines = [];
        foreach (self::expected($order) as $one) {
            $lines[$one->key] = [$one->words, $one->amount, '0'];
        }
        self::assertCount(2, $lines);
        ksort($lines);
        $problems = new Problems();
        self::assertNull(self::credit($order, $lines, $problems));
        self::assertNotNull($problems->at(''));
        self::assertFalse(self::connection()->fetchOne("SELECT 1 FROM credit_note WHERE number = 'CN-1'"));
        self::assertSame(
            ReturnState::Sent,
            self::get(SupplierReturns::class)->byNumber($first->number)?->state(),
        );
    }

    public function testGoodsThatWentBackAreTakenOffWhatIsPaidNext(): void
    {
        $order = self::order();
        self::come($order);
        self::settled(self::invoiced($order));
        $receipt = self::entities()->getRepository(Receipt::class)->findOneBy([], ['id' => 'DESC']);
        self::assertNotNull($receipt);
        $send = self::get(SendBack::class);
        $back = $send->begin($receipt, [$receipt->lines()[0]->id => BigDecimal::of(4)], StockState::Available,
            ReturnWish::Credit, 'torn', '', false, self::person('tam'), 'r', new Problems());
        self::assertNotNull($back);
        self::assertSame([], self::expected($order), 'it has not left yet');
        $send->send($back, false, self::person('tam'));
        $owed = self::expected($order);
        self::assertSame([true], array_map(static fn (ExpectedCredit $one): bool => $one->isPaid, $owed));
        self::assertEqualsWithDelta(40.0, (float) $owed[0]->amount, 0.001);

        $problems = new Problems();
        self::assertNull(self::credit($order, [$owed[0]->key => ['Torn', '40.00', '23']], $problems, total: '50'));
        self::assertStringContainsString('come to 49.20, not 50.00', (string) $problems->at('total'));
        $note = self::credit($order, [$owed[0]->key => ['Torn', '40.00', '23'], 'free-0' => ['Bonus', '5', '0']]);
        self::assertNotNull($note);
        self::assertSame('54.20', (string) $note->due()->amount);
        self::assertSame(
            [ReturnState::Settled, 'CN-1'],
            (static fn ($one): array => [$one?->state(), $one?->settledWith()])(
                self::get(SupplierReturns::class)->byNumber($back->number),
            ),
        );
        self::assertSame($note, self::credit($order, ['free-0' => ['Bonus', '5', '0']]), 'the same form is one');

        $this->takenOff($note);
    }

    public function testWhoIsPaidIsToldForWhatInOneLetter(): void
    {
        $order = self::order();
        self::come($order);
        $invoice = self::settled(self::invoiced($order));
        $note = self::credit($order, ['free-0' => ['Bonus', '20', '0'], 'free-1' => ['Less', '-5', '0']]);
        self::assertNotNull($note);
        $problems = new Problems();
        self::assertNull(self::credit($order, ['free-0' => ['Less', '-5', '0']], $problems, 'CN-9'));
        self::assertStringContainsString('gives something back', (string) $problems->at(''));
        $before = count(self::getMailerMessages());
        self::get(SettleInvoice::class)->pay([[$invoice->id, $invoice->version()]], self::now()->setTime(0, 0),
            self::person('iris'), [[$note->id, $note->version()]], tell: true);
        $letters = array_slice(self::getMailerMessages(), $before);
        self::assertCount(1, $letters);
        foreach (['285.00', 'invoice V-C1', 'less your credit note CN-1'] as $words) {
            self::assertStringContainsString($words, quoted_printable_decode($letters[0]->toString()));
        }
        self::assertNotSame([], self::connection()->fetchFirstColumn(
            "SELECT id FROM audit_entry WHERE words LIKE '%is told of the payment'",
        ));
    }

    private function takenOff(CreditNote $note): void
    {
        $settle = self::get(SettleInvoice::class);
        $invoice = self::entities()->getRepository(Invoice::class)->findOneBy(['number' => 'V-C1']);
        self::assertNotNull($invoice);
        $day = self::now()->setTime(0, 0);
        $credit = [$note->id, $note->version()];
        $alone = static fn () => $settle->pay([], $day, self::person('iris'), [$credit]);
        self::mustRefuse($alone, '54.20 too much');
        $stale = static fn () => $settle->pay([[$invoice->id, $invoice->version()]], $day, self::person('iris'),
            [[$note->id, 99]]);
        self::mustRefuse($stale, 'changed by somebody else');
        $this->inOneFile();
        [$invoice, $note] = $this->again();
        $credit = [$note->id, $note->version()];
        $settle->pay([[$invoice->id, $invoice->version()]], $day, self::person('iris'), [$credit]);
        [, $note] = $this->again();
        self::assertFalse($note->isOpen());
        self::assertNotContains($note, self::get(CreditNotes::class)->open());
    }

    /** What the bank gets is one amount: 300.00 less 54.20. */
    private function inOneFile(): void
    {
        [$invoice, $note] = $this->again();
        $iban = Iban::of('DE89370400440532013000');
        self::get(CurrentBusiness::class)->get()->paysFrom($iban, '');
        $account = new SupplierAccount($invoice->supplier, $iban, '', 'Testing', self::person('iris'), self::now());
        $account->decide(true, self::person('rowan'), self::now(), false);
        self::entities()->persist($account);
        self::entities()->flush();
        $send = static fn (bool $again): array => self::get(SendToBank::class)->send(
            [[$invoice->id, $invoice->version()]],
            self::now()->setTime(0, 0),
            $again,
            self::person('iris'),
            [[$note->id, $note->version()]],
        );
        [, $file] = $send(false);
        self::assertStringContainsString('>245.80</InstdAmt>', $file);
        self::assertStringContainsString('Invoices V-C1 less credit notes CN-1', $file);
        self::assertStringContainsString('<NbOfTxs>1</NbOfTxs>', $file);
    }

    /** @return array{Invoice, CreditNote} */
    private function again(): array
    {
        self::entities()->clear();
        $invoice = self::entities()->getRepository(Invoice::class)->findOneBy(['number' => 'V-C1']);
        $note = self::entities()->getRepository(CreditNote::class)->findOneBy(['number' => 'CN-1']);

        return [$invoice ?? throw new Refused('no invoice'), $note ?? throw new Refused('no credit note')];
    }
}
