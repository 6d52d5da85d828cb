<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\Uninvoiced;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Settling\AskedInvoice;
use TallBarrel\Work\Settling\AskedLine;
use TallBarrel\Work\Settling\EnterInvoice;
use TallBarrel\Work\Settling\SettleInvoice;

/** From what came to what is paid. */
final class SettlingTest extends StoreTestCase
{
    /** 30 ordered at 10.00, so many received. */
    private static function received(string $number, int $packs): PurchaseOrder
    {
        $order = self::sentOrder([[self::offer(self::item($number), '10.00'), 30]], $number);
        self::come($order, $packs);

        return $order;
    }

    private static function come(PurchaseOrder $order, int $packs): void
    {
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of($packs));
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::entities()->flush();
    }

    private static function asked(
        PurchaseOrder $order,
        int $packs,
        string $price = '10.00',
        string $number = 'V-1',
        ?string $total = null,
        string $freight = '',
        ?\DateTimeImmutable $day = null,
    ): AskedInvoice {
        $line = $order->lines()[0];
        $lines = [
            new AskedLine(
                'packs-1',
                $line,
                $line->description,
                BigDecimal::of($packs),
                BigDecimal::of($price),
                BigDecimal::zero(),
            ),
        ];
        if ('' !== $freight) {
            $lines[] = new AskedLine(
                'charge-0',
                null,
                'Freight',
                BigDecimal::one(),
                BigDecimal::of($freight),
                BigDecimal::of(21),
            );
        }

        return new AskedInvoice(
            $order->supplier,
            $number,
            $day ?? self::now()->setTime(0, 0),
            $lines,
            null === $total ? null : BigDecimal::of($total),
            'key-'.$number,
        );
    }

    private static function entered(AskedInvoice $asked): Invoice
    {
        $problems = new Problems();
        $invoice = self::get(EnterInvoice::class)->enter($asked, self::person('iris'), $problems);
        self::assertSame([], $problems->all());
        self::assertNotNull($invoice);

        return $invoice;
    }

    /** @return array<string, string> */
    private static function refused(AskedInvoice $asked): array
    {
        $problems = new Problems();
        self::assertNull(self::get(EnterInvoice::class)->enter($asked, self::person('iris'), $problems));

        return $problems->all();
    }

    /** @return list<string> packs of each receipt without an invoice */
    private static function open(PurchaseOrder $order): array
    {
        return array_map(
            static fn (Uninvoiced $one): string => (string) BigDecimal::of(array_values($one->packs)[0])
                ->strippedOfTrailingZeros(),
            self::get(Invoices::class)->uninvoiced($order->supplier),
        );
    }

    public function testThirtyOrderedTwentyTwoReceivedTwentyTwoOwed(): void
    {
        $order = self::received('PO-S1', 22);
        self::assertSame(['22'], self::open($order));
        $invoice = self::entered(self::asked($order, 30, freight: '38.00'));
        self::assertSame('345.98', (string) $invoice->asked()->total->amount, '300 + 38 + 21 % of 38');
        self::assertSame('265.98', (string) $invoice->owed()->total->amount, '220 + 38 + 21 % of 38');
        self::assertSame([], self::open($order));
        self::assertFalse($invoice->lines()[0]->isDecided());
        /** @return list<array<string, mixed>> */
        $differs = static fn (): array => array_values(array_filter(
            self::get(EntityManagerInterface::class)->getConnection()->fetchAllAssociative(Invoices::DIFFERING),
            static fn (array $row): bool => 'V-1' === $row['number'],
        ));
        self::assertEquals(80.0, $differs()[0]['more']);
        $settle = self::get(SettleInvoice::class);
        try {
            $settle->release($invoice->id, $invoice->version(), self::person('iris'));
            self::fail('nobody has decided about the eight');
        } catch (Refused $refused) {
            self::assertStringContainsString('nobody has decided', $refused->getMessage());
        }
        $invoice = self::get(Invoices::class)->find($invoice->id);
        self::assertNotNull($invoice);
        $order = $invoice->lines()[0]->orderLine->order ?? $order;
        $line = $invoice->lines()[0]->id;
        $settle->decide($invoice->id, $invoice->version(), $line, QuantityVerdict::AsReceived, self::person('mara'));
        self::assertSame([], $differs());
        $settle->release($invoice->id, $invoice->version(), self::person('iris'));
        self::assertSame(InvoiceState::Settled, $invoice->state());
        $settle->pay([[$invoice->id, $invoice->version()]], self::now()->setTime(0, 0), self::person('iris'));
        self::assertSame('265.98', (string) $invoice->paid()?->amount);
        // The eight come later, and are on no invoice then.
        self::come($order, 8);
        self::assertSame(['8'], self::open($order));
    }

    public function testWhatIsOnItsWayMayBePaidAndIsNotAskedForAgain(): void
    {
        $order = self::received('PO-S2', 22);
        $invoice = self::entered(self::asked($order, 30));
        self::get(SettleInvoice::class)->decide(
            $invoice->id,
            $invoice->version(),
            $invoice->lines()[0]->id,
            QuantityVerdict::Awaited,
            self::person('mara'),
        );
        self::assertSame('300.00', (string) $invoice->owed()->total->amount);
        self::come($order, 8);
        self::assertSame([], self::open($order));
    }

    public function testSeveralInvoicesOfOneOrderDoNotPayTwice(): void
    {
        $order = self::received('PO-S3', 22);
        self::entered(self::asked($order, 12, number: 'A'));
        self::assertSame(['10'], self::open($order));
        $second = self::entered(self::asked($order, 22, number: 'B'));
        self::assertSame('100.00', (string) $second->owed()->total->amount, 'twelve of the 22 are on the other');
        self::assertSame('12', (string) $second->lines()[0]->match()->notReceived()->toScale(0));
    }

    public function testAnAcceptedPriceIsTheStandingPriceFromNowOn(): void
    {
        $order = self::received('PO-S4', 30);
        $invoice = self::entered(self::asked($order, 30, '10.50'));
        self::assertSame('300.00', (string) $invoice->owed()->total->amount, 'the agreed price until somebody says so');
        $settle = self::get(SettleInvoice::class);
        $seen = $invoice->version();
        $line = $invoice->lines()[0]->id;
        $settle->decide($invoice->id, $seen, $line, PriceVerdict::Accepted, self::person('rowan'));
        self::assertSame('315.00', (string) $invoice->owed()->total->amount);
        $standing = $order->lines()[0]->offer?->prices()->priceFor('30');
        self::assertSame('10.5', (string) $standing?->strippedOfTrailingZeros());
        $this->expectExceptionMessage('changed by somebody else');
        $settle->release($invoice->id, $seen, self::person('iris'));
    }

    public function testASuppliersToleranceDecidesWhatPasses(): void
    {
        $order = self::received('PO-S13', 30);
        $invoice = self::entered(self::asked($order, 30, '10.10'));
        self::assertTrue($invoice->lines()[0]->isDecided(), 'a percent, three in all');
        $order->supplier->mayAsk(BigDecimal::of('0.5'), null);
        self::assertFalse($invoice->lines()[0]->isDecided());
        $order->supplier->mayAsk(BigDecimal::of(3), BigDecimal::of(2));
        self::assertFalse($invoice->lines()[0]->isDecided());
        $this->expectExceptionMessage('A tolerance of 21 %');
        $order->supplier->mayAsk(BigDecimal::of(21), null);
    }

    public function testAskingForACreditWritesToTheSupplier(): void
    {
        $order = self::received('PO-S5', 22);
        $invoice = self::entered(self::asked($order, 30));
        $letters = static fn (): int => count(self::getMailerMessages());
        $before = $letters();
        self::get(SettleInvoice::class)->decide(
            $invoice->id,
            $invoice->version(),
            $invoice->lines()[0]->id,
            QuantityVerdict::Credit,
            self::person('mara'),
        );
        self::assertSame('220.00', (string) $invoice->owed()->total->amount);
        self::assertSame($before + 1, $letters());
        $letter = self::getMailerMessages()[$before];
        self::assertStringContainsString('8 did not', $letter->toString());
    }

    public function testWhatGivesSomethingBackIsNoInvoice(): void
    {
        $order = self::received('PO-S7', 22);
        self::assertStringContainsString(
            'is a credit note',
            self::refused(self::asked($order, 22, freight: '-400'))[''],
        );
        $invoice = self::entered(self::asked($order, 22, freight: '-100.01'));
        self::assertSame('98.99', (string) $invoice->asked()->total->amount);
    }

    public function testWhereNobodyHasAnAddressNothingIsDecided(): void
    {
        $order = self::received('PO-S6', 22);
        $invoice = self::entered(self::asked($order, 30));
        self::connection()->executeStatement(
            "UPDATE supplier_contact SET email = '' WHERE supplier_id = ?",
            [$order->supplier->id],
        );
        self::entities()->clear();
        self::mustRefuse(static fn () => self::get(SettleInvoice::class)->decide($invoice->id, $invoice->version(),
            $invoice->lines()[0]->id, QuantityVerdict::Credit, self::person('mara')), 'has an address to write to');
        self::assertNull(self::connection()->fetchOne(
            'SELECT on_quantity FROM invoice_line WHERE invoice_id = ?',
            [$invoice->id],
        ));
    }

    public function testWhoReceivedDoesNotRelease(): void
    {
        $order = self::received('PO-S6', 30);
        $invoice = self::entered(self::asked($order, 30));
        $this->expectExceptionMessage('You booked in what is on V-1');
        self::get(SettleInvoice::class)->release($invoice->id, $invoice->version(), self::person('tam'));
    }

    public function testWhatIsWrongIsSaidAtItsPlaceAndNothingIsKept(): void
    {
        $order = self::received('PO-S7', 30);
        $sum = self::refused(self::asked($order, 30, total: '310.00'))['total'];
        self::assertSame('The lines with tax come to 300.00, not 310.00: 10.00 is missing.', $sum);
        $number = self::refused(self::asked($order, 30, number: ''))['number'];
        self::assertStringContainsString('Type the number', $number);
        self::assertStringContainsString('every quantity is 0', self::refused(self::asked($order, 0))['']);
        $tomorrow = self::now()->setTime(0, 0)->modify('+1 day');
        $day = self::refused(self::asked($order, 30, day: $tomorrow))['day'];
        self::assertStringContainsString('a day to come', $day);
        $before = self::now()->setTime(0, 0)->modify('-1 day');
        self::assertStringContainsString(
            'before PO-S7 was sent',
            self::refused(self::asked($order, 30, day: $before))['day'],
        );
        $other = self::received('PO-S8', 5);
        $line = $other->lines()[0];
        $mixed = new AskedInvoice($order->supplier, 'X', self::now()->setTime(0, 0), [
            new AskedLine('packs-9', $line, 'Theirs', BigDecimal::of(5), BigDecimal::of(10), BigDecimal::zero()),
        ], null, 'key-mixed');
        self::assertStringContainsString('was ordered from', self::refused($mixed)['packs-9']);
        self::assertSame(['30'], self::open($order));
        $first = self::entered(self::asked($order, 30, total: '300.00'));
        self::assertSame($first, self::entered(self::asked($order, 30)), 'pressed twice, entered once');
        $again = self::asked($order, 1);
        $again = new AskedInvoice($again->supplier, 'V-1', $again->day, $again->lines, null, 'another key');
        self::assertStringContainsString('was entered on', self::refused($again)['number']);
    }

    public function testOnlyWhatIsReleasedIsPaidAndAllOrNothing(): void
    {
        $one = self::entered(self::asked(self::received('PO-S9', 30), 30, number: 'N1'));
        $two = self::entered(self::asked(self::received('PO-S10', 30), 30, number: 'N2'));
        $settle = self::get(SettleInvoice::class);
        $settle->release($one->id, $one->version(), self::person('iris'));
        [$first, $second] = [$one->id, $two->id];
        try {
            $settle->pay(
                [[$first, $one->version()], [$second, $two->version()]],
                self::now()->setTime(0, 0),
                self::person('iris'),
            );
            self::fail('N2 is not released');
        } catch (Refused $refused) {
            self::assertSame('N2 is not settled yet.', $refused->getMessage());
        }
    }

    public function testADiscountIsTakenOnlyWhileItIsToBeHad(): void
    {
        $order = self::received('PO-S11', 30);
        $order->supplier->agreeTerms(PaymentTerms::net(30, 2, 10));
        $invoice = self::entered(self::asked($order, 30));
        self::assertSame('294.00', (string) $invoice->payable()->toPayOn($invoice->day->modify('+10 days'))->amount);
        self::assertSame('300.00', (string) $invoice->payable()->toPayOn($invoice->day->modify('+11 days'))->amount);
    }

    public function testGivenUpItsGoodsWaitForAnInvoiceAgain(): void
    {
        $order = self::received('PO-S12', 30);
        $invoice = self::entered(self::asked($order, 30));
        self::get(SettleInvoice::class)->discard($invoice->id, $invoice->version(), self::person('iris'));
        self::assertSame(['30'], self::open($order));
    }
}
