<?php

declare(strict_types=1);

namespace TallBarrel\Store\Talk;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;

/** What a colleague said about an order, an item or a delivery; a question where it is put to somebody. */
#[ORM\Entity]
#[ORM\Index(columns: ['subject'], name: 'talk_by_subject')]
class TalkLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 10, nullable: true, enumType: QuestionState::class)]
    private ?QuestionState $state;

    /**
     * @param string      $subject "order PO-1079", "item JAR-370H", "delivery 12"
     * @param Person|null $to      who is asked; null for a remark to all
     * @param string      $about   a part of it, "line 3: Lid 70 mm gold"; empty for all of it
     */
    public function __construct(
        #[ORM\Column(length: 60)] public readonly string $subject,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] public readonly \DateTimeImmutable $at,
        #[ORM\Column(length: 1000)] public readonly string $words,
        #[ORM\ManyToOne] public readonly ?Person $to,
        #[ORM\Column(length: 120, options: ['default' => ''])] public readonly string $about = '',
    ) {
        $this->state = null === $to ? null : QuestionState::Open;
    }

    /** Whoever was asked has said something, of all of it or of the same part. */
    public function isAnsweredBy(Person $person, string $about): void
    {
        if ('' !== $about && $about !== $this->about) {
            return;
        }
        if (QuestionState::Open === $this->state && $this->to?->id === $person->id) {
            $this->state = QuestionState::Answered;
        }
    }

    /** @throws Refused to others than who asked and who was asked */
    public function settle(Person $person): void
    {
        if (!in_array($person->id, [$this->by->id, $this->to?->id], true)) {
            throw new Refused('Only who asked or was asked can settle a question.');
        }
        $this->state = null === $this->state ? null : QuestionState::Settled;
    }

    public function state(): ?QuestionState
    {
        return $this->state;
    }

    public function isOpen(): bool
    {
        return null !== $this->state && QuestionState::Settled !== $this->state;
    }
}
