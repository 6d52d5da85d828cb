<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** A supplier's price list as it was brought: compared with what stands, then applied or set aside. */
#[ORM\Entity]
class PriceList
{
    public const READING = 'reading';
    /** Somebody has to say which column is which. */
    public const UNCLEAR = 'unclear';
    public const READ = 'read';
    public const APPLYING = 'applying';
    public const APPLIED = 'applied';
    public const LEFT = 'left';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(length: 10)]
    private string $state = self::READING;
    /** @var array<string, string> our column by heading of the file; empty for one that is left out */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $mapping = [];
    /** The file, until it has been read. */
    #[ORM\Column(length: 200, options: ['default' => ''])]
    private string $path = '';
    /** Why it could not be applied last. */
    #[ORM\Column(length: 500, options: ['default' => ''])]
    private string $message = '';

    /** Rises above so many percent wait to be chosen one by one. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $limitPercent;

    #[ORM\Column(type: 'date_immutable')]
    private \DateTimeImmutable $fromDay;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $untilDay = null;

    #[ORM\Column]
    private int $lineCount = 0;

    #[ORM\Column]
    private int $badCount = 0;

    /** @var list<array{int, string, string, string}> line, column, value, what is wrong; the first few hundred */
    #[ORM\Column(type: 'json')]
    private array $problems = [];

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $settledAt = null;

    #[ORM\Column]
    private int $appliedCount = 0;

    /** @throws InvalidValue */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $by,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $at,
        #[ORM\Column(length: 120)] public readonly string $filename,
        /** Whether it names all they sell, so that what is missing is gone. */
        #[ORM\Column] public readonly bool $complete,
        \DateTimeImmutable $fromDay,
        ?\DateTimeImmutable $untilDay,
        BigDecimal $limitPercent,
    ) {
        $this->holds($fromDay, $untilDay);
        $this->limit($limitPercent);
    }

    /** @throws InvalidValue if it would end before it begins */
    public function holds(\DateTimeImmutable $from, ?\DateTimeImmutable $until): void
    {
        if (null !== $until && $until < $from) {
            throw InvalidValue::because(
                sprintf(
                    'The prices would end on %s, before they begin on %s.',
                    $until->format('j M Y'),
                    $from->format('j M Y'),
                ),
            );
        }
        $this->fromDay = $from;
        $this->untilDay = $until;
    }

    /** @throws InvalidValue */
    public function limit(BigDecimal $percent): void
    {
        if ($percent->isNegative() || $percent->isGreaterThan(500)) {
            throw InvalidValue::because(sprintf('A limit of %s %% is out of range; expected 0 to 500.', $percent));
        }
        $this->limitPercent = $percent;
    }

    /**
     * @param list<array{int, string, string, string}> $problems
     */
    public function wasRead(int $lines, int $bad, array $problems): void
    {
        $this->state = self::READ;
        $this->path = '';
        $this->lineCount = $lines;
        $this->badCount = $bad;
        $this->problems = $problems;
    }

    /**
     * @param array<string, string> $mapping our column by heading
     * @param bool                  $clear   whether all that is needed has a column
     */
    public function isToBeReadFrom(string $path, array $mapping, bool $clear): void
    {
        $this->path = $path;
        $this->mapping = $mapping;
        $this->state = $clear ? self::READING : self::UNCLEAR;
    }

    /**
     * Somebody said which column is which.
     *
     * @param array<string, string> $mapping our column by heading
     *
     * @throws Refused unless that was asked
     */
    public function means(array $mapping): void
    {
        if (!$this->isUnclear()) {
            throw new Refused('This list was read already; bring it again to read its columns otherwise.');
        }
        $this->mapping = $mapping;
        $this->state = self::READING;
    }

    public function isUnclear(): bool
    {
        return self::UNCLEAR === $this->state;
    }

    /** @return array<string, string> our column by heading */
    public function mapping(): array
    {
        return $this->mapping;
    }

    /** Where the file lies while it waits; empty once it has been read. */
    public function path(): string
    {
        return $this->path;
    }

    /** Null once it has been read. */
    public function fileToRead(): ?string
    {
        return self::READING === $this->state && '' !== $this->path ? $this->path : null;
    }

    /** @throws Refused if that was done already */
    public function startApplying(): void
    {
        $this->mustBeOpen();
        $this->state = self::APPLYING;
        $this->message = '';
    }

    /** It is left alone, and says why. */
    public function couldNotBeRead(string $why): void
    {
        $this->state = self::LEFT;
        $this->message = mb_substr($why, 0, 300);
    }

    public function couldNotBeApplied(string $why): void
    {
        $this->state = self::READ;
        $this->message = mb_substr($why, 0, 500);
    }

    /** @throws Refused unless somebody asked for it and nobody did it */
    public function mustBeApplying(): void
    {
        if (self::APPLYING !== $this->state) {
            throw new Refused('This list is not to be applied.');
        }
    }

    public function isReading(): bool
    {
        return self::READING === $this->state;
    }

    public function isApplying(): bool
    {
        return self::APPLYING === $this->state;
    }

    public function message(): string
    {
        return $this->message;
    }

    /** @throws Refused if that was done already */
    public function settle(string $state, \DateTimeImmutable $at, int $applied = 0): void
    {
        if (!$this->isApplying() && !($this->isUnclear() && self::LEFT === $state)) {
            $this->mustBeOpen();
        }
        $this->state = $state;
        $this->settledAt = $at;
        $this->appliedCount = $applied;
    }

    /** @throws Refused */
    public function mustBeOpen(): void
    {
        if ($this->isUnclear()) {
            throw new Refused('Say first which column of this list is which.');
        }
        if ($this->isReading() || $this->isApplying()) {
            throw new Refused(
                $this->isReading() ? 'This list is still being read.' : 'This list is being applied already.',
            );
        }
        if (self::READ !== $this->state) {
            throw new Refused(
                sprintf(
                    'This list was %s on %s already; nothing was changed now.',
                    self::APPLIED === $this->state ? 'applied' : 'set aside',
                    $this->settledAt?->format('j M Y H:i'),
                ),
            );
        }
    }

    public function at(): \DateTimeImmutable
    {
        return $this->at;
    }

    public function isOpen(): bool
    {
        return self::READ === $this->state;
    }

    public function state(): string
    {
        return $this->state;
    }

    public function limitPercent(): BigDecimal
    {
        return $this->limitPercent;
    }

    public function fromDay(): \DateTimeImmutable
    {
        return $this->fromDay;
    }

    public function untilDay(): ?\DateTimeImmutable
    {
        return $this->untilDay;
    }

    public function lineCount(): int
    {
        return $this->lineCount;
    }

    public function badCount(): int
    {
        return $this->badCount;
    }

    /** @return list<array{int, string, string, string}> */
    public function problems(): array
    {
        return $this->problems;
    }

    public function settledAt(): ?\DateTimeImmutable
    {
        return $this->settledAt;
    }

    public function appliedCount(): int
    {
        return $this->appliedCount;
    }

    public function label(): string
    {
        return sprintf('price list of %s, %s', $this->at->format('j M Y'), $this->filename);
    }
}
