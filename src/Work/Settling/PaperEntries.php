<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Invoice;

/** What papers did to the accounts: invoices once they are settled, what was paid of them, and credit notes. */
final readonly class PaperEntries
{
    private const SCALE = 6;

    public function __construct(private EntityManagerInterface $entities)
    {
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
        foreach ($invoices as $invoice) {
            $entries[] = $this->invoice($invoice);
            array_push($entries, ...$this->payments($invoice, $end));
        }
        foreach ($this->entities->getRepository(CreditNote::class)->findBy([], ['id' => 'ASC']) as $note) {
            array_push($entries, ...$this->credit($note, $last));
        }

        return $entries;
    }

    /** Goods come off what was received, at the price they were ordered at; what they cost beyond is a difference. */
    private function invoice(Invoice $invoice): BookEntry
    {
        $rate = $invoice->rate()->foreignForOne;
        $received = $charges = BigDecimal::zero();
        foreach ($invoice->lines() as $line) {
            $order = $line->orderLine?->order;
            if (null === $order) {
                $charges = $charges->plus(self::home($line->owed()->amount, $rate));
            } else {
                $ordered = $line->owedPacks()->multipliedBy($line->orderLine->price());
                $received = $received->plus(self::home($ordered, $order->rate()->foreignForOne));
            }
        }
        $owed = $invoice->owed();

        return BookEntry::of(
            'invoice-'.$invoice->id,
            $invoice->releasedAt() ?? $invoice->day,
            $invoice->number,
            'Invoice of '.$invoice->supplier->name(),
            [
                LedgerAccount::Received->value => $received,
                LedgerAccount::Charges->value => $charges,
                LedgerAccount::Tax->value => self::home($owed->tax->amount, $rate),
                LedgerAccount::Payables->value => self::home($owed->total->amount, $rate)->negated(),
            ],
            LedgerAccount::PriceDifference,
        );
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
