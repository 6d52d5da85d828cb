<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Payment;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\OpenParts;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** What a supplier asks to be paid: entered, compared with what came, released, paid. */
#[ORM\Entity]
#[ORM\Table(name: 'invoice')]
#[ORM\Index(name: 'invoice_state', columns: ['state', 'day'])]
#[ORM\UniqueConstraint(name: 'invoice_once', columns: ['supplier_id', 'number'])]
class Invoice
{
    /** Days that money may be under way: who sent it in time has paid in time (common practice, no source). */
    private const UNDER_WAY = 4;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 12, enumType: InvoiceState::class)]
    private InvoiceState $state = InvoiceState::Entered;

    /** How often something was decided about its lines: whoever saw it before must look again. */
    #[ORM\Column(options: ['default' => 0])]
    private int $decisions = 0;

    #[ORM\ManyToOne]
    private ?Person $releasedBy = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $releasedAt = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $paidOn = null;

    /** What was paid of it until now, in its currency. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $paid = null;

    /** The file for the bank it is in; empty for none. */
    #[ORM\Column(length: 20, options: ['default' => ''])]
    private string $bankFile = '';

    /** Units of its currency for one of ours, on the day it was entered. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 8)]
    private BigDecimal $foreignForOne;

    #[ORM\Column(length: 3)]
    public readonly string $currency;

    #[ORM\Column(length: 3)]
    public readonly string $homeCurrency;

    /** @var Collection<int, InvoiceLine> */
    #[ORM\OneToMany(targetEntity: InvoiceLine::class, mappedBy: 'invoice', cascade: ['persist', 'remove'])]
    #[ORM\OrderBy(['position' => 'ASC'])]
    private Collection $lines;

    /** @var Collection<int, InvoicePayment> */
    #[ORM\OneToMany(targetEntity: InvoicePayment::class, mappedBy: 'invoice', cascade: ['persist', 'remove'])]
    #[ORM\OrderBy(['id' => 'ASC'])]
    private Collection $payments;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\Column(length: 40)] public readonly string $number,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        ExchangeRate $rate,
        #[ORM\ManyToOne] public readonly ?Person $enteredBy,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $enteredAt,
        #[ORM\Column(length: 60, unique: true)] public readonly string $idempotencyKey,
    ) {
        $this->currency = $rate->foreign->code;
        $this->homeCurrency = $rate->home->code;
        $this->foreignForOne = $rate->foreignForOne;
        $this->lines = new ArrayCollection();
        $this->payments = new ArrayCollection();
    }

    public function add(InvoiceLine $line): void
    {
        $this->lines->add($line);
    }

    /** @throws Refused once it is settled */
    public function decided(): void
    {
        $this->mustBeOpen();
        ++$this->decisions;
    }

    /** @return list<InvoiceLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }

    /** As the supplier asks for it. */
    public function asked(): DocumentSums
    {
        return $this->sums(static fn (InvoiceLine $line): Money => $line->asked());
    }

    /** As it stands after what came, and what was decided. */
    public function owed(): DocumentSums
    {
        return $this->sums(static fn (InvoiceLine $line): Money => $line->owed());
    }

    /** What we account for the tax of ourselves, before tax. */
    public function taxedByUs(): Money
    {
        return Money::sum(
            $this->currency,
            array_map(static fn (InvoiceLine $line): Money => $line->taxedByUs(), $this->lines()),
        )->rounded();
    }

    /** @param callable(InvoiceLine): Money $of */
    private function sums(callable $of): DocumentSums
    {
        return DocumentSums::of(
            $this->currency,
            array_map(
                static fn (InvoiceLine $line): array => [$of($line), Tax::percent($line->taxPercent)],
                $this->lines(),
            ),
        );
    }

    public function rate(): ExchangeRate
    {
        return ExchangeRate::of($this->homeCurrency, $this->currency, $this->foreignForOne);
    }

    /** The day the last of it is due. */
    public function dueOn(): \DateTimeImmutable
    {
        return $this->terms()?->dueOn($this->day) ?? $this->day;
    }

    /** Its own: the supplier's without the deposit, which is taken off it; a deposit is due when it is asked for. */
    private function terms(): ?PaymentTerms
    {
        foreach ($this->lines() as $line) {
            if (null !== $line->deposit && $line->price->isPositive()) {
                return PaymentTerms::net(0);
            }
        }

        return $this->supplier->terms()?->afterDeposit();
    }

    /** What is still to be paid, by the days its terms have. */
    public function openParts(): OpenParts
    {
        return OpenParts::of(
            $this->terms(),
            $this->owed()->total,
            $this->day,
            Money::of($this->paid ?? 0, $this->currency),
        );
    }

    /**
     * When what is left is best paid: early where the discount gains more than keeping the money would, else part by
     * part when each is due.
     *
     * @param float $yearlyPercent what the owner's money costs
     *
     * @return non-empty-list<Payment> by day
     */
    public function bestPaid(\DateTimeImmutable $today, float $yearlyPercent): array
    {
        $best = null !== $this->paid
            ? null
            : $this->terms()?->payments($this->owed()->total, $this->day, $this->day, $yearlyPercent)[0];

        return true === $best?->early && $best->day >= $today ? [$best] : $this->openParts()->parts;
    }

    /** @throws Refused */
    public function release(Person $by, \DateTimeImmutable $at): void
    {
        $this->mustBeOpen();
        foreach ($this->lines() as $line) {
            if (!$line->isDecided()) {
                throw new Refused(sprintf('%s: nobody has decided yet about %s.', $this->number, $line->words));
            }
        }
        $this->state = InvoiceState::Settled;
        $this->releasedBy = $by;
        $this->releasedAt = $at;
    }

    /** @throws Refused once it is paid */
    public function reopen(): void
    {
        if (null !== $this->paid && InvoiceState::Settled === $this->state) {
            throw new Refused(sprintf('A part of %s is paid already.', $this->number));
        }
        if (InvoiceState::Settled !== $this->state) {
            throw new Refused(sprintf('%s is not waiting to be paid.', $this->number));
        }
        $this->state = InvoiceState::Entered;
        $this->releasedBy = $this->releasedAt = null;
    }

    /**
     * All that is left of it, or a part: then the rest stays to be paid.
     *
     * @param ExchangeRate $rate   of the day
     * @param Money|null   $amount null for all
     *
     * @throws Refused unless it is released, and something of it is paid but no more than is left
     */
    public function pay(
        \DateTimeImmutable $on,
        ExchangeRate $rate,
        ?Person $by,
        ?Money $amount = null,
        string $reference = '',
    ): void {
        $this->mustBePayable();
        $amount = ($amount ?? $this->toPayOn($on))->rounded();
        $all = $this->leftFor($amount, $on);
        $isNothing = $all->amount->isPositive() && !$amount->amount->isPositive();
        if ($isNothing || $amount->isGreaterThan($all)) {
            throw new Refused(sprintf(
                '%s %s of %s cannot be paid; %s is left.',
                $this->currency,
                $amount->amount,
                $this->number,
                $all->amount,
            ));
        }
        $this->payments->add(new InvoicePayment($this, $on, $amount->amount, $reference, $by, $rate->foreignForOne));
        $this->paid = $amount->amount->plus($this->paid ?? 0);
        if ($amount->amount->isEqualTo($all->amount)) {
            $this->state = InvoiceState::Paid;
            $this->paidOn = $on;
        } elseif (!$this->openParts()->begun) {
            // An instalment is through: the next one goes to the bank anew.
            $this->bankFile = '';
        }
    }

    /** What was paid last of it. */
    public function paidLast(): Money
    {
        $last = $this->payments->last();

        return false === $last ? Money::zero($this->currency) : $last->money();
    }

    /** @return list<InvoicePayment> */
    public function payments(): array
    {
        return array_values($this->payments->toArray());
    }

    /** @throws Refused unless it is released and not paid */
    private function mustBePayable(): void
    {
        if (InvoiceState::Settled !== $this->state) {
            throw new Refused(sprintf(
                InvoiceState::Paid === $this->state ? '%s is paid already.' : '%s is not settled yet.',
                $this->number,
            ));
        }
    }

    /** @throws Refused unless it is released and not paid */
    public function goesToBank(string $file): void
    {
        $this->mustBePayable();
        $this->bankFile = $file;
    }

    public function bankFile(): string
    {
        return $this->bankFile;
    }

    /**
     * What is to be paid on a day: all of it less the discount for paying early, where it is still to be had, else the
     * instalments due by then, the next one at least; who paid a part has no discount for the rest (common practice, no
     * source).
     */
    public function toPayOn(\DateTimeImmutable $day): Money
    {
        return $this->discountedUntil($day) ?? $this->openParts()->dueBy($day);
    }

    /** All that is left on a day, whatever is due of it by then. */
    public function leftOn(\DateTimeImmutable $day): Money
    {
        return $this->discountedUntil($day) ?? $this->openParts()->left();
    }

    /** All that is left when that much is paid on a day: with the discount where it was sent in time, else without. */
    public function leftFor(Money $amount, \DateTimeImmutable $on): Money
    {
        $early = $this->discountedUntil($on->modify(sprintf('-%d days', self::UNDER_WAY)));

        return true === $early?->amount->isEqualTo($amount->amount) ? $early : $this->leftOn($on);
    }

    /** What a payment of that much is set beside: all that is left, unless it is the instalments due, to the cent. */
    public function expectedOf(Money $amount, \DateTimeImmutable $on): Money
    {
        $open = $this->openParts();

        return count($open->parts) > 1 && $open->dueBy($on)->amount->isEqualTo($amount->amount)
            ? $amount
            : $this->leftFor($amount, $on);
    }

    /** The sum less the discount, where it is to be had on that day. */
    private function discountedUntil(\DateTimeImmutable $day): ?Money
    {
        $terms = $this->terms();
        $until = $terms?->discountUntil($this->day);
        $isToBeHad = null === $this->paid && null !== $terms && null !== $until
            && $day->format('Y-m-d') <= $until->format('Y-m-d');

        return $isToBeHad ? $terms->discounted($this->owed()->total) : null;
    }

    /** @throws Refused once it is settled */
    public function mustBeOpen(): void
    {
        if (InvoiceState::Entered !== $this->state) {
            throw new Refused(sprintf('%s is %s; it is not changed any more.', $this->number, $this->state->value));
        }
    }

    public function state(): InvoiceState
    {
        return $this->state;
    }

    public function releasedBy(): ?Person
    {
        return $this->releasedBy;
    }

    public function releasedAt(): ?\DateTimeImmutable
    {
        return $this->releasedAt;
    }

    public function paidOn(): ?\DateTimeImmutable
    {
        return $this->paidOn;
    }

    public function paid(): ?Money
    {
        return null === $this->paid ? null : Money::of($this->paid, Currency::of($this->currency));
    }

    public function version(): int
    {
        return $this->version;
    }
}
