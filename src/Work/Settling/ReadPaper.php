<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\AccountState;
use TallBarrel\Core\Settling\Paper\InvoiceRules;
use TallBarrel\Core\Settling\Paper\PaperCharge;
use TallBarrel\Core\Settling\Paper\PaperInvoice;
use TallBarrel\Core\Settling\Paper\PaperLine;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\Gtins;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Settle\CreditNote;
use TallBarrel\Store\Settle\CreditNotes;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoicePaper;
use TallBarrel\Store\Settle\InvoicePapers;
use TallBarrel\Store\Settle\Invoices;
use TallBarrel\Store\Settle\SupplierAccount;
use TallBarrel\Store\Settle\SupplierAccounts;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\KnownContent;

/** An invoice that came as a file: checked by the rules, kept, and laid beside what was ordered. */
final readonly class ReadPaper
{
    /** Broken rules that are named; the rest is counted. */
    private const NAMED = 6;
    private const MOST = 8;

    public function __construct(
        private EntityManagerInterface $entities,
        private PaperReader $reader,
        private KnownContent $contents,
        private InvoicePapers $papers,
        private Invoices $invoices,
        private CreditNotes $credits,
        private SupplierAccounts $accounts,
        private Gtins $gtins,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param Supplier|null $from whose it is; null to find out from what stands in it
     *
     * @throws InvalidValue if it cannot be read, or breaks a rule
     * @throws Refused      if it is not clear whose it is, or it is none that can be entered
     */
    public function keep(string $name, string $bytes, ?Supplier $from, Person $by): InvoicePaper
    {
        $paper = $this->reader->read($name, $bytes);
        $broken = InvoiceRules::broken($paper);
        if ([] !== $broken) {
            $words = array_slice(array_map(strval(...), $broken), 0, self::NAMED);
            $more = count($broken) - count($words);
            throw InvalidValue::because(sprintf(
                '“%s” is no valid invoice. %s%s.',
                $name,
                implode('; ', $words),
                $more > 0 ? sprintf('; and %d more', $more) : '',
            ));
        }
        $supplier = $from ?? $this->supplierOf($paper) ?? throw new Refused(sprintf(
            'Whose invoice is it? “%s” is no supplier of that name, and no order or account in it is known.',
            $paper->seller,
        ));
        if ($paper->currency !== $supplier->currency()->code) {
            throw new Refused(sprintf(
                '%s is in %s; %s is paid in %s.',
                $paper->number,
                $paper->currency,
                $supplier->name(),
                $supplier->currency()->code,
            ));
        }
        $known = $paper->isCredit()
            ? $this->credits->byNumber($supplier, $paper->number)
            : $this->invoices->byNumber($supplier, $paper->number);
        if (null !== $known) {
            throw new Refused(EnterInvoice::enteredBefore($known));
        }
        $now = $this->clock->now();
        $this->papers->sweep($now);
        $kind = str_starts_with(ltrim($bytes, "\xEF\xBB\xBF \t\r\n"), '<') ? InvoicePaper::XML : InvoicePaper::CSV;
        $kept = new InvoicePaper($supplier, KnownContent::named($name, $kind), $kind, $bytes,
            $by, $now);
        $this->entities->persist($kept);
        foreach (array_slice($paper->pictures, 0, self::MOST) as $picture) {
            try {
                $seen = $this->contents->of($picture->name, $picture->content);
                $this->entities->persist(new InvoicePaper($supplier, ...[...$seen, $by, $now, $kept]));
            } catch (InvalidValue) {
                // What is within it and cannot be shown is still in the file itself.
            }
        }
        $this->entities->flush();

        return $kept;
    }

    /**
     * A PDF or a picture of an invoice that is entered already.
     *
     * @throws InvalidValue|Refused
     */
    public function attach(Invoice $invoice, string $name, string $bytes, Person $by): void
    {
        if ($this->papers->count($invoice) >= self::MOST) {
            throw new Refused(sprintf('%d files are kept with it already.', self::MOST));
        }
        $paper = new InvoicePaper(
            $invoice->supplier,
            ...[...$this->contents->of($name, $bytes), $by, $this->clock->now()],
        );
        $paper->belongsTo($invoice);
        $this->entities->persist($paper);
        $this->audit->note($by, EnterInvoice::subject($invoice), $paper->name.' attached');
        $this->entities->flush();
    }

    /**
     * The file and what was within it belong to the invoice that was made of it.
     *
     * @throws Refused
     */
    public function entered(InvoicePaper $paper, Invoice $invoice): void
    {
        foreach ([$paper, ...$this->papers->within($paper)] as $one) {
            $one->belongsTo($invoice);
        }
        $this->entities->flush();
    }

    public function isCredit(InvoicePaper $kept): bool
    {
        return $this->reader->read($kept->name, $kept->content())->isCredit();
    }

    /** The file belongs to the credit note that was made of it. */
    public function credited(InvoicePaper $paper, CreditNote $note): void
    {
        foreach ([$paper, ...$this->papers->within($paper)] as $one) {
            $one->belongsToCredit($note);
        }
        $this->entities->flush();
    }

    public function draft(InvoicePaper $kept): PaperDraft
    {
        $paper = $this->reader->read($kept->name, $kept->content());
        if ($paper->isCredit()) {
            return new PaperDraft($paper, [], array_values([...array_map(static fn (PaperLine $line): array => [
                $line->name, $line->net ?? BigDecimal::zero(), $line->percent ?? BigDecimal::zero(), false,
            ], $paper->lines), ...self::charges($paper)]), $this->notes($paper, $kept->supplier));
        }
        $candidates = $this->candidates($kept->supplier);
        $waiting = $this->invoices->received(array_map(static fn (OrderLine $line): int => $line->id, $candidates));
        $lines = $charges = $notes = [];
        foreach ($paper->lines as $line) {
            $percent = $line->percent ?? BigDecimal::zero();
            $found = $this->orderLine($line, $paper->order, $candidates, $waiting);
            if (null === $found || isset($lines[$found->id])) {
                $charges[] = [$line->name, $line->net ?? BigDecimal::zero(), $percent, '' !== self::codes($line)];
                if ('' !== self::codes($line)) {
                    $notes[] = sprintf(
                        null === $found ? 'Line %s, %s (%s), is on no order of theirs.'
                            : 'Line %s, %s (%s), asks a second time for the same line of an order.',
                        $line->id,
                        $line->name,
                        self::codes($line),
                    );
                }
                continue;
            }
            [$packs, $price] = self::inPacks($line, $found);
            $lines[$found->id] = [$packs, $price, $percent];
            if (!$found->tax()->percent->isEqualTo($percent)) {
                $notes[] = sprintf(
                    '%s is taxed at %s %% on it; on our order stands: %s.',
                    $found->description,
                    $percent->strippedOfTrailingZeros(),
                    $found->tax()->words(),
                );
            }
        }
        array_push($charges, ...self::charges($paper));

        return new PaperDraft($paper, $lines, $charges, [...$notes, ...$this->notes($paper, $kept->supplier)]);
    }

    /** @return list<array{string, BigDecimal, BigDecimal, bool}> on the whole of it; below 0 what is taken off */
    private static function charges(PaperInvoice $paper): array
    {
        return array_map(static fn (PaperCharge $one): array => [
            $one->reason,
            $one->isCharge ? $one->amount ?? BigDecimal::zero() : ($one->amount ?? BigDecimal::zero())->negated(),
            $one->percent ?? BigDecimal::zero(),
            false,
        ], $paper->charges);
    }

    /** @return list<string> */
    private function notes(PaperInvoice $paper, Supplier $supplier): array
    {
        $notes = [];
        $prepaid = $paper->totals->prepaid ?? BigDecimal::zero();
        if ($prepaid->isPositive()) {
            $notes[] = sprintf('%s are paid already, it says; %s are asked for.', $prepaid, $paper->totals->payable);
        }
        $account = $this->accounts->inForce($supplier);
        if ('' !== $paper->iban && null !== $account && $account->iban !== $paper->iban) {
            $notes[] = sprintf(
                'It names the account %s; %s is paid to %s. Ask them by a way you know before anything changes.',
                $paper->iban,
                $supplier->name(),
                $account->iban,
            );
        }

        return $notes;
    }

    /** By the order it names, else by the account, else by the name. */
    private function supplierOf(PaperInvoice $paper): ?Supplier
    {
        $order = '' === $paper->order ? null
            : $this->entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $paper->order]);
        if (null !== $order) {
            return $order->payee() ?? $order->supplier;
        }
        $account = '' === $paper->iban ? null : $this->entities->getRepository(SupplierAccount::class)
            ->findOneBy(['iban' => $paper->iban, 'state' => AccountState::InForce]);

        return $account->supplier
            ?? $this->entities->getRepository(Supplier::class)->findOneBy(['name' => $paper->seller]);
    }

    /** @return list<OrderLine> of what they were sent, the latest first */
    private function candidates(Supplier $supplier): array
    {
        /** @var list<OrderLine> $lines */
        $lines = $this->entities
            ->createQuery(
                'SELECT l, o, i FROM '.OrderLine::class.' l JOIN l.order o LEFT JOIN l.item i
                 WHERE (o.supplier = :supplier OR o.paidTo = :supplier) AND o.sentAt IS NOT NULL
                 ORDER BY o.id DESC, l.position',
            )
            ->setParameter('supplier', $supplier)
            ->setMaxResults(3000)
            ->getResult();

        return $lines;
    }

    /**
     * @param list<OrderLine>        $candidates
     * @param array<int, BigDecimal> $waiting    received and not invoiced, by order line
     */
    private function orderLine(PaperLine $line, string $order, array $candidates, array $waiting): ?OrderLine
    {
        $order = '' === $line->order ? $order : $line->order;
        $gtin = Gtin::tryOf($line->gtin);
        $codes = array_diff([$line->buyersCode, null === $gtin ? null : $this->gtins->owner($gtin)], ['', null]);
        $best = null;
        $most = -1;
        foreach ($candidates as $one) {
            $known = match (true) {
                '' !== $line->sellersCode && 0 === strcasecmp($one->supplierCode(), $line->sellersCode),
                in_array($one->item->code ?? '', $codes, true) => 4,
                $one->order->number === $order && (string) $one->position === $line->orderLine => 3,
                0 === strcasecmp($one->description, $line->name) => 2,
                default => 0,
            };
            if (0 === $known) {
                continue;
            }
            $fits = 10 * $known + ($one->order->number === $order ? 100 : 0)
                + (($waiting[$one->id] ?? BigDecimal::zero())->isPositive() ? 5 : 0);
            if ($fits > $most) {
                [$best, $most] = [$one, $fits];
            }
        }

        return $best;
    }

    private static function codes(PaperLine $line): string
    {
        return implode(', ', array_diff([$line->sellersCode, $line->buyersCode, $line->gtin], ['']));
    }

    /**
     * Some count packs, some what is in them: that of the two is taken whose price is nearer to the one ordered.
     *
     * @return array{BigDecimal, BigDecimal} packs, and the price of one after the line's own allowances and charges
     */
    private static function inPacks(PaperLine $line, OrderLine $ordered): array
    {
        $quantity = $line->quantity ?? BigDecimal::zero();
        $net = $line->net ?? BigDecimal::zero();
        $one = $line->less->isZero() && $line->more->isZero() && null !== $line->price
            ? $line->price->dividedBy($line->per, 6, RoundingMode::HalfUp)
            : ($quantity->isZero() ? BigDecimal::zero() : $net->dividedBy($quantity, 6, RoundingMode::HalfUp));
        $content = $ordered->pack()->content;
        $packs = $quantity->dividedBy($content, 3, RoundingMode::HalfUp);
        $price = $one->multipliedBy($content)->toScale(6, RoundingMode::HalfUp);
        $far = static fn (BigDecimal $asked): float => abs(log(max(1e-9, $asked->toFloat())
            / max(1e-9, $ordered->price()->toFloat())));

        return $packs->multipliedBy($content)->isEqualTo($quantity) && $far($price) < $far($one)
            ? [$packs, $price]
            : [$quantity, $one];
    }
}
