<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Person\Person;

/** What we counted and booked in from a delivery. */
#[ORM\Entity(readOnly: true)]
class Receipt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var Collection<int, ReceiptLine> */
    #[ORM\OneToMany(targetEntity: ReceiptLine::class, mappedBy: 'receipt', cascade: ['persist'])]
    private Collection $lines;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Delivery $delivery,
        #[ORM\ManyToOne] public readonly ?Person $by,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 60, unique: true)] public readonly string $idempotencyKey,
        /** The one some or all of which was booked by mistake, and why. */
        #[ORM\ManyToOne] public readonly ?Receipt $takesBack = null,
        #[ORM\Column(length: 200, options: ['default' => ''])] public readonly string $why = '',
    ) {
        $this->lines = new ArrayCollection();
    }

    public function add(ReceiptLine $line): void
    {
        $this->lines->add($line);
    }

    /** @return list<ReceiptLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }
}
