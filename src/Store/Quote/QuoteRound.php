<?php

declare(strict_types=1);

namespace TallBarrel\Store\Quote;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** One question about prices to several suppliers. */
#[ORM\Entity]
class QuoteRound
{
    /** A link goes on working so long after the day answers were asked for. */
    public const GRACE_DAYS = 14;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $sentAt = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $settledAt = null;

    #[ORM\Column(length: 2000)]
    private string $requirements = '';

    /** @var Collection<int, QuoteItem> */
    #[ORM\OneToMany(targetEntity: QuoteItem::class, mappedBy: 'round', cascade: ['persist'], orphanRemoval: true)]
    #[ORM\OrderBy(['position' => 'ASC'])]
    private Collection $items;

    /** @var Collection<int, Quote> */
    #[ORM\OneToMany(targetEntity: Quote::class, mappedBy: 'round', cascade: ['persist'], orphanRemoval: true)]
    private Collection $quotes;

    /** @var Collection<int, RoundFile> */
    #[ORM\OneToMany(targetEntity: RoundFile::class, mappedBy: 'round', cascade: ['persist'])]
    private Collection $files;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] private Site $site,
        #[ORM\Column(type: 'date_immutable')] private \DateTimeImmutable $replyBy,
        #[ORM\Column(type: 'date_immutable')] private \DateTimeImmutable $wantedOn,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $createdAt,
    ) {
        $this->items = new ArrayCollection();
        $this->quotes = new ArrayCollection();
        $this->files = new ArrayCollection();
    }

    /**
     * @throws InvalidValue if answers would be due in the past, or after the goods
     * @throws Refused      once it is out
     */
    public function plan(
        Site $site,
        \DateTimeImmutable $replyBy,
        \DateTimeImmutable $wantedOn,
        string $requirements,
        \DateTimeImmutable $today,
    ): void {
        $this->mustBeDraft();
        if ($replyBy->format('Y-m-d') < $today->format('Y-m-d')) {
            throw InvalidValue::because(
                sprintf('Answers cannot be asked for by %s, which has passed.', $replyBy->format('j M Y')),
            );
        }
        if ($wantedOn < $replyBy) {
            throw InvalidValue::because(
                sprintf(
                    'The goods are wanted on %s, before answers are due on %s.',
                    $wantedOn->format('j M Y'),
                    $replyBy->format('j M Y'),
                ),
            );
        }
        [$this->site, $this->replyBy, $this->wantedOn, $this->requirements] = [
            $site,
            $replyBy,
            $wantedOn,
            trim($requirements),
        ];
    }

    /**
     * @param list<BigDecimal> $quantities stock units
     *
     * @throws InvalidValue|Refused
     */
    public function ask(?Item $item, string $description, array $quantities): QuoteItem
    {
        $this->mustBeDraft();
        foreach ($this->items as $known) {
            if (null !== $item && $known->item === $item) {
                throw InvalidValue::because(sprintf('%s is asked for already.', $item->code));
            }
        }
        $asked = new QuoteItem(
            $this,
            1 + max([0, ...$this->items->map(static fn (QuoteItem $one): int => $one->position)->toArray()]),
            $item,
            $item?->name() ?? $description,
            $quantities,
        );
        $this->items->add($asked);

        return $asked;
    }

    public function drop(QuoteItem $item): void
    {
        $this->mustBeDraft();
        $this->items->removeElement($item);
    }

    /** @throws Refused once it is settled */
    public function invite(Supplier $supplier): Quote
    {
        $this->mustBeOpen();
        $quote = new Quote($this, $supplier, bin2hex(random_bytes(16)));
        $this->quotes->add($quote);

        return $quote;
    }

    public function attach(RoundFile $file): void
    {
        $this->files->add($file);
    }

    /** @throws Refused if there is nothing or nobody to ask */
    public function send(\DateTimeImmutable $at): void
    {
        $this->mustBeDraft();
        if ($this->items->isEmpty() || $this->quotes->isEmpty()) {
            throw new Refused(
                $this->items->isEmpty()
                    ? 'Nothing is asked for yet; add an item.'
                    : 'Nobody is asked yet; tick a supplier.',
            );
        }
        foreach ($this->quotes as $quote) {
            $contact = $quote->contact();
            if (null === $contact || '' === $contact->email()) {
                throw new Refused(
                    sprintf(
                        '%s has no email address to ask at. Add one on its page, or leave it out.',
                        $quote->supplier->name(),
                    ),
                );
            }
        }
        $this->sentAt = $at;
    }

    /**
     * @param list<Quote> $winners
     *
     * @throws Refused if somebody settled it already
     */
    public function settle(array $winners, \DateTimeImmutable $at): void
    {
        $this->mustBeOpen();
        foreach ($this->quotes as $quote) {
            if (QuoteState::Declined !== $quote->state()) {
                $quote->become(in_array($quote, $winners, true) ? QuoteState::Won : QuoteState::Lost);
            }
        }
        $this->settledAt = $at;
    }

    public function isDraft(): bool
    {
        return null === $this->sentAt;
    }

    public function isSettled(): bool
    {
        return null !== $this->settledAt;
    }

    public function isOpen(): bool
    {
        return !$this->isDraft() && !$this->isSettled();
    }

    /** @return list<QuoteItem> */
    public function items(): array
    {
        return array_values($this->items->toArray());
    }

    /** @return list<Quote> */
    public function quotes(): array
    {
        return array_values($this->quotes->toArray());
    }

    /** @return list<RoundFile> */
    public function files(): array
    {
        return array_values($this->files->toArray());
    }

    public function subject(): string
    {
        $items = $this->items();

        return self::named($items[0]->description ?? '', count($items));
    }

    /** "Hex jar 370 ml and 2 more". */
    public static function named(string $first, int $items): string
    {
        return match ($items) {
            0 => 'nothing yet',
            1 => $first,
            default => sprintf('%s and %d more', $first, $items - 1),
        };
    }

    public function linksEnd(): \DateTimeImmutable
    {
        return $this->replyBy->modify(sprintf('+%d days 23:59:59', self::GRACE_DAYS));
    }

    public function isLate(\DateTimeImmutable $at): bool
    {
        return $at->format('Y-m-d') > $this->replyBy->format('Y-m-d');
    }

    public function createdAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function site(): Site
    {
        return $this->site;
    }

    public function replyBy(): \DateTimeImmutable
    {
        return $this->replyBy;
    }

    public function wantedOn(): \DateTimeImmutable
    {
        return $this->wantedOn;
    }

    public function requirements(): string
    {
        return $this->requirements;
    }

    public function sentAt(): ?\DateTimeImmutable
    {
        return $this->sentAt;
    }

    public function settledAt(): ?\DateTimeImmutable
    {
        return $this->settledAt;
    }

    public function version(): int
    {
        return $this->version;
    }

    private function mustBeDraft(): void
    {
        if (!$this->isDraft()) {
            throw new Refused(sprintf('%s is out; what was asked stands.', $this->number));
        }
    }

    private function mustBeOpen(): void
    {
        if ($this->isSettled()) {
            throw new Refused(
                sprintf(
                    '%s was settled on %s; nothing more can be changed.',
                    $this->number,
                    $this->settledAt?->format('j M, H:i') ?? '',
                ),
            );
        }
    }
}
