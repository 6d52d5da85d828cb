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
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\Payable;
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

    /** Its own: the supplier's without the deposit, which is taken off it; a deposit is due when it is asked for. */
    private function terms(bool $asksDeposit): ?PaymentTerms
    {
        return $asksDeposit ? PaymentTerms::net(0) : $this->supplier->terms()?->afterDeposit();
    }

    /** As money to be paid; reckoned anew with each call, so ask once. */
    public function payable(): Payable
    {
        return $this->payableOf(
            $this->owed()->total,
            [] !== array_filter(
                $this->lines(),
                static fn (InvoiceLine $line): bool => null !== $line->deposit && $line->price->isPositive(),
            ),
        );
    }

    /** The same, where what its lines come to is known already. */
    public function payableOf(Money $owed, bool $asksDeposit): Payable
    {
        return new Payable(
            $this->terms($asksDeposit),
            $owed,
            $this->day,
            null === $this->paid ? null : Money::of($this->paid, $this->currency),
        );
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
        $payable = $this->payable();
        $amount = ($amount ?? $payable->toPayOn($on))->rounded();
        $all = $payable->leftFor($amount, $on);
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
        } elseif (!$this->payable()->open->begun) {
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
