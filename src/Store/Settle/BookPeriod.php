<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Store\Person\Person;

/** A month whose entries went to the bookkeeping: it takes no more. */
#[ORM\Entity]
#[ORM\Table(name: 'book_period')]
class BookPeriod
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var Collection<int, BookedEntry> */
    #[ORM\OneToMany(targetEntity: BookedEntry::class, mappedBy: 'period', cascade: ['persist'])]
    #[ORM\OrderBy(['day' => 'ASC', 'id' => 'ASC'])]
    private Collection $entries;

    public function __construct(
        /** As 2026-11. */
        #[ORM\Column(length: 7, unique: true)] public readonly string $month,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
    ) {
        $this->entries = new ArrayCollection();
    }

    /** What is of a month before is booked on the first day of this one. */
    public function book(BookEntry $entry): void
    {
        $first = new \DateTimeImmutable($this->month.'-01');
        $this->entries->add(new BookedEntry($this, $entry, max($entry->day, $first)));
    }

    /** @return list<BookedEntry> */
    public function entries(): array
    {
        return array_values($this->entries->toArray());
    }
}
