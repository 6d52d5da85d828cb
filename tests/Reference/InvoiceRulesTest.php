<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Settling\Paper\BrokenRule;
use TallBarrel\Core\Settling\Paper\InvoiceRules;
use TallBarrel\Exchange\Ubl\UblInvoice;

/**
 * The rules of EN 16931-1:2017, 6.4, by their numbers (from memory of its table). The invoice is worked by hand: 10 at
 * 20.00 less 20.00, 5 at 12.50 for one, taxed at 23 %; 3 at 30.00 for 10, zero rated; an allowance of 15.00 and freight
 * of 12.00 at 23 %: 180.00 + 62.50 − 15.00 + 12.00 = 239.50 at 23 % is 55.085, so 55.09; with 9.00 untaxed 248.50, with
 * tax 303.59.
 */
final class InvoiceRulesTest extends TestCase
{
    public static function valid(): string
    {
        return (string) file_get_contents(__DIR__.'/en16931/invoice.xml');
    }

    /** @return list<string> numbers of the rules it breaks */
    private static function broken(string $xml): array
    {
        return array_values(array_unique(array_map(
            static fn (BrokenRule $one): string => $one->rule,
            InvoiceRules::broken((new UblInvoice())->read('invoice.xml', $xml)),
        )));
    }

    public function testAnInvoiceWorkedByHandIsValid(): void
    {
        self::assertSame([], self::broken(self::valid()));
    }

    /** @return iterable<string, array{string, string, list<string>}> what stands there, what instead, rules broken */
    public static function mistakes(): iterable
    {
        $with = static fn (string $was, string $is, string ...$rules): array => [$was, $is, array_values($rules)];
        yield 'no number' => $with('<cbc:ID>V-2026-118</cbc:ID>', '', 'BR-02');
        yield 'no day' => $with('<cbc:IssueDate>2026-11-20</cbc:IssueDate>', '', 'BR-03');
        yield 'a day that is none' => $with('2026-11-20', '2026-02-31', 'BR-03');
        yield 'no kind' => $with('<cbc:InvoiceTypeCode>380</cbc:InvoiceTypeCode>', '', 'BR-04');
        yield 'another kind' => $with('>380<', '>999<', 'BR-CL-01');
        yield 'no currency' => $with('<cbc:DocumentCurrencyCode>EUR</cbc:DocumentCurrencyCode>', '', 'BR-05');
        yield 'no seller' => $with('Vetrasol Glassworks', '', 'BR-06');
        yield 'no buyer' => $with('Larkmoor Bee Supply', '', 'BR-07');
        yield 'no day to pay by' => $with('<cbc:DueDate>2026-12-20</cbc:DueDate>', '', 'BR-CO-25');
        yield 'a line without a name' => $with('<cbc:Name>Jar 370 ml</cbc:Name>', '', 'BR-25');
        yield 'a line without a quantity' => $with(
            '<cbc:InvoicedQuantity unitCode="C62">5</cbc:InvoicedQuantity>', '', 'BR-22', 'BR-23',
        );
        yield 'a price below 0' => $with('>12.50</cbc:PriceAmount>', '>-12.50</cbc:PriceAmount>', 'BR-27', 'BT-131');
        yield 'a line that is not price times quantity' => $with('>5</cbc:Inv', '>6</cbc:Inv', 'BT-131');
        yield 'what counts as 10' => $with('<cbc:BaseQuantity>10</cbc:BaseQuantity>', '', 'BT-131');
        yield 'a tax category nobody knows' => $with('<cbc:ID>Z</cbc:ID><cbc:Percent>0</cbc:Percent><!-- line -->',
            '<cbc:ID>X</cbc:ID><cbc:Percent>0</cbc:Percent>', 'BR-CL-17', 'BR-Z-08');
        yield 'a standard rate of 0' => $with('<cbc:Percent>23</cbc:Percent><!-- line -->',
            '<cbc:Percent>0</cbc:Percent>', 'BR-S-05', 'BR-S-08');
        yield 'a zero rate of 5' => $with('<cbc:Percent>0</cbc:Percent><!-- line -->',
            '<cbc:Percent>5</cbc:Percent>', 'BR-Z-05', 'BR-Z-08');
        yield 'an allowance without a reason' => $with('>Rebate<', '><', 'BR-CO-21');
        yield 'a charge without a reason' => $with('>Freight<', '><', 'BR-CO-22');
        yield 'a charge of 0 %' => $with('<cbc:Percent>23</cbc:Percent><!-- charge -->',
            '<cbc:Percent>0</cbc:Percent>', 'BR-S-07', 'BR-S-08');
        yield 'an allowance of 0 %' => $with('<cbc:Percent>23</cbc:Percent><!-- allowance -->',
            '<cbc:Percent>0</cbc:Percent>', 'BR-S-06', 'BR-S-08');
        yield 'lines summed wrongly' => $with('>251.50</cbc:LineExtensionAmount>', '>251.51</cbc:LineExtensionAmount>',
            'BR-CO-10', 'BR-CO-13');
        yield 'allowances summed wrongly' => $with('>15.00</cbc:AllowanceTotalAmount>',
            '>14.00</cbc:AllowanceTotalAmount>', 'BR-CO-11', 'BR-CO-13');
        yield 'charges summed wrongly' => $with('>12.00</cbc:ChargeTotalAmount>', '>13.00</cbc:ChargeTotalAmount>',
            'BR-CO-12', 'BR-CO-13');
        yield 'without tax wrongly' => $with('>248.50</cbc:TaxExclusiveAmount>', '>248.40</cbc:TaxExclusiveAmount>',
            'BR-CO-13', 'BR-CO-15');
        yield 'tax summed wrongly' => $with('>55.09</cbc:TaxAmount><!-- sum -->', '>55.19</cbc:TaxAmount>', 'BR-CO-14',
            'BR-CO-15');
        yield 'with tax wrongly' => $with('>303.59</cbc:TaxInclusiveAmount>', '>303.60</cbc:TaxInclusiveAmount>',
            'BR-CO-15', 'BR-CO-16');
        yield 'to pay wrongly' => $with('>203.59</cbc:PayableAmount>', '>303.59</cbc:PayableAmount>', 'BR-CO-16');
        yield 'nothing to pay' => $with('<cbc:PayableAmount currencyID="EUR">203.59</cbc:PayableAmount>', '', 'BR-15');
        yield 'tax that is not the rate' => $with('>55.09</cbc:TaxAmount><!-- of 23 -->', '>56.09</cbc:TaxAmount>',
            'BR-CO-14', 'BR-CO-17');
        yield 'taxed too little' => $with('>239.50</cbc:TaxableAmount>', '>239.00</cbc:TaxableAmount>', 'BR-CO-17',
            'BR-S-08');
        yield 'parts of a cent' => $with('>62.50</cbc:LineExtensionAmount>', '>62.501</cbc:LineExtensionAmount>',
            'BR-DEC-23', 'BR-CO-10', 'BR-S-08');
        yield 'exempt without a reason' => $with('<cbc:ID>Z</cbc:ID>', '<cbc:ID>E</cbc:ID>', 'BR-E-10');
    }

    /** @param list<string> $rules */
    #[DataProvider('mistakes')]
    public function testEachMistakeIsNamedByItsRule(string $was, string $is, array $rules): void
    {
        self::assertStringContainsString($was, self::valid());
        self::assertSame($rules, self::broken(str_replace($was, $is, self::valid())));
    }
}
