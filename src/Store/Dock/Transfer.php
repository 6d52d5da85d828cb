<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Receiving\TransferState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;

/** Goods on their way from one of our sites to another. */
#[ORM\Entity]
#[ORM\Index(name: 'transfer_by_state', columns: ['state'])]
class Transfer
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 10, enumType: TransferState::class)]
    private TransferState $state = TransferState::ToPick;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $sentOn = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $arrivedOn = null;

    /** @var Collection<int, TransferLine> */
    #[ORM\OneToMany(targetEntity: TransferLine::class, mappedBy: 'transfer', cascade: ['persist'])]
    private Collection $lines;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $source,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $target,
        /** When it should be there. */
        #[ORM\Column(type: 'date_immutable')] private \DateTimeImmutable $dueOn,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
    ) {
        $this->lines = new ArrayCollection();
    }

    /** @throws Refused once it has left */
    public function ask(Item $item, BigDecimal $units, string $key): TransferLine
    {
        $this->mustBe(TransferState::ToPick);
        $line = new TransferLine($this, $item, $units, '', $key);
        $this->lines->add($line);

        return $line;
    }

    /** Of a line, so many units in a lot of their own. */
    public function apart(TransferLine $line, string $lot, BigDecimal $units): TransferLine
    {
        $this->mustBe(TransferState::ToPick);
        $apart = new TransferLine($this, $line->item, $units, $lot, null);
        $this->lines->add($apart);

        return $apart;
    }

    /** @throws Refused unless it still stands where it stood */
    public function leave(\DateTimeImmutable $on, \DateTimeImmutable $due): void
    {
        $this->mustBe(TransferState::ToPick);
        $this->state = TransferState::UnderWay;
        $this->sentOn = $on;
        $this->dueOn = $due;
    }

    /** @throws Refused unless it is on its way */
    public function arrive(\DateTimeImmutable $on): void
    {
        $this->mustBe(TransferState::UnderWay);
        $this->state = TransferState::Arrived;
        $this->arrivedOn = $on;
    }

    /** @throws Refused once it has left */
    public function drop(): void
    {
        $this->mustBe(TransferState::ToPick);
        $this->state = TransferState::Dropped;
    }

    /** @throws Refused */
    public function mustBe(TransferState $state): void
    {
        if ($state !== $this->state) {
            throw new Refused(sprintf('%s is %s already.', $this->number, $this->state->words()));
        }
    }

    /** @return list<TransferLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }

    public function state(): TransferState
    {
        return $this->state;
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function dueOn(): \DateTimeImmutable
    {
        return $this->dueOn;
    }

    public function sentOn(): ?\DateTimeImmutable
    {
        return $this->sentOn;
    }

    public function arrivedOn(): ?\DateTimeImmutable
    {
        return $this->arrivedOn;
    }

    public function version(): int
    {
        return $this->version;
    }
}
