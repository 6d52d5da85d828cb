<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Iso20022;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Exchange\SafeXml;
use TallBarrel\Work\Settling\StatementEntry;
use TallBarrel\Work\Settling\StatementReader;

/**
 * A bank statement as ISO 20022 camt.053, BankToCustomerStatement, of any version from 02 on: where elements stand is
 * from the message definition. A booked debit entry is read by its transactions where it has any, else as one.
 */
final readonly class Statements implements StatementReader
{
    private const MOST_BYTES = 10 * 1_048_576;
    private const NAMESPACE = '/^urn:iso:std:iso:20022:tech:xsd:camt\.053\.001\.\d\d$/';

    public function read(string $name, string $bytes, string $iban): array
    {
        $document = SafeXml::open($name, $bytes, self::MOST_BYTES);
        $root = $document->documentElement;
        $space = (string) $root?->namespaceURI;
        if ('Document' !== $root?->localName || 1 !== preg_match(self::NAMESPACE, $space)) {
            throw InvalidValue::because(sprintf('“%s” is no bank statement; expected ISO 20022 camt.053.', $name));
        }
        $xpath = new \DOMXPath($document);
        $xpath->registerNamespace('c', $space);
        $entries = [];
        foreach (SafeXml::nodes($xpath, 'c:BkToCstmrStmt/c:Stmt', $root) as $statement) {
            $of = SafeXml::text($xpath, 'c:Acct/c:Id/c:IBAN', $statement);
            if ('' !== $of && $of !== $iban) {
                throw InvalidValue::because(sprintf('“%s” is of the account %s; ours is %s.', $name, $of, $iban));
            }
            foreach (SafeXml::nodes($xpath, 'c:Ntry[c:CdtDbtInd = "DBIT"]', $statement) as $entry) {
                array_push($entries, ...self::entry($xpath, $entry));
            }
        }

        return $entries;
    }

    /** @return list<StatementEntry> */
    private static function entry(\DOMXPath $xpath, \DOMNode $entry): array
    {
        $at = static fn (string $query, ?\DOMNode $in = null): string => SafeXml::text($xpath, $query, $in ?? $entry);
        // Of version 02 the state is the element itself, later it is a code in it.
        if ('BOOK' !== ($at('c:Sts/c:Cd') ?: $at('c:Sts'))) {
            return [];
        }
        $day = Day::read(substr($at('c:BookgDt/c:Dt') ?: $at('c:BookgDt/c:DtTm'), 0, 10));
        $reference = $at('c:AcctSvcrRef') ?: $at('c:NtryRef');
        $parts = SafeXml::nodes($xpath, 'c:NtryDtls/c:TxDtls', $entry);
        $read = [];
        foreach ([] === $parts ? [$entry] : $parts as $n => $part) {
            $sum = $at('c:Amt', $part) ?: $at('c:AmtDtls/c:TxAmt/c:Amt', $part);
            $isWhole = 1 >= count($parts) || '' === $sum;
            $amount = $isWhole ? $at('c:Amt') : $sum;
            $currency = $at($isWhole ? 'c:Amt/@Ccy' : ('' === $at('c:Amt', $part)
                ? 'c:AmtDtls/c:TxAmt/c:Amt/@Ccy' : 'c:Amt/@Ccy'), $isWhole ? $entry : $part);
            $own = $at('c:Refs/c:AcctSvcrRef', $part) ?: $reference;
            $read[] = new StatementEntry(
                $day,
                self::money($amount, $currency),
                mb_substr(count($parts) > 1 && $own === $reference ? $own.'/'.($n + 1) : $own, 0, 60),
                self::given($at('c:Refs/c:EndToEndId', $part)),
                mb_substr(implode(' ', array_map(
                    static fn (\DOMNode $one): string => trim($one->textContent),
                    SafeXml::nodes($xpath, 'c:RmtInf/c:Ustrd | c:RmtInf/c:Strd//c:Nb | c:RmtInf/c:Strd//c:Ref', $part),
                )), 0, 500),
                $at('c:RltdPties/c:Cdtr/c:Pty/c:Nm', $part) ?: $at('c:RltdPties/c:Cdtr/c:Nm', $part),
            );
        }

        return $read;
    }

    private static function given(string $reference): string
    {
        return 'NOTPROVIDED' === $reference ? '' : $reference;
    }

    /** @throws InvalidValue */
    private static function money(string $amount, string $currency): Money
    {
        if (1 !== preg_match('/^\d{1,15}(\.\d{1,5})?$/', $amount)) {
            throw InvalidValue::because(sprintf('“%s” is no amount of a statement.', mb_substr($amount, 0, 30)));
        }

        return Money::of(BigDecimal::of($amount), $currency)->rounded();
    }
}
