<?php

declare(strict_types=1);

namespace TallBarrel\Store\Agreement;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\AgreementPace;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/** A quantity or value promised to a supplier over a period, usually at a price. */
#[ORM\Entity]
class Agreement
{
    public const QUANTITY = 'quantity';
    public const VALUE = 'value';

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    /** One of the constants: stock units, or money in the supplier's currency. */
    #[ORM\Column(length: 10)]
    private string $measure = self::QUANTITY;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)]
    private BigDecimal $promised;

    /** Of one stock unit, in the supplier's currency; null where the offers' prices hold. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6, nullable: true)]
    private ?BigDecimal $price = null;

    /** Stock units, or money, of one call-off. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $minimumCallOff = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $tolerancePercent;

    #[ORM\Column(type: 'date_immutable')]
    private \DateTimeImmutable $firstDay;

    #[ORM\Column(type: 'date_immutable')]
    private \DateTimeImmutable $lastDay;

    /** How it goes on after that, in words. */
    #[ORM\Column(length: 300)]
    private string $renewal = '';

    #[ORM\Column]
    private bool $ended = false;

    /**
     * @param string $category for all items of one; empty where it is for an item, or for everything of the supplier
     */
    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne] public readonly ?Item $item,
        #[ORM\Column(length: 60)] public readonly string $category,
    ) {
        $this->promised = $this->tolerancePercent = BigDecimal::zero();
    }

    /** @throws InvalidValue */
    public function promise(
        string $measure,
        BigDecimal $promised,
        ?BigDecimal $price,
        ?BigDecimal $minimumCallOff,
        BigDecimal $tolerancePercent,
    ): void {
        if (!in_array($measure, [self::QUANTITY, self::VALUE], true)) {
            throw InvalidValue::because(sprintf('“%s” is no measure; expected quantity or value.', $measure));
        }
        if (!$promised->isPositive()) {
            throw InvalidValue::because(
                sprintf('An agreement on %s promises nothing; expected more than 0.', $promised),
            );
        }
        if (self::QUANTITY === $measure && null === $this->item) {
            throw InvalidValue::because('A quantity can be promised of one item only; promise a value for a category.');
        }
        if (null !== $price && null === $this->item) {
            throw InvalidValue::because(
                'A price can be agreed for one item only; a category keeps the prices of its offers.',
            );
        }
        if ($tolerancePercent->isNegative() || $tolerancePercent->isGreaterThan(100)) {
            throw InvalidValue::because(
                sprintf('A tolerance of %s %% is out of range; expected 0 to 100.', $tolerancePercent),
            );
        }
        $this->measure = $measure;
        $this->promised = $promised;
        $this->price = $price;
        $this->minimumCallOff = $minimumCallOff;
        $this->tolerancePercent = $tolerancePercent;
    }

    /** @throws InvalidValue if it would end before it begins */
    public function hold(\DateTimeImmutable $firstDay, \DateTimeImmutable $lastDay, string $renewal): void
    {
        if ($lastDay < $firstDay) {
            throw InvalidValue::because(
                sprintf(
                    'It would end on %s, before it begins on %s.',
                    $lastDay->format('j M Y'),
                    $firstDay->format('j M Y'),
                ),
            );
        }
        $this->firstDay = $firstDay;
        $this->lastDay = $lastDay;
        $this->renewal = trim($renewal);
    }

    public function end(): void
    {
        $this->ended = true;
    }

    public function isInForce(\DateTimeImmutable $day): bool
    {
        $day = $day->format('Y-m-d');

        return !$this->ended && $this->firstDay->format('Y-m-d') <= $day && $day <= $this->lastDay->format('Y-m-d');
    }

    public function covers(Item $item): bool
    {
        return null !== $this->item
            ? $this->item === $item
            : '' === $this->category || $this->category === $item->category();
    }

    public function pace(float $drawn, \DateTimeImmutable $today): AgreementPace
    {
        return AgreementPace::of(
            $this->promised->toFloat(),
            $this->tolerancePercent->toFloat(),
            $this->firstDay,
            $this->lastDay,
            $drawn,
            $today,
        );
    }

    /** What it is for. */
    public function subject(): string
    {
        return $this->item?->name() ?? ('' === $this->category ? 'everything' : $this->category);
    }

    /** "pcs", "EUR". */
    public function unit(): string
    {
        return self::VALUE === $this->measure ? $this->supplier->currency()->code : $this->item?->unit->symbol() ?? '';
    }

    public function measure(): string
    {
        return $this->measure;
    }

    public function promised(): BigDecimal
    {
        return $this->promised;
    }

    public function price(): ?BigDecimal
    {
        return $this->price;
    }

    public function minimumCallOff(): ?BigDecimal
    {
        return $this->minimumCallOff;
    }

    public function tolerancePercent(): BigDecimal
    {
        return $this->tolerancePercent;
    }

    public function firstDay(): \DateTimeImmutable
    {
        return $this->firstDay;
    }

    public function lastDay(): \DateTimeImmutable
    {
        return $this->lastDay;
    }

    public function renewal(): string
    {
        return $this->renewal;
    }

    public function isEnded(): bool
    {
        return $this->ended;
    }

    public function version(): int
    {
        return $this->version;
    }
}
