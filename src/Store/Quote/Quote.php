<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;

/** One supplier's part in a round: asked, answered as often as it likes, won or lost. */
#[ORM\Entity]
#[ORM\UniqueConstraint(name: 'quote_once', columns: ['round_id', 'supplier_id'])]
class Quote
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 10, enumType: QuoteState::class)]
    private QuoteState $state = QuoteState::Asked;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $askedAt = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $remindedAt = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $openedAt = null;

    #[ORM\Column(length: 300)]
    private string $declineReason = '';

    /** @var Collection<int, QuoteAnswer> */
    #[ORM\OneToMany(targetEntity: QuoteAnswer::class, mappedBy: 'quote', cascade: ['persist'])]
    #[ORM\OrderBy(['revision' => 'ASC'])]
    private Collection $answers;

    /** @var Collection<int, QuoteLetter> */
    #[ORM\OneToMany(targetEntity: QuoteLetter::class, mappedBy: 'quote', cascade: ['persist'])]
    private Collection $letters;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'quotes'), ORM\JoinColumn(nullable: false)] public readonly QuoteRound $round,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        /** What the supplier's own link ends with: 128 bits nobody can guess. */
        #[ORM\Column(length: 40, unique: true)] private string $token,
    ) {
        $this->answers = new ArrayCollection();
        $this->letters = new ArrayCollection();
    }

    public function token(): string
    {
        return $this->token;
    }

    /** The link that was sent leads nowhere from now on. */
    public function withdrawLink(): void
    {
        $this->token = bin2hex(random_bytes(16));
    }

    public function asked(\DateTimeImmutable $at): void
    {
        $this->askedAt = $at;
    }

    public function reminded(\DateTimeImmutable $at): void
    {
        $this->remindedAt = $at;
    }

    public function opened(\DateTimeImmutable $at): void
    {
        $this->openedAt ??= $at;
    }

    /** @throws Refused once the round is settled */
    public function answer(QuoteAnswer $answer): void
    {
        $this->mustBeOpen();
        $this->answers->add($answer);
        $this->become(QuoteState::Answered);
        $this->declineReason = '';
    }

    /** @throws Refused once the round is settled */
    public function decline(string $reason): void
    {
        $this->mustBeOpen();
        $this->become(QuoteState::Declined);
        $this->declineReason = mb_substr(trim($reason), 0, 300);
    }

    public function become(QuoteState $next): void
    {
        if ($next !== $this->state && !$this->state->canBecome($next)) {
            throw new Refused(
                sprintf(
                    'The quote of %s is %s and cannot become %s.',
                    $this->supplier->name(),
                    $this->state->value,
                    $next->value,
                ),
            );
        }
        $this->state = $next;
    }

    public function keep(QuoteLetter $letter): void
    {
        $this->letters->add($letter);
    }

    public function contact(): ?Contact
    {
        return $this->supplier->contactFor(Contact::QUOTES);
    }

    /** The answer that stands: the last one given, unless it was taken back by declining. */
    public function standing(): ?QuoteAnswer
    {
        return QuoteState::Declined === $this->state || QuoteState::Asked === $this->state
            ? null
            : ($this->answers->last() ?:
                null);
    }

    /** @return list<QuoteAnswer> */
    public function answers(): array
    {
        return array_values($this->answers->toArray());
    }

    /** @return list<QuoteLetter> */
    public function letters(): array
    {
        return array_values($this->letters->toArray());
    }

    public function state(): QuoteState
    {
        return $this->state;
    }

    public function askedAt(): ?\DateTimeImmutable
    {
        return $this->askedAt;
    }

    public function remindedAt(): ?\DateTimeImmutable
    {
        return $this->remindedAt;
    }

    public function openedAt(): ?\DateTimeImmutable
    {
        return $this->openedAt;
    }

    public function declineReason(): string
    {
        return $this->declineReason;
    }

    private function mustBeOpen(): void
    {
        if ($this->round->isSettled() || !$this->state->isOpen()) {
            throw new Refused(
                sprintf(
                    '%s was settled on %s, so this answer comes too late to count. Nothing has been changed.',
                    $this->round->number,
                    $this->round->settledAt()?->format('j M Y') ?? '',
                ),
            );
        }
    }
}
