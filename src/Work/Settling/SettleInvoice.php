<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\QuantityVerdict;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\BookPeriods;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Takes an invoice from what differs to what is paid; each step on the locked invoice, as it was seen last. */
final readonly class SettleInvoice
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Invoices $invoices,
        private OfferPrices $prices,
        private Rates $rates,
        private CreditLetter $letter,
        private PaymentAdvice $advice,
        private CreditNotes $credits,
        private Deposits $deposits,
        private CreditsTakenOff $takenOff,
        private BookPeriods $periods,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param int $version as it was seen
     *
     * @throws Refused if it was changed meanwhile, or is not open any more
     */
    public function decide(
        int $invoice,
        int $version,
        int $line,
        QuantityVerdict|PriceVerdict $verdict,
        Person $by,
    ): Invoice {
        return $this->step($invoice, $version, function (Invoice $invoice) use ($line, $verdict, $by): void {
            $found = array_values(
                array_filter($invoice->lines(), static fn (InvoiceLine $one): bool => $one->id === $line),
            )[0] ?? throw new Refused('That line is not on this invoice.');
            $this->mustBeUnanswered($found);
            $found->decide(
                $verdict instanceof QuantityVerdict ? $verdict : null,
                $verdict instanceof PriceVerdict ? $verdict : null,
            );
            if (PriceVerdict::Accepted === $verdict) {
                $this->follow($found);
            }
            if (PriceVerdict::Credit === $verdict || QuantityVerdict::Credit === $verdict) {
                $this->letter->ask($invoice, $found, $by);
            }
            $this->audit->note($by, EnterInvoice::subject($invoice), sprintf('%s: %s', $found->words, match ($verdict) {
                QuantityVerdict::AsReceived => 'only what came is paid',
                QuantityVerdict::Credit => 'a credit note was asked for what did not come',
                QuantityVerdict::Awaited => 'the rest is on its way, all is paid',
                PriceVerdict::AsAgreed => 'the agreed price is paid',
                PriceVerdict::Credit => 'a credit note was asked for the price above the agreed one',
                PriceVerdict::Accepted => sprintf(
                    null === $found->deposit ? '%s is accepted, the standing price follows' : '%s is accepted',
                    $found->price,
                ),
            }));
        });
    }

    /** @throws Refused also where the person booked in what is on it */
    public function release(int $invoice, int $version, Person $by): Invoice
    {
        return $this->step($invoice, $version, function (Invoice $invoice) use ($by): void {
            if ($this->invoices->wasReceivedBy($invoice, $by)) {
                throw new Refused(sprintf('You booked in what is on %s: somebody else settles it.', $invoice->number));
            }
            $invoice->release($by, $this->clock->now());
            $this->audit->note(
                $by,
                EnterInvoice::subject($invoice),
                sprintf('Settled: %s %s owed', $invoice->currency, $invoice->owed()->total->amount),
            );
        });
    }

    /** @throws Refused */
    public function reopen(int $invoice, int $version, Person $by): Invoice
    {
        return $this->step($invoice, $version, function (Invoice $invoice) use ($by): void {
            if ($this->periods->has('invoice-'.$invoice->id)) {
                throw new Refused(sprintf(
                    '%s is in the books of a closed month; a credit note puts it right.',
                    $invoice->number,
                ));
            }
            $invoice->reopen();
            $this->audit->note($by, EnterInvoice::subject($invoice), 'Taken back from paying');
        });
    }

    /**
     * Gives up an invoice that was entered by mistake.
     *
     * @throws Refused once it is settled
     */
    public function discard(int $invoice, int $version, Person $by): void
    {
        $this->step($invoice, $version, function (Invoice $invoice) use ($by): void {
            $invoice->mustBeOpen();
            $this->mustBeUnanswered(...$invoice->lines());
            $this->mustNotBeTakenOff($invoice);
            $this->audit->note($by, $invoice->supplier->code, sprintf('Gave up invoice %s', $invoice->number));
            $this->entities->remove($invoice);
        });
    }

    /**
     * @param list<array{int, int}> $invoices with the versions seen
     * @param list<array{int, int}> $credits  credit notes that were taken off, with the versions seen
     * @param Payout|null           $payout   as it stands with the bank; of one invoice it may be a part
     * @param bool                  $tell     whether the suppliers are told
     *
     * @return list<Invoice> paid
     *
     * @throws Refused if one is not to be paid, more is taken off than is paid to that supplier, or all of it is not
     *                 what the bank says; then none is
     */
    public function pay(
        array $invoices,
        \DateTimeImmutable $on,
        Person $by,
        array $credits = [],
        ?Payout $payout = null,
        bool $tell = false,
    ): array {
        if ($on > $this->clock->now()) {
            throw new Refused(sprintf('%s is a day to come.', $on->format('j M Y')));
        }

        return $this->whole->take(function () use ($invoices, $on, $by, $credits, $payout, $tell): array {
            $one = 1 === count($invoices) && [] === $credits ? $payout?->amount : null;
            $paid = array_map(
                fn (array $seen): Invoice => $this->step(
                    $seen[0],
                    $seen[1],
                    fn (Invoice $invoice) => $this->isPaid($invoice, $on, $by, $one, $payout->reference ?? ''),
                ),
                $invoices,
            );
            $sum = Money::sum($payout->amount->currency ?? 'EUR', null === $payout ? [] : array_map(
                static fn (Invoice $invoice): Money => $invoice->paidLast(),
                $paid,
            ));
            $less = $this->takenOff->from($paid, $credits);
            foreach ($less as $credit) {
                $sum = null === $payout ? $sum : $sum->minus($credit->due());
                $credit->takeOff($on);
                $this->audit->note($by, $credit->supplier->code, sprintf(
                    'Credit note %s taken off on %s: %s %s',
                    $credit->number,
                    $on->format('j M Y'),
                    $credit->currency,
                    $credit->due()->amount,
                ));
            }
            if (null !== $payout && !$sum->amount->isEqualTo($payout->amount->amount)) {
                throw new Refused(sprintf(
                    'The bank paid %s %s; these come to %s.',
                    $payout->amount->currency->code,
                    $payout->amount->amount,
                    $sum->amount,
                ));
            }
            if ($tell) {
                $this->tell($paid, $less, $on, $by);
            }

            return $paid;
        });
    }

    /**
     * @param list<Invoice>    $paid
     * @param list<CreditNote> $less
     */
    private function tell(array $paid, array $less, \DateTimeImmutable $on, Person $by): void
    {
        $together = [];
        foreach ($paid as $invoice) {
            $together[CreditsTakenOff::key($invoice)][] = $invoice;
        }
        foreach ($together as $key => $invoices) {
            $supplier = $invoices[0]->supplier->paidThrough() ?? $invoices[0]->supplier;
            $credits = array_values(
                array_filter($less, static fn (CreditNote $one): bool => CreditsTakenOff::key($one) === $key),
            );
            $isTold = $this->advice->tell($supplier, $invoices, $credits, $on, $by);
            foreach ($invoices as $invoice) {
                $this->audit->note($by, EnterInvoice::subject($invoice), $isTold
                    ? $supplier->name().' is told of the payment'
                    : $supplier->name().' has no contact to tell of the payment');
            }
        }
    }

    /**
     * A part of an invoice; the rest stays to be paid.
     *
     * @throws Refused
     */
    public function payPart(int $invoice, int $version, Money $amount, \DateTimeImmutable $on, Person $by): Invoice
    {
        return $this->pay([[$invoice, $version]], $on, $by, payout: new Payout($amount, ''))[0];
    }

    private function isPaid(
        Invoice $invoice,
        \DateTimeImmutable $on,
        Person $by,
        ?Money $amount,
        string $reference,
    ): void {
        $invoice->pay($on, $this->rates->on($invoice->currency, $on), $by, $amount, $reference);
        $this->audit->note($by, EnterInvoice::subject($invoice), sprintf(
            InvoiceState::Paid === $invoice->state() ? 'Paid on %s: %s %s' : 'A part paid on %s: %s %s',
            $on->format('j M Y'),
            $invoice->currency,
            $invoice->paidLast()->amount,
        ));
    }

    /** @throws Refused where a deposit it asks for was taken off another invoice */
    private function mustNotBeTakenOff(Invoice $invoice): void
    {
        foreach ($invoice->lines() as $line) {
            $order = $line->deposit;
            if (null !== $order && $line->owed()->amount->isGreaterThan($this->deposits->balance($order))) {
                throw new Refused(sprintf('The deposit of %s is taken off another invoice already.', $order->number));
            }
        }
    }

    /** @throws Refused once their credit note came: what it was for stays as it was decided */
    private function mustBeUnanswered(InvoiceLine ...$lines): void
    {
        $note = $this->credits->answering(...$lines);
        if (null !== $note) {
            throw new Refused(sprintf('Their credit note %s answers that already; it stays as it is.', $note->number));
        }
    }

    /** @param callable(Invoice): void $change */
    private function step(int $id, int $version, callable $change): Invoice
    {
        return $this->whole->take(function () use ($id, $version, $change): Invoice {
            $stands = $this->invoices->lock($id);
            $invoice = $this->invoices->find($id) ?? throw new Refused('That invoice is gone.');
            if ($stands !== $version || $invoice->version() !== $version) {
                throw new Refused(sprintf(
                    '%s was changed by somebody else meanwhile. Look at it once more, then try again.',
                    $invoice->number,
                ));
            }
            $received = $this->invoices->received(
                array_map(static fn (InvoiceLine $line): int => $line->orderLine->id ?? 0, $invoice->lines()),
                $invoice->id,
            );
            foreach ($invoice->lines() as $line) {
                $line->weigh($received[$line->orderLine->id ?? 0] ?? BigDecimal::zero());
            }
            $change($invoice);

            return $invoice;
        });
    }

    /** The standing price follows what is paid, before the offer's discounts. */
    private function follow(InvoiceLine $line): void
    {
        $offer = $line->orderLine?->offer;
        if (null === $offer) {
            return;
        }
        $today = $this->clock->now()->setTime(0, 0);
        try {
            $prices = $offer->listPrices()->withPriceAt(
                $line->packs,
                $offer->listedFor($line->price, $line->packs),
            );
        } catch (InvalidValue $invalid) {
            throw new Refused('The standing price cannot follow: '.$invalid->getMessage());
        }
        $this->prices->change($offer, $prices, $today, $today, 'invoice '.$line->invoice->number);
    }
}
