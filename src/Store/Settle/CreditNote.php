<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** What a supplier gives back on paper: for goods sent back, for what was disputed and never paid, or for nothing. */
#[ORM\Entity]
#[ORM\Table(name: 'credit_note')]
#[ORM\UniqueConstraint(name: 'credit_once', columns: ['supplier_id', 'number'])]
class CreditNote
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    /** When it was taken off what was paid; null while it stands open. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $usedOn = null;

    /** The file for the bank in which it lessens a payment; empty for none. */
    #[ORM\Column(length: 20, options: ['default' => ''])]
    private string $bankFile = '';

    /** @var Collection<int, CreditNoteLine> */
    #[ORM\OneToMany(targetEntity: CreditNoteLine::class, mappedBy: 'note', cascade: ['persist'])]
    #[ORM\OrderBy(['position' => 'ASC'])]
    private Collection $lines;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\Column(length: 40)] public readonly string $number,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(length: 3)] public readonly string $currency,
        /** Units of its currency for one of ours, on the day it was entered. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 8)] public readonly BigDecimal $foreignForOne,
        #[ORM\ManyToOne] public readonly ?Person $enteredBy,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $enteredAt,
        #[ORM\Column(length: 60, unique: true)] public readonly string $idempotencyKey,
    ) {
        $this->lines = new ArrayCollection();
    }

    public function add(CreditNoteLine $line): void
    {
        $this->lines->add($line);
    }

    /** @return list<CreditNoteLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }

    /** As it stands on the paper. */
    public function sums(): DocumentSums
    {
        return $this->of($this->lines());
    }

    /** What is still to come back: what was never paid needs none. */
    public function due(): Money
    {
        return $this->of(array_filter(
            $this->lines(),
            static fn (CreditNoteLine $line): bool => null === $line->disputed,
        ))->total;
    }

    /** @param array<CreditNoteLine> $lines */
    private function of(array $lines): DocumentSums
    {
        return DocumentSums::of($this->currency, array_map(
            fn (CreditNoteLine $line): array => [
                Money::of($line->amount, $this->currency),
                Tax::percent($line->taxPercent),
            ],
            $lines,
        ));
    }

    /** @throws Refused unless something is still to come back */
    public function takeOff(\DateTimeImmutable $on): void
    {
        $this->mustBeOpen();
        $this->usedOn = $on;
    }

    /** @throws Refused unless something is still to come back */
    public function goesToBank(string $file): void
    {
        $this->mustBeOpen();
        $this->bankFile = $file;
    }

    /** @throws Refused */
    private function mustBeOpen(): void
    {
        if (!$this->isOpen()) {
            throw new Refused(sprintf('The credit note %s is used up already.', $this->number));
        }
    }

    public function isOpen(): bool
    {
        return null === $this->usedOn;
    }

    public function usedOn(): ?\DateTimeImmutable
    {
        return $this->usedOn;
    }

    public function bankFile(): string
    {
        return $this->bankFile;
    }

    public function version(): int
    {
        return $this->version;
    }
}
