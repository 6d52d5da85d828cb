<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Iso20022;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Work\Settling\BankFile;
use TallBarrel\Work\Settling\BankPayment;

/**
 * Credit transfers as ISO 20022 pain.001.001.09, CustomerCreditTransferInitiationV09. Which element follows which is
 * from the message definition (no registry here carries its schema); letters are those every bank takes.
 */
final readonly class CreditTransfers implements BankFile
{
    private const SCHEMA = 'urn:iso:std:iso:20022:tech:xsd:pain.001.001.09';
    private const NAME = 70;
    private const WORDS = 140;

    public function __construct(private CurrentBusiness $business)
    {
    }

    public function write(string $number, \DateTimeImmutable $on, \DateTimeImmutable $at, array $payments): string
    {
        $xml = new \XMLWriter();
        $xml->openMemory();
        $xml->setIndent(true);
        $xml->startDocument('1.0', 'UTF-8');
        $xml->startElementNs(null, 'Document', self::SCHEMA);
        $xml->startElement('CstmrCdtTrfInitn');
        $sum = BigDecimal::sum(...array_map(
            static fn (BankPayment $payment): BigDecimal => $payment->amount->amount,
            $payments,
        ));
        $xml->startElement('GrpHdr');
        $xml->writeElement('MsgId', $number);
        $xml->writeElement('CreDtTm', $at->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d\TH:i:s\Z'));
        $xml->writeElement('NbOfTxs', (string) count($payments));
        $xml->writeElement('CtrlSum', $sum->toString());
        $this->name($xml, 'InitgPty', $this->business->get()->name());
        $xml->endElement();
        $xml->startElement('PmtInf');
        $xml->writeElement('PmtInfId', $number.'-1');
        $xml->writeElement('PmtMtd', 'TRF');
        $xml->writeElement('NbOfTxs', (string) count($payments));
        $xml->writeElement('CtrlSum', $sum->toString());
        if ('EUR' === $payments[0]->amount->currency->code) {
            $this->nested($xml, ['PmtTpInf', 'SvcLvl', 'Cd'], 'SEPA');
        }
        $this->nested($xml, ['ReqdExctnDt', 'Dt'], $on->format('Y-m-d'));
        $this->name($xml, 'Dbtr', $this->business->get()->name());
        $this->nested($xml, ['DbtrAcct', 'Id', 'IBAN'], (string) $this->business->get()->iban()?->digits);
        $this->bank($xml, 'DbtrAgt', $this->business->get()->bic());
        $xml->writeElement('ChrgBr', 'SLEV');
        foreach ($payments as $payment) {
            $xml->startElement('CdtTrfTxInf');
            $this->nested($xml, ['PmtId', 'EndToEndId'], $payment->reference);
            $xml->startElement('Amt');
            $xml->startElement('InstdAmt');
            $xml->writeAttribute('Ccy', $payment->amount->currency->code);
            $xml->text($payment->amount->amount->toString());
            $xml->endElement();
            $xml->endElement();
            if ('' !== $payment->to->bic) {
                $this->bank($xml, 'CdtrAgt', $payment->to->bic);
            }
            $this->name($xml, 'Cdtr', $payment->to->holder);
            $this->nested($xml, ['CdtrAcct', 'Id', 'IBAN'], $payment->to->iban);
            $this->nested($xml, ['RmtInf', 'Ustrd'], self::plain($payment->words, self::WORDS));
            $xml->endElement();
        }
        $xml->endElement();
        $xml->endElement();
        $xml->endElement();
        $xml->endDocument();

        return $xml->outputMemory();
    }

    private function name(\XMLWriter $xml, string $element, string $name): void
    {
        $this->nested($xml, [$element, 'Nm'], self::plain($name, self::NAME));
    }

    private function bank(\XMLWriter $xml, string $element, string $bic): void
    {
        '' === $bic
            ? $this->nested($xml, [$element, 'FinInstnId', 'Othr', 'Id'], 'NOTPROVIDED')
            : $this->nested($xml, [$element, 'FinInstnId', 'BICFI'], $bic);
    }

    /** @param non-empty-list<string> $elements one within the other */
    private function nested(\XMLWriter $xml, array $elements, string $value): void
    {
        foreach ($elements as $element) {
            $xml->startElement($element);
        }
        $xml->text($value);
        foreach ($elements as $_) {
            $xml->endElement();
        }
    }

    /** In the letters, digits and marks that every bank takes (EPC implementation guidelines, from memory). */
    private static function plain(string $words, int $longest): string
    {
        $plain = \Transliterator::create('Any-Latin; Latin-ASCII')?->transliterate($words);
        $plain = (string) preg_replace('~[^A-Za-z0-9/?:().,\'+ -]+~', ' ', is_string($plain) ? $plain : $words);

        return trim(substr(trim((string) preg_replace('/ {2,}/', ' ', $plain)), 0, $longest));
    }
}
