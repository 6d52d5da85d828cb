<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Settling\Books\BookEntry;

/** An entry as it went to the bookkeeping. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'booked_entry')]
class BookedEntry
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 60, unique: true)]
    public readonly string $bookedKey;

    #[ORM\Column(length: 40)]
    public readonly string $document;

    #[ORM\Column(length: 200)]
    public readonly string $words;

    /** @var Collection<int, BookedLine> */
    #[ORM\OneToMany(targetEntity: BookedLine::class, mappedBy: 'entry', cascade: ['persist'])]
    #[ORM\OrderBy(['id' => 'ASC'])]
    private Collection $lines;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'entries'), ORM\JoinColumn(nullable: false)] public readonly BookPeriod $period,
        BookEntry $entry,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
    ) {
        $this->bookedKey = $entry->key;
        $this->document = mb_substr($entry->document, 0, 40);
        $this->words = mb_substr($entry->words, 0, 200);
        $this->lines = new ArrayCollection();
        foreach ($entry->lines as $line) {
            $this->lines->add(new BookedLine($this, $line->account, $line->amount));
        }
    }

    /** @return list<BookedLine> */
    public function lines(): array
    {
        return array_values($this->lines->toArray());
    }
}
