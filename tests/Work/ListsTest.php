<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\ContestedLine;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Quote\RoundRow;
use TallBarrel\Store\Quote\Rounds;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\ExpectedRow;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\InvoiceRow;
use TallBarrel\Store\Settle\InvoiceRows;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\Landed;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\SpreadCharge;
use TallBarrel\Work\Sourcing\BeginRound;
use TallBarrel\Work\Sourcing\Candidates;

/** What lists read row by row is what the things themselves say. */
final class ListsTest extends StoreTestCase
{
    private static function received(string $order, int $packs = 10, int $ordered = 10): Receipt
    {
        $delivery = self::delivery(self::sentOrder(
            [[self::offer(self::item($order), '10.00', 1, self::supplier()), $ordered]],
            $order,
        ));
        $delivery->lines()[0]->count(BigDecimal::of($packs));
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function invoice(string $number, OrderLine $of, int $packs, string $price, int $came): Invoice
    {
        $invoice = new Invoice(self::supplier(), $number, self::now()->modify('-1 year')->setTime(0, 0),
            ExchangeRate::of('EUR', 'EUR', 1), self::person('iris'), self::now(), 'key-'.$number);
        $line = new InvoiceLine($invoice, 1, $of, 'Goods', BigDecimal::of($packs), BigDecimal::of($price),
            BigDecimal::of(23));
        $line->weigh(BigDecimal::of($came));
        new InvoiceLine($invoice, 2, null, 'Carriage', BigDecimal::one(), BigDecimal::of('4.99'), BigDecimal::zero());
        self::entities()->persist($invoice);
        self::entities()->flush();

        return $invoice;
    }

    /** @return array<string, InvoiceRow> by number */
    private static function rows(): array
    {
        $rows = [];
        foreach (self::get(InvoiceRows::class)->entered() as $row) {
            $rows[$row->number] = $row;
        }

        return $rows;
    }

    /** Of the demo's, and of some that differ in each way there is. */
    public function testInvoicesAreMatchedInTheListAsByThemselves(): void
    {
        $line = self::received('L-1')->lines()[0]->line;
        $agrees = self::invoice('V-L1', $line, 10, '10.00', 10);
        $short = self::invoice('V-L2', $line, 10, '10.00', 7);
        $dear = self::invoice('V-L3', $line, 10, '12.00', 10);
        $both = self::invoice('V-L4', $line, 10, '12.00', 7);
        $within = self::invoice('V-L5', $line, 10, '10.05', 10);
        $rows = self::rows();
        self::assertSame([0, 1, 1, 1, 0], array_map(
            static fn (Invoice $one): int => $rows[$one->number]->undecided,
            [$agrees, $short, $dear, $both, $within],
        ));
        self::assertSame('127.99', (string) $rows['V-L1']->asked->amount, 'by hand: 100.00 and 23.00 of tax, 4.99');
        foreach (self::get(Invoices::class)->in(InvoiceState::Entered) as $invoice) {
            $row = $rows[$invoice->number];
            $open = array_filter($invoice->lines(), static fn (InvoiceLine $one): bool => !$one->isDecided());
            self::assertSame(count($open), $row->undecided, $invoice->number);
            self::assertSame((string) $invoice->asked()->total->amount, (string) $row->asked->amount);
            self::assertSame($invoice->supplier->shortName(), $row->shortSupplier());
        }
        self::assertSame('V-L1', array_key_first($rows), 'the oldest first');
    }

    public function testWhatWasDecidedAndWhatASupplierMayAskMoreCount(): void
    {
        $line = self::received('L-2')->lines()[0]->line;
        $invoice = self::invoice('V-L6', $line, 10, '12.00', 7);
        $invoice->lines()[0]->decide(QuantityVerdict::Credit, null);
        self::entities()->flush();
        self::assertSame(1, self::rows()['V-L6']->undecided);
        $invoice->lines()[0]->decide(null, PriceVerdict::Accepted);
        self::entities()->flush();
        self::assertSame(0, self::rows()['V-L6']->undecided);
        $dear = self::invoice('V-L7', $line, 1, '11.00', 1);
        self::assertSame(1, self::rows()['V-L7']->undecided);
        self::connection()->executeStatement(
            'UPDATE supplier SET tolerance_percent = 15, tolerance_amount = 9 WHERE id = ?',
            [$dear->supplier->id],
        );
        self::assertSame(0, self::rows()['V-L7']->undecided, 'a dearer tenth is within fifteen percent');
    }

    public function testAListIsAsLongAsItIsAskedToBe(): void
    {
        $entered = self::get(InvoiceRows::class)->entered();
        self::assertGreaterThan(2, count($entered));
        self::assertEquals(array_slice($entered, 0, 2), self::get(InvoiceRows::class)->entered(2));
        $in = self::get(Invoices::class)->in(InvoiceState::Settled);
        self::assertGreaterThan(2, count($in));
        self::assertSame(array_slice($in, 0, 2), self::get(Invoices::class)->in(InvoiceState::Settled, 2));
    }

    /** How it is used up, and how much is proposed, as the proposal itself has it. */
    public function testWhatSeveralSuppliersCouldFillIsAsItIsProposed(): void
    {
        $lines = self::get(Board::class)->withSeveralSuppliers(null, 60);
        self::assertGreaterThan(5, count($lines));
        $proposals = [];
        $ids = array_map(static fn (ContestedLine $line): int => $line->id, $lines);
        foreach (self::get(Proposals::class)->load($ids) as $proposal) {
            $proposals[$proposal->id] = $proposal;
        }
        $worth = INF;
        foreach ($lines as $line) {
            $proposal = $proposals[$line->id];
            $usage = self::get(Candidates::class)->usage($proposal->item, [$proposal]);
            self::assertEqualsWithDelta($usage->perDay, $line->usage->perDay, 1e-9, $line->itemCode);
            self::assertEqualsWithDelta($usage->daysUntilOut, $line->usage->daysUntilOut, 1e-6, $line->itemCode);
            self::assertEqualsWithDelta($usage->margin, $line->usage->margin, 1e-6, $line->itemCode);
            self::assertSame($proposal->units()->toFloat(), $line->units->toFloat(), $line->itemCode);
            self::assertSame(
                [$proposal->item->id, $proposal->item->code, $proposal->site->name(), $proposal->offer()?->id],
                [$line->item, $line->itemCode, $line->site, $line->offer],
            );
            self::assertLessThanOrEqual($worth, (float) self::homeValue($proposal));
            $worth = (float) self::homeValue($proposal);
        }
        self::assertCount(3, self::get(Board::class)->withSeveralSuppliers(null, 3));
        $depot = self::get(Board::class)->withSeveralSuppliers(self::site('DEPOT'), 60);
        self::assertSame(['Depot'], array_values(array_unique(array_map(
            static fn (ContestedLine $line): string => $line->site,
            $depot,
        ))));
    }

    private static function homeValue(SavedProposal $proposal): string
    {
        $value = self::connection()->fetchOne('SELECT home_value FROM proposal WHERE id = ?', [$proposal->id]);
        self::assertIsString($value);

        return $value;
    }

    /** By hand: 100.00 of goods, freight of 12.00 on them, and half a euro a piece more on the invoice. */
    public function testWhatGoodsCameToIsWhatStandsOnThem(): void
    {
        $receipt = self::received('L-3');
        $line = $receipt->lines()[0]->line;
        $charge = self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('12', 'EUR'), SpreadBasis::Value, [$receipt], []),
            self::person('iris'),
            'landed',
        );
        /** @phpstan-impure */
        $landed = static function () use ($line): array {
            foreach (self::get(Landed::class)->by('item', self::now()->modify('-30 days')) as $row) {
                if ($row['key'] === $line->item?->code) {
                    return [$row['planned'], $row['charges'], $row['price'], $row['landed'], $row['receipts']];
                }
            }

            return [];
        };
        self::assertSame(['100.00', '12.00', '0.00', '112.00', 1], $landed());
        $invoice = self::invoice('V-L8', $line, 10, '10.50', 10);
        self::assertSame(['100.00', '12.00', '0.00', '112.00', 1], $landed(), 'not settled yet');
        $invoice->lines()[0]->decide(null, PriceVerdict::Accepted);
        $invoice->release(self::person('rowan'), self::now());
        self::entities()->flush();
        self::assertSame(['100.00', '12.00', '5.00', '117.00', 1], $landed());
        self::get(SpreadCharge::class)->takeBack($charge, 'not ours', self::person('iris'));
        self::assertSame(['100.00', '0.00', '5.00', '105.00', 1], $landed());
    }

    /** What was expected and nobody billed, and what is known otherwise: each in one list only. */
    public function testAChargeIsExpectedOrKnown(): void
    {
        $charges = self::get(LandedCharges::class);
        $numbers = static fn (array $some): array => array_map(
            static fn (LandedCharge $one): string => $one->number,
            $some,
        );
        $expected = $numbers($charges->expected());
        $known = $numbers($charges->known());
        self::assertNotSame([], $expected);
        self::assertNotSame([], $known);
        self::assertSame([], array_intersect($expected, $known));
        $all = self::connection()->fetchOne('SELECT COUNT(*) FROM landed_charge');
        self::assertSame($all, count($expected) + count($known));
        $rows = $charges->expectedRows(\PHP_INT_MAX);
        self::assertEquals(
            array_map(static fn (LandedCharge $one): ExpectedRow => new ExpectedRow(
                $one->number,
                $one->kind,
                Money::of($one->money()->rounded()->amount, $one->currency),
                implode(', ', $one->receipts()),
                $one->lines()[0]->came->receipt->day,
            ), $charges->expected()),
            $rows,
        );
        self::assertEquals([$rows[0]], $charges->expectedRows(1));
    }

    /** Read in batches, and no further query for what belongs to them. */
    public function testWhatIsReadInBatchesIsThere(): void
    {
        self::entities()->clear();
        $notes = self::get(CreditNotes::class)->open();
        $invoices = self::get(Invoices::class)->in(InvoiceState::Settled);
        $charges = self::get(LandedCharges::class)->expected();
        self::assertNotSame([], $invoices);
        self::assertNotSame([], $charges);
        self::assertNotSame([], $notes);
        $asked = self::connection()->fetchNumeric("SHOW SESSION STATUS LIKE 'Com_select'");
        foreach ($notes as $note) {
            self::assertNotSame('', $note->supplier->name());
            self::assertNotSame([], $note->lines());
        }
        foreach ($invoices as $invoice) {
            self::assertNotSame('', $invoice->supplier->name());
            self::assertNotSame([], $invoice->lines());
            self::assertSame(null !== $invoice->paid(), [] !== $invoice->payments());
        }
        foreach ($charges as $charge) {
            self::assertNotSame('', $charge->supplier?->name() ?? '–');
        }
        self::assertSame($asked, self::connection()->fetchNumeric("SHOW SESSION STATUS LIKE 'Com_select'"));
    }

    public function testWhatWasPaidInAListIsWhatItsInvoicesSay(): void
    {
        $invoices = self::entities()->getRepository(Invoice::class)
            ->findBy(['state' => InvoiceState::Paid], ['paidOn' => 'DESC', 'id' => 'DESC'], 20);
        self::assertNotSame([], $invoices);
        $rows = self::get(InvoiceRows::class)->paid(20);
        self::assertCount(count($invoices), $rows);
        foreach ($invoices as $n => $invoice) {
            $row = $rows[$n];
            self::assertSame(
                [$invoice->id, $invoice->number, $invoice->supplier->name()],
                [$row->id, $row->number, $row->supplier],
            );
            self::assertEquals([$invoice->paidOn(), $invoice->paid()?->rounded()], [$row->on, $row->paid->rounded()]);
        }
        self::assertEquals([$rows[0]], self::get(InvoiceRows::class)->paid(1));
    }

    public function testARoundInAListIsWhatTheRoundSays(): void
    {
        $rounds = self::entities()->getRepository(QuoteRound::class)->findBy([], ['id' => 'DESC']);
        self::assertNotSame([], $rounds);
        $declined = static fn (Quote $quote): bool => QuoteState::Declined === $quote->state();
        $answered = static fn (Quote $quote): bool => [] !== $quote->answers() && !$declined($quote);
        $rows = self::get(Rounds::class)->rows();
        self::assertEquals(
            array_map(static fn (QuoteRound $round): RoundRow => new RoundRow(
                $round->number,
                $round->subject(),
                $round->by->firstName(),
                $round->createdAt(),
                $round->replyBy(),
                $round->wantedOn(),
                $round->isDraft(),
                $round->settledAt(),
                count($round->quotes()),
                count(array_filter($round->quotes(), $answered)),
                count(array_filter($round->quotes(), $declined)),
            ), $rounds),
            $rows,
        );
        self::assertEquals([$rows[0]], self::get(Rounds::class)->rows(1));
        foreach ($rounds as $n => $round) {
            self::assertSame($round->isOpen(), $rows[$n]->isOpen());
            self::assertSame($round->isSettled(), $rows[$n]->isSettled());
            self::assertSame($round->isLate($round->replyBy()), $rows[$n]->isLate($round->replyBy()));
        }
    }

    public function testARoundDeclinedAfterAnAnswerCountsAsDeclined(): void
    {
        $round = self::get(BeginRound::class)->begin(self::person('mara'), self::site('FERRY'));
        self::entities()->flush();
        $counted = static fn (): array => array_map(
            static fn (RoundRow $row): array => [$row->asked, $row->answered, $row->declined, $row->subject],
            self::get(Rounds::class)->rows(1),
        )[0];
        self::assertSame([0, 0, 0, 'nothing yet'], $counted());
        $round->ask(null, 'Straw skeps', [BigDecimal::of(12)]);
        $quotes = [$round->invite(self::supplier()), $round->invite(self::supplier())];
        self::entities()->flush();
        self::assertSame([2, 0, 0, 'Straw skeps'], $counted());
        $round->ask(null, 'Wooden feeders', [BigDecimal::of(3)]);
        foreach ($quotes as $quote) {
            $quote->answer(new QuoteAnswer($quote, self::now(), QuoteAnswer::TYPED, false, 5, null, null, '', [[
                'item' => $round->items()[0]->id, 'prices' => [['12', '4.20']], 'most' => null, 'multiple' => null,
                'code' => '', 'alternate' => '',
            ]]));
        }
        self::entities()->flush();
        self::assertSame([2, 2, 0, 'Straw skeps and 1 more'], $counted());
        $quotes[1]->decline('sold out');
        self::entities()->flush();
        self::assertSame([2, 1, 1, 'Straw skeps and 1 more'], $counted());
    }
}
