<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Settle\InvoicePaper;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Settling\PaperReader;
use TallBarrel\Work\Settling\ReadPaper;

/** An invoice that comes as a file, laid beside what was ordered. */
final class InvoiceFileTest extends StoreTestCase
{
    private static function file(): string
    {
        return (string) file_get_contents(dirname(__DIR__).'/Reference/en16931/invoice.xml');
    }

    /** Jars by the piece, jars in cases of 5 for 62.00, and lids that they call by our code. */
    private static function ordered(): PurchaseOrder
    {
        $supplier = self::supplier();
        $lines = [];
        foreach ([['U-1', '18.00', 1], ['U-2', '62.00', 5], ['U-3', '3.00', 1]] as [$code, $price, $content]) {
            $lines[] = [self::offer(self::item($code), $price, $content, $supplier), 10];
        }

        return self::sentOrder($lines, 'PO-UBL');
    }

    private static function keep(string $xml, ?PurchaseOrder $from = null, string $name = 'V.xml'): InvoicePaper
    {
        return self::get(ReadPaper::class)->keep($name, $xml, $from?->supplier, self::person('iris'));
    }

    /** @return list<string> */
    private static function figures(BigDecimal ...$figures): array
    {
        return array_map(
            static fn (BigDecimal $one): string => (string) $one->strippedOfTrailingZeros(),
            array_values($figures),
        );
    }

    public function testWhatItSaysStandsBesideWhatWasOrdered(): void
    {
        $order = self::ordered();
        [$jars, $cases, $lids] = $order->lines();
        $xml = str_replace(['VG-340', 'VG-370'], ['THEIRS-U-1', 'THEIRS-U-2'], self::file());
        $kept = self::keep($xml);
        self::assertSame($order->supplier, $kept->supplier, 'known by the order it names');
        $within = self::get(InvoicePapers::class)->within($kept);
        self::assertSame(['V-2026-118.pdf', 'application/pdf'], [$within[0]->name, $within[0]->mime]);
        self::assertStringStartsWith('%PDF-1.4', $within[0]->content());

        $draft = self::get(ReadPaper::class)->draft($kept);
        self::assertSame(['10', '18', '23'], self::figures(...$draft->lines[$jars->id]), '200.00 less 20.00 over 10');
        self::assertSame(['1', '62.5', '23'], self::figures(...$draft->lines[$cases->id]), '5 pieces are one case');
        self::assertSame(['3', '3', '0'], self::figures(...$draft->lines[$lids->id]), '30.00 for 10');
        self::assertSame(
            [['Rebate', '-15'], ['Freight', '12']],
            array_map(static fn (array $one): array => [$one[0], self::figures($one[1])[0]], $draft->charges),
        );
        self::assertStringContainsString('100.00 are paid already', implode("\n", $draft->notes));
        $notes = implode("\n", $draft->notes);
        self::assertStringContainsString('on our order stands', $notes, 'another tax than ordered');
    }

    public function testWhatNobodyOrderedIsPointedOut(): void
    {
        $order = self::ordered();
        $draft = self::get(ReadPaper::class)->draft(self::keep(self::file()));
        self::assertSame([$order->lines()[2]->id], array_keys($draft->lines), 'only our own code is known');
        self::assertSame([true, true, false, false], array_column($draft->charges, 3));
        self::assertStringContainsString('Jar 340 ml (VG-340), is on no order of theirs', $draft->notes[0]);
    }

    public function testWhatCannotBeReadIsSaidAndNothingKept(): void
    {
        $order = self::ordered();
        $refuse = static function (string $xml, string $words, ?PurchaseOrder $from = null): void {
            self::mustRefuse(static fn () => self::keep($xml, $from), $words);
        };
        $file = self::file();
        $refuse('', 'is empty');
        $refuse('<Invoice>', 'not well-formed XML: line 1');
        $refuse('<Order xmlns="urn:x"/>', 'is a “Order”');
        $refuse(str_replace('<Invoice ', '<!DOCTYPE i [<!ENTITY e SYSTEM "file:///etc/passwd">]><Invoice ', $file),
            'declares a document type');
        $refuse(str_repeat(' ', 20 * 1_048_576), 'has 20.0 MB');
        $refuse(str_replace('>10</cbc:Inv', '>1e1</cbc:Inv', $file), '“1e1” in line 1 is no number');
        $refuse(str_replace('>251.50<', '>251.51<', $file), 'BR-CO-10');
        $refuse(str_replace('>EUR<', '>USD<', $file), 'is in USD');
        $strange = str_replace(['PO-UBL', 'DE89', 'Vetrasol'], ['PO-NONE', 'DE88', 'Nobody’s'], $file);
        $refuse($strange, 'Whose invoice is it?');
        self::assertEquals(0, self::connection()->fetchOne('SELECT COUNT(*) FROM invoice_paper'));
        self::assertSame($order->supplier, self::keep(str_replace('PO-UBL', '', $file), $order)->supplier);
    }

    /** 10 at 17.90 and 3 at 3.10, freight of 12.00: 200.30 without tax; 23 % of 191.00 is 43.93. */
    public function testATableIsReadAsWell(): void
    {
        $order = self::ordered();
        $csv = "number;day;currency;order;our_code;description;quantity;price;tax;charge;total\n"
            ."T-9;20.11.2026;EUR;PO-UBL;U-1;Jars;10;17,90;23;;244,23\n;;;;U-3;Lids;3;3,10;0;;\n"
            .";;;;;Freight;1;12,00;23;yes;\n";
        $kept = self::keep($csv, name: 'their table.csv');
        self::assertSame(
            [$order->supplier, 'their table.csv', 'text/csv'],
            [$kept->supplier, $kept->name, $kept->mime],
        );
        $draft = self::get(ReadPaper::class)->draft($kept);
        self::assertSame(['T-9', '2026-11-20', '244.23'], [
            $draft->paper->number, $draft->paper->day, (string) $draft->paper->totals->withTax,
        ]);
        self::assertSame(['10', '17.9', '23'], self::figures(...$draft->lines[$order->lines()[0]->id]));
        self::assertSame([['Freight', '12']], array_map(
            static fn (array $one): array => [$one[0], self::figures($one[1])[0]],
            $draft->charges,
        ));
        self::mustRefuse(static fn () => self::keep(str_replace('244,23', '245,00', $csv)), 'BR-CO-15');
        self::mustRefuse(static fn () => self::keep(str_replace('17,90', 'dear', $csv)), 'line 2, price “dear”');
        self::mustRefuse(static fn () => self::keep("a;b\n1;2\n"), 'has no column “number”');
        self::mustRefuse(static fn () => self::keep(str_replace('T-9', '', $csv)), 'BR-02');
    }

    public function testACreditNoteIsReadAsOne(): void
    {
        self::ordered();
        $credit = str_replace(
            ['Invoice-2"', '<Invoice ', '</Invoice>', 'InvoiceTypeCode>380', '/cbc:InvoiceTypeCode', 'cac:InvoiceLine',
                'InvoicedQuantity', '<cbc:InvoiceTypeCode', ],
            ['CreditNote-2"', '<CreditNote ', '</CreditNote>', 'CreditNoteTypeCode>381', '/cbc:CreditNoteTypeCode',
                'cac:CreditNoteLine', 'CreditedQuantity', '<cbc:CreditNoteTypeCode', ],
            self::file(),
        );
        $kept = self::keep($credit);
        self::assertTrue(self::get(ReadPaper::class)->isCredit($kept));
        $draft = self::get(ReadPaper::class)->draft($kept);
        self::assertSame([], $draft->lines);
        self::assertSame(
            [['Jar 340 ml', '180'], ['Jar 370 ml', '62.5'], ['Lid', '9'], ['Rebate', '-15'], ['Freight', '12']],
            array_map(static fn (array $one): array => [$one[0], self::figures($one[1])[0]], $draft->charges),
        );
    }

    public function testAReaderLooksAtNothingOutsideTheFile(): void
    {
        $bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><Invoice>&b;</Invoice>';
        self::mustRefuse(static fn () => self::get(PaperReader::class)->read('b.xml', $bomb), 'document type');
    }
}
