<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Ubl;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Settling\Paper\PaperCharge;
use TallBarrel\Core\Settling\Paper\PaperInvoice;
use TallBarrel\Core\Settling\Paper\PaperLine;
use TallBarrel\Core\Settling\Paper\PaperPicture;
use TallBarrel\Core\Settling\Paper\PaperTax;
use TallBarrel\Core\Settling\Paper\PaperTotals;
use TallBarrel\Exchange\SafeXml;
use TallBarrel\Work\Settling\PaperReader;

/**
 * An invoice or a credit note of OASIS UBL 2.1 (ISO/IEC 19845:2015), with the elements to which CEN/TS 16931-3-2:2017
 * binds the terms of EN 16931-1.
 */
final readonly class UblInvoice implements PaperReader
{
    private const MOST_BYTES = 5 * 1_048_576;
    private const MOST_LINES = 5000;
    private const WITHIN = 'a:AdditionalDocumentReference/a:Attachment/b:EmbeddedDocumentBinaryObject';
    private const SPACES = [
        'i' => 'urn:oasis:names:specification:ubl:schema:xsd:Invoice-2',
        'n' => 'urn:oasis:names:specification:ubl:schema:xsd:CreditNote-2',
        'a' => 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
        'b' => 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
    ];

    public function read(string $name, string $bytes): PaperInvoice
    {
        $xpath = self::open($name, $bytes);
        $root = $xpath->document->documentElement;
        $isCredit = 'CreditNote' === $root?->localName;
        $path = static fn (string $query, ?\DOMNode $in = null): string => SafeXml::text($xpath, $query, $in);
        $lines = SafeXml::nodes($xpath, $isCredit ? 'a:CreditNoteLine' : 'a:InvoiceLine', $root);
        if (count($lines) > self::MOST_LINES) {
            throw InvalidValue::because(sprintf('“%s” has %d lines; at most %d are read.', $name, count($lines),
                self::MOST_LINES));
        }

        return new PaperInvoice(
            $path('b:ID'),
            $path('b:IssueDate'),
            $path($isCredit ? 'b:CreditNoteTypeCode' : 'b:InvoiceTypeCode'),
            $path('b:DocumentCurrencyCode'),
            $path('a:OrderReference/b:ID'),
            $path('b:DueDate') ?: $path('a:PaymentMeans/b:PaymentDueDate'),
            $path('a:PaymentTerms/b:Note'),
            $path('a:AccountingSupplierParty/a:Party/a:PartyLegalEntity/b:RegistrationName')
                ?: $path('a:AccountingSupplierParty/a:Party/a:PartyName/b:Name'),
            $path('a:AccountingSupplierParty/a:Party/a:PartyTaxScheme[a:TaxScheme/b:ID = "VAT"]/b:CompanyID'),
            $path('a:AccountingCustomerParty/a:Party/a:PartyLegalEntity/b:RegistrationName')
                ?: $path('a:AccountingCustomerParty/a:Party/a:PartyName/b:Name'),
            (string) preg_replace('/\s+/', '', $path('a:PaymentMeans/a:PayeeFinancialAccount/b:ID')),
            $path('a:BillingReference/a:InvoiceDocumentReference/b:ID'),
            self::totals($xpath, $root),
            array_map(static fn (\DOMNode $line): PaperLine => self::line($xpath, $line), $lines),
            array_map(
                static fn (\DOMNode $one): PaperCharge => self::charge($xpath, $one),
                SafeXml::nodes($xpath, 'a:AllowanceCharge', $root),
            ),
            array_map(
                static fn (\DOMNode $one): PaperTax => self::tax($xpath, $one),
                // Tax told a second time, in the currency of the tax office, has no breakdown.
                SafeXml::nodes($xpath, 'a:TaxTotal/a:TaxSubtotal', $root),
            ),
            array_values(array_filter(array_map(
                static fn (\DOMNode $one): ?PaperPicture => self::picture($one),
                SafeXml::nodes($xpath, self::WITHIN, $root),
            ))),
        );
    }

    /** @throws InvalidValue */
    private static function open(string $name, string $bytes): \DOMXPath
    {
        $document = SafeXml::open($name, $bytes, self::MOST_BYTES);
        $root = $document->documentElement;
        if (
            null === $root || !in_array($root->namespaceURI, [self::SPACES['i'], self::SPACES['n']], true)
            || !in_array($root->localName, ['Invoice', 'CreditNote'], true)
        ) {
            throw InvalidValue::because(sprintf(
                '“%s” is a “%s”; expected an Invoice or a CreditNote of OASIS UBL 2.1.',
                $name,
                mb_substr((string) $root?->localName, 0, 40),
            ));
        }
        $xpath = new \DOMXPath($document);
        foreach (self::SPACES as $short => $space) {
            $xpath->registerNamespace($short, $space);
        }

        return $xpath;
    }

    private static function line(\DOMXPath $xpath, \DOMNode $line): PaperLine
    {
        $path = static fn (string $query): string => SafeXml::text($xpath, $query, $line);
        $quantity = $path('b:InvoicedQuantity') ?: $path('b:CreditedQuantity');
        $called = 'line '.$path('b:ID');
        $sum = static fn (string $is): BigDecimal => array_reduce(
            SafeXml::nodes($xpath, 'a:AllowanceCharge[b:ChargeIndicator = "'.$is.'"]', $line),
            static fn (BigDecimal $sum, \DOMNode $one): BigDecimal => $sum->plus(
                self::number($called, SafeXml::text($xpath, 'b:Amount', $one)) ?? 0,
            ),
            BigDecimal::zero(),
        );
        $per = self::number($called, $path('a:Price/b:BaseQuantity'));

        return new PaperLine(
            $path('b:ID'),
            $path('a:Item/b:Name'),
            self::number($called, $quantity),
            $path('b:InvoicedQuantity/@unitCode') ?: $path('b:CreditedQuantity/@unitCode'),
            self::number($called, $path('b:LineExtensionAmount')),
            self::number($called, $path('a:Price/b:PriceAmount')),
            null === $per || $per->isZero() ? BigDecimal::one() : $per,
            $sum('false'),
            $sum('true'),
            $path('a:Item/a:ClassifiedTaxCategory/b:ID'),
            self::number($called, $path('a:Item/a:ClassifiedTaxCategory/b:Percent')),
            $path('a:Item/a:SellersItemIdentification/b:ID'),
            $path('a:Item/a:BuyersItemIdentification/b:ID'),
            $path('a:Item/a:StandardItemIdentification/b:ID'),
            $path('a:OrderLineReference/b:LineID'),
            $path('a:OrderLineReference/a:OrderReference/b:ID'),
        );
    }

    private static function charge(\DOMXPath $xpath, \DOMNode $one): PaperCharge
    {
        $path = static fn (string $query): string => SafeXml::text($xpath, $query, $one);

        return new PaperCharge(
            'true' === $path('b:ChargeIndicator'),
            self::number('a charge', $path('b:Amount')),
            $path('b:AllowanceChargeReason') ?: $path('b:AllowanceChargeReasonCode'),
            $path('a:TaxCategory/b:ID'),
            self::number('a charge', $path('a:TaxCategory/b:Percent')),
        );
    }

    private static function tax(\DOMXPath $xpath, \DOMNode $one): PaperTax
    {
        $path = static fn (string $query): string => SafeXml::text($xpath, $query, $one);

        return new PaperTax(
            self::number('tax', $path('b:TaxableAmount')),
            self::number('tax', $path('b:TaxAmount')),
            $path('a:TaxCategory/b:ID'),
            self::number('tax', $path('a:TaxCategory/b:Percent')),
            $path('a:TaxCategory/b:TaxExemptionReason') ?: $path('a:TaxCategory/b:TaxExemptionReasonCode'),
        );
    }

    private static function totals(\DOMXPath $xpath, ?\DOMNode $root): PaperTotals
    {
        $of = static fn (string $query): ?BigDecimal => self::number('the sums', SafeXml::text($xpath, $query, $root));
        $sum = static fn (string $name): ?BigDecimal => $of('a:LegalMonetaryTotal/b:'.$name);

        return new PaperTotals(
            $sum('LineExtensionAmount'),
            $sum('AllowanceTotalAmount'),
            $sum('ChargeTotalAmount'),
            $sum('TaxExclusiveAmount'),
            $of('a:TaxTotal[a:TaxSubtotal]/b:TaxAmount') ?? $of('a:TaxTotal/b:TaxAmount'),
            $sum('TaxInclusiveAmount'),
            $sum('PrepaidAmount'),
            $sum('PayableRoundingAmount'),
            $sum('PayableAmount'),
        );
    }

    private static function picture(\DOMNode $one): ?PaperPicture
    {
        $bytes = base64_decode(trim($one->textContent), true);
        $name = $one instanceof \DOMElement ? $one->getAttribute('filename') : '';

        return false === $bytes || '' === $bytes
            ? null
            : new PaperPicture('' === $name ? 'invoice.pdf' : $name, $bytes);
    }

    /** @throws InvalidValue */
    private static function number(string $where, string $typed): ?BigDecimal
    {
        if ('' === $typed) {
            return null;
        }
        // As xsd:decimal has it: no exponent, no thousands.
        if (1 !== preg_match('/^[+-]?\d{1,18}(\.\d{0,12})?$/', $typed)) {
            throw InvalidValue::because(sprintf('“%s” in %s is no number.', mb_substr($typed, 0, 30), $where));
        }
        try {
            return BigDecimal::of(rtrim($typed, '.'));
        } catch (MathException) {
            throw InvalidValue::because(sprintf('“%s” in %s is no number.', mb_substr($typed, 0, 30), $where));
        }
    }
}
