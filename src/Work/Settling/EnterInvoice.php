<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Problems;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\Deposits;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Supplier\Supplier;

/** Enters what a supplier asks for, and sets it beside what was ordered and came. */
final readonly class EnterInvoice
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Invoices $invoices,
        private Deposits $deposits,
        private Rates $rates,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Problems $problems by number, day, total, the places of the lines, or none
     *
     * @return Invoice|null null where something is wrong, and nothing is saved
     */
    public function enter(AskedInvoice $asked, ?Person $by, Problems $problems): ?Invoice
    {
        return $this->entities->wrapInTransaction(function () use ($asked, $by, $problems): ?Invoice {
            // Two with one number come one after the other.
            $this->entities->getConnection()->fetchOne(
                'SELECT id FROM supplier WHERE id = ? FOR UPDATE',
                [$asked->supplier->id],
            );
            $same = $this->entities->getRepository(Invoice::class)->findOneBy(['idempotencyKey' => $asked->key]);
            if (null !== $same) {
                return $same;
            }
            $invoice = $this->made($asked, $by, $problems);
            if (null === $invoice || !$problems->areNone()) {
                return null;
            }
            $received = $this->invoices->received(
                array_map(static fn (InvoiceLine $line): int => $line->orderLine->id ?? 0, $invoice->lines()),
            );
            foreach ($invoice->lines() as $line) {
                $line->weigh($received[$line->orderLine->id ?? 0] ?? BigDecimal::zero());
            }
            $this->entities->persist($invoice);
            $this->entities->flush();
            $this->audit->note($by, self::subject($invoice), sprintf(
                'Entered: %s %s with tax',
                $invoice->currency,
                $invoice->asked()->total->amount,
            ));

            return $invoice;
        });
    }

    /** Under what the audit keeps it. */
    public static function subject(Invoice $invoice): string
    {
        return 'invoice-'.$invoice->id;
    }

    public static function enteredBefore(Invoice|CreditNote $known): string
    {
        return sprintf(
            'Their %s of %s was entered on %s already.',
            $known->number,
            $known->day->format('j M Y'),
            $known->enteredAt->format('j M Y'),
        );
    }

    private function made(AskedInvoice $asked, ?Person $by, Problems $problems): ?Invoice
    {
        $day = $this->day($asked, $problems);
        if ('' === $asked->number) {
            $problems->refuse('number', 'Type the number on their invoice.');
        } else {
            $known = $this->invoices->byNumber($asked->supplier, $asked->number);
            if (null !== $known) {
                $problems->refuse('number', self::enteredBefore($known));
            }
        }
        $lines = array_filter($asked->lines, static fn (AskedLine $line): bool => !$line->packs->isZero());
        if ([] === $lines) {
            $problems->refuse('', 'Nothing is on this invoice: every quantity is 0.');
        }
        if (null === $day || !$problems->areNone()) {
            return null;
        }
        $invoice = new Invoice(
            $asked->supplier,
            $asked->number,
            $day,
            $this->rates->on($asked->supplier->currency()->code, $this->clock->now()),
            $by,
            $this->clock->now(),
            $asked->key,
        );
        foreach (array_values($lines) as $i => $line) {
            $this->add($invoice, $i + 1, $line, $problems);
        }
        $this->compare($invoice, $asked->total, $problems);

        return $invoice;
    }

    private function day(AskedInvoice $asked, Problems $problems): ?\DateTimeImmutable
    {
        if (null === $asked->day) {
            $problems->refuse('day', 'Say which day stands on it.');

            return null;
        }
        if ($asked->day > $this->clock->now()) {
            $problems->refuse('day', sprintf('%s is a day to come.', $asked->day->format('j M Y')));
        }
        foreach ($asked->lines as $line) {
            $order = $line->order();
            $sent = $order?->sentAt();
            if (null !== $sent && !$line->packs->isZero() && $asked->day->format('Y-m-d') < $sent->format('Y-m-d')) {
                $problems->refuse('day', sprintf(
                    '%s is before %s was sent, on %s.',
                    $asked->day->format('j M Y'),
                    $order->number,
                    $sent->format('j M Y'),
                ));
            }
        }

        return $asked->day;
    }

    private function add(Invoice $invoice, int $position, AskedLine $line, Problems $problems): void
    {
        $order = $line->order();
        if (null !== $order && !self::billedBy($order, $invoice->supplier)) {
            $problems->refuse($line->place, sprintf('%s was ordered from %s.', $line->words, $order->supplier->name()));

            return;
        }
        if (null !== $order && $order->currency !== $invoice->currency) {
            $problems->refuse($line->place, sprintf(
                '%s was ordered in %s; this invoice is in %s.',
                $line->words,
                $order->currency,
                $invoice->currency,
            ));

            return;
        }
        $agreed = null === $line->deposit ? null : $this->agreed($line, $line->deposit, $problems);
        $problems->attempt($line->place, static fn (): InvoiceLine => new InvoiceLine(
            $invoice,
            $position,
            $line->orderLine,
            $line->words,
            $line->packs,
            $line->price,
            $line->taxPercent,
            $line->deposit,
            $agreed,
        ));
    }

    /** What may be asked as a deposit yet; null where one is taken off, of which no more than was asked. */
    private function agreed(AskedLine $line, PurchaseOrder $order, Problems $problems): ?BigDecimal
    {
        if (!$line->price->isNegative()) {
            $asked = $this->deposits->asked([$order])[$order->id] ?? BigDecimal::zero();

            return BigDecimal::max($order->depositAgreed()->amount->minus($asked), BigDecimal::zero());
        }
        $open = $this->deposits->open([$order])[$order->id] ?? BigDecimal::zero();
        if ($line->price->negated()->isGreaterThan($open)) {
            $problems->refuse($line->place, sprintf(
                '%s is taken off for %s, of whose deposits %s is left.',
                $line->price->negated(),
                $order->number,
                $open->toScale(2),
            ));
        }

        return null;
    }

    /** Who sold it, whom it is paid through, or who was to be paid for this order. */
    private static function billedBy(PurchaseOrder $order, Supplier $biller): bool
    {
        return in_array($biller, [$order->supplier, $order->supplier->paidThrough(), $order->payee()], true);
    }

    private function compare(Invoice $invoice, ?BigDecimal $total, Problems $problems): void
    {
        $sum = $invoice->asked()->total;
        if ($problems->areNone() && $sum->amount->isNegative()) {
            $problems->refuse('', sprintf(
                'It comes to %s with tax: what gives something back is a credit note.',
                $sum->amount,
            ));
        }
        if (null !== $total && $problems->areNone() && !$total->isEqualTo($sum->amount)) {
            $problems->refuse('total', sprintf(
                'The lines with tax come to %s, not %s: %s is %s.',
                $sum->amount,
                $total->toScale(2),
                $sum->amount->minus($total)->abs(),
                $sum->amount->isGreaterThan($total) ? 'too much' : 'missing',
            ));
        }
    }
}
