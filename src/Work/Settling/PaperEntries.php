<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\TaxRates;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;

/** What papers did to the accounts: invoices once they are settled, what was paid of them, and credit notes. */
final readonly class PaperEntries
{
    private const SCALE = 6;

    public function __construct(
        private EntityManagerInterface $entities,
        private CurrentBusiness $business,
        private TaxRates $taxes,
    ) {
    }

    /** @return list<BookEntry> */
    public function until(\DateTimeImmutable $end): array
    {
        $last = $end->setTime(23, 59, 59);
        // Those of which something is not booked yet.
        $open = $this->entities->getConnection()->fetchFirstColumn(
            "SELECT i.id FROM invoice i WHERE i.released_at <= ? AND (
                NOT EXISTS (SELECT 1 FROM booked_entry b WHERE b.booked_key = CONCAT('invoice-', i.id))
                OR EXISTS (SELECT 1 FROM invoice_payment p WHERE p.invoice_id = i.id AND NOT EXISTS
                    (SELECT 1 FROM booked_entry b WHERE b.booked_key = CONCAT('payment-', p.id))))",
            [$last->format('Y-m-d H:i:s')],
        );
        /** @var list<Invoice> $invoices */
        $invoices = $this->entities
            ->createQuery('SELECT i, l, o, p, s, y FROM '.Invoice::class.' i JOIN i.supplier s LEFT JOIN i.lines l
                LEFT JOIN l.orderLine o LEFT JOIN o.order p LEFT JOIN i.payments y WHERE i.id IN (:open) ORDER BY i.id')
            ->setParameter('open', $open)
            ->getResult();
        $entries = [];
        $came = $this->came($invoices);
        foreach ($invoices as $invoice) {
            $entries[] = $this->invoice($invoice, $came);
            array_push($entries, ...$this->payments($invoice, $end));
        }
        foreach ($this->entities->getRepository(CreditNote::class)->findBy([], ['id' => 'ASC']) as $note) {
            array_push($entries, ...$this->credit($note, $last));
        }

        return $entries;
    }

    /**
     * Goods come off what was received, at what they were booked in at; a dearer price is one difference, another rate
     * the other.
     *
     * @param array<int, BigDecimal> $came what a pack was booked in at, home currency, by order line
     */
    private function invoice(Invoice $invoice, array $came): BookEntry
    {
        $rate = $invoice->rate()->foreignForOne;
        $received = $charges = $deposits = $price = BigDecimal::zero();
        foreach ($invoice->lines() as $line) {
            $ordered = $line->orderLine;
            if (null === $ordered) {
                $amount = self::home($line->owed()->amount, $rate);
                [$charges, $deposits] = $line->isCharge()
                    ? [$charges->plus($amount), $deposits]
                    : [$charges, $deposits->plus($amount)];
                continue;
            }
            $agreed = self::home($line->owedPacks()->multipliedBy($ordered->price()), $rate);
            $price = $price->plus(self::home($line->owed()->amount, $rate)->minus($agreed));
            $known = $came[$ordered->id] ?? null;
            $received = $received->plus(
                null === $known ? $agreed : $line->owedPacks()->multipliedBy($known)->toScale(2, RoundingMode::HalfUp),
            );
        }
        $owed = $invoice->owed();
        $ours = $this->ownTax($invoice, $rate);

        return BookEntry::of(
            'invoice-'.$invoice->id,
            $invoice->releasedAt() ?? $invoice->day,
            $invoice->number,
            'Invoice of '.$invoice->supplier->name(),
            [
                LedgerAccount::Received->value => $received,
                LedgerAccount::Charges->value => $charges,
                LedgerAccount::Deposits->value => $deposits,
                LedgerAccount::PriceDifference->value => $price,
                LedgerAccount::Tax->value => self::home($owed->tax->amount, $rate)->plus($ours),
                LedgerAccount::TaxOwed->value => $ours->negated(),
                LedgerAccount::Payables->value => self::home($owed->total->amount, $rate)->negated(),
            ],
            $invoice->currency === $invoice->homeCurrency
                ? LedgerAccount::PriceDifference
                : LedgerAccount::ExchangeDifference,
        );
    }

    /** At our own rate of the day, owed and deducted at once; home currency. */
    private function ownTax(Invoice $invoice, BigDecimal $foreignForOne): BigDecimal
    {
        $name = mb_strtolower($this->business->get()->ownTax());
        $percent = '' === $name ? null : ($this->taxes->on($invoice->day)[$name] ?? null)?->percent;
        $taxed = $invoice->taxedByUs();

        return null === $percent || $taxed->isZero()
            ? BigDecimal::zero()
            : Money::of(self::home($taxed->amount, $foreignForOne), $invoice->homeCurrency)
                ->percent($percent)->rounded()->amount;
    }

    /**
     * @param list<Invoice> $invoices
     *
     * @return array<int, BigDecimal> home currency for a pack, by order line
     */
    private function came(array $invoices): array
    {
        $lines = [];
        foreach ($invoices as $invoice) {
            foreach ($invoice->lines() as $line) {
                $lines[] = $line->orderLine->id ?? 0;
            }
        }
        /** @var array<int, string> $rows */
        $rows = $this->entities->getConnection()->fetchAllKeyValue(
            'SELECT x.line_id, SUM(x.packs * l.pack_content * x.unit_cost) / SUM(x.packs)
             FROM standing_receipt_line x JOIN order_line l ON l.id = x.line_id WHERE x.line_id IN (?)
             GROUP BY x.line_id',
            [$lines],
            [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }

    /** @return list<BookEntry> */
    private function payments(Invoice $invoice, \DateTimeImmutable $end): array
    {
        $rate = $invoice->rate()->foreignForOne;
        $left = $invoice->owed()->total->amount;
        $entries = [];
        $all = $invoice->payments();
        foreach ($all as $n => $payment) {
            $left = $left->minus($payment->amount);
            if ($payment->day->format('Y-m-d') > $end->format('Y-m-d')) {
                continue;
            }
            $isLast = InvoiceState::Paid === $invoice->state() && $n === count($all) - 1;
            $discount = $isLast ? $left : BigDecimal::zero();
            $entries[] = BookEntry::of(
                'payment-'.$payment->id,
                $payment->day,
                $invoice->number,
                'Paid to '.$invoice->supplier->name(),
                [
                    LedgerAccount::Payables->value => self::home($payment->amount->plus($discount), $rate),
                    LedgerAccount::Discount->value => self::home($discount, $rate)->negated(),
                    LedgerAccount::Bank->value => self::home($payment->amount, $payment->foreignForOne)->negated(),
                ],
                LedgerAccount::ExchangeDifference,
            );
        }

        return $entries;
    }

    /** @return list<BookEntry> what was never paid needs none */
    private function credit(CreditNote $note, \DateTimeImmutable $end): array
    {
        $entries = [];
        $rate = $note->foreignForOne;
        $due = self::home($note->due()->amount, $rate);
        if ($note->enteredAt <= $end && !$due->isZero()) {
            $claims = $others = BigDecimal::zero();
            foreach ($note->lines() as $line) {
                $isClaim = ReturnWish::Credit === $line->back?->wish;
                $net = null === $line->disputed ? self::home($line->amount, $rate) : BigDecimal::zero();
                [$claims, $others] = $isClaim ? [$claims->plus($net), $others] : [$claims, $others->plus($net)];
            }
            $entries[] = BookEntry::of(
                'credit-'.$note->id,
                $note->enteredAt,
                $note->number,
                'Credit note of '.$note->supplier->name(),
                [
                    LedgerAccount::Payables->value => $due,
                    LedgerAccount::Claims->value => $claims->negated(),
                    LedgerAccount::PriceDifference->value => $others->negated(),
                ],
                LedgerAccount::Tax,
            );
        }
        if (null !== $note->usedOn() && $note->usedOn() <= $end && !$due->isZero()) {
            // The invoices it was taken off are booked as paid in full.
            $entries[] = BookEntry::of(
                'credit-used-'.$note->id,
                $note->usedOn(),
                $note->number,
                'Taken off what '.$note->supplier->name().' was paid',
                [LedgerAccount::Bank->value => $due],
                LedgerAccount::Payables,
            );
        }

        return $entries;
    }

    private static function home(BigDecimal $foreign, BigDecimal $foreignForOne): BigDecimal
    {
        return $foreign->dividedBy($foreignForOne, self::SCALE, RoundingMode::HalfUp)->toScale(2, RoundingMode::HalfUp);
    }
}
