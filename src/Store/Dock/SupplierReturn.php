<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Receiving\ReturnState;
use TallBarrel\Core\Receiving\ReturnWish;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Stock\StockState;

/** Goods of one receipt on their way back to the supplier. */
#[ORM\Entity]
class SupplierReturn
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 8, enumType: ReturnState::class)]
    private ReturnState $state = ReturnState::Asked;

    /** What they call it, once they agreed. */
    #[ORM\Column(length: 40, options: ['default' => ''])]
    private string $theirNumber = '';

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $sentOn = null;

    /** The credit note, or with what it was made good. */
    #[ORM\Column(length: 60, options: ['default' => ''])]
    private string $settledWith = '';

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $settledOn = null;

    /** @var Collection<int, SupplierReturnLine> */
    #[ORM\OneToMany(targetEntity: SupplierReturnLine::class, mappedBy: 'back', cascade: ['persist'])]
    private Collection $lines;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Receipt $receipt,
        /** In what state it stands with us until it leaves. */
        #[ORM\Column(length: 20, enumType: StockState::class)] public readonly StockState $standsIn,
        #[ORM\Column(length: 12, enumType: ReturnWish::class)] public readonly ReturnWish $wish,
        #[ORM\Column(length: 40)] public readonly string $reason,
        #[ORM\Column(length: 300)] public readonly string $words,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 60, unique: true)] public readonly string $idempotencyKey,
    ) {
        $this->lines = new ArrayCollection();
    }

    public function add(SupplierReturnLine $line): void
    {
        $this->lines->add($line);
    }

    /** @throws Refused once they have left */
    public function agree(string $theirNumber): void
    {
        $this->mustStillBeHere();
        $this->theirNumber = trim($theirNumber);
        $this->state = ReturnState::Agreed;
    }

    /** @throws Refused if they have left already */
    public function leave(\DateTimeImmutable $on): void
    {
        $this->mustStillBeHere();
        if (!$this->wish->goesBack()) {
            throw new Refused(sprintf('The goods of %s stay; nothing of it leaves.', $this->number));
        }
        $this->state = ReturnState::Sent;
        $this->sentOn = $on;
    }

    /** @throws Refused unless they have left, or stay for less, and nothing was made good yet */
    public function settle(string $with, \DateTimeImmutable $on): void
    {
        if (ReturnState::Sent !== $this->state && ($this->wish->goesBack() || !$this->state->isStillHere())) {
            throw new Refused(sprintf('%s is %s; it cannot be settled.', $this->number, $this->state->words()));
        }
        $this->state = ReturnState::Settled;
        $this->settledWith = trim($with);
        $this->settledOn = $on;
    }

    /** @throws Refused once they have left */
    public function drop(): void
    {
        $this->mustStillBeHere();
        $this->state = ReturnState::Dropped;
    }

    /** @throws Refused */
    private function mustStillBeHere(): void
    {
        if (!$this->state->isStillHere()) {
            throw new Refused(sprintf('%s is %s already.', $this->number, $this->state->words()));
        }
    }

    /** @return list<SupplierReturnLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }

    public function state(): ReturnState
    {
        return $this->state;
    }

    public function theirNumber(): string
    {
        return $this->theirNumber;
    }

    public function sentOn(): ?\DateTimeImmutable
    {
        return $this->sentOn;
    }

    public function settledWith(): string
    {
        return $this->settledWith;
    }

    public function settledOn(): ?\DateTimeImmutable
    {
        return $this->settledOn;
    }

    public function version(): int
    {
        return $this->version;
    }
}
