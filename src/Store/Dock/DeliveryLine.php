<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\Count;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Core\Receiving\LotFacts;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Type\BigDecimalType;

/** One order line expected in a delivery, and what was counted of it. */
#[ORM\Entity]
class DeliveryLine
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    /** Packs; null while nobody has counted. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $counted = null;

    /** Whether the rest of a short line is given up. */
    #[ORM\Column]
    private bool $closeShort = false;

    #[ORM\Column(length: 40)]
    private string $lot = '';

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $expiresOn = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $madeOn = null;

    /** ISO 3166, two letters. */
    #[ORM\Column(length: 2, options: ['default' => ''])]
    private string $origin = '';

    /** @var list<string> numbers of the pieces that were counted */
    #[ORM\Column(type: 'json', options: ['default' => '[]'])]
    private array $serials = [];

    /** What was outstanding when the delivery was booked in; before that it is read from the order. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $expected = null;

    /** Of what was counted, packs that are not as they should be: ours, but held back. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, options: ['default' => '0.000'])]
    private BigDecimal $bad;

    #[ORM\Column(length: 120, options: ['default' => ''])]
    private string $badBecause = '';

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly Delivery $delivery,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly OrderLine $line,
        /** The one it is counted beside: of the same line of the order, in another lot. */
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')] public readonly ?DeliveryLine $beside = null,
    ) {
        $this->bad = BigDecimal::zero();
    }

    /** @throws InvalidValue if it is not a whole number of stock units */
    public function count(?BigDecimal $packs): void
    {
        $this->delivery->mustBeOpen();
        $unit = $this->line->item?->unit;
        if (
            null !== $packs
            && null !== $unit
            && !$unit->isDivisible()
            && $this->line->pack()->toStockUnits($packs)->getScale() > 0
        ) {
            throw InvalidValue::because(
                sprintf(
                    '%s %s is %s %s; count whole ones.',
                    $packs,
                    $this->line->packName,
                    $this->line->pack()->toStockUnits($packs),
                    $unit->symbol(),
                ),
            );
        }
        $this->counted = $packs;
        $this->bad = BigDecimal::min($this->bad, $packs ?? 0);
        if (CountFinding::Short !== $this->finding()->finding) {
            $this->closeShort = false;
        }
    }

    /**
     * @param BigDecimal $packs of those that were counted
     *
     * @throws InvalidValue if it is below 0 or more than was counted, or there is no reason
     */
    public function isBad(BigDecimal $packs, string $because): void
    {
        $this->delivery->mustBeOpen();
        $counted = $this->counted ?? BigDecimal::zero();
        if ($packs->isNegative() || $packs->isGreaterThan($counted)) {
            throw InvalidValue::because(
                sprintf('%s not good of %s counted.', $packs, $counted->strippedOfTrailingZeros()),
            );
        }
        if ($packs->isPositive() && '' === trim($because)) {
            throw InvalidValue::because('Say what is wrong with them.');
        }
        $this->bad = $packs;
        $this->badBecause = $packs->isZero() ? '' : mb_substr(trim($because), 0, 120);
    }

    public function bad(): BigDecimal
    {
        return $this->bad;
    }

    public function badBecause(): string
    {
        return $this->badBecause;
    }

    /** @return list<self> others of the same line of the order, in other lots */
    public function others(): array
    {
        return array_values(array_filter(
            $this->delivery->lines(),
            fn (self $line): bool => $line->beside === $this,
        ));
    }

    public function keepRest(bool $keep): void
    {
        $this->delivery->mustBeOpen();
        $this->closeShort = !$keep && CountFinding::Short === $this->finding()->finding;
    }

    public function inLot(LotFacts $lot): void
    {
        $this->delivery->mustBeOpen();
        $this->lot = $lot->number;
        $this->expiresOn = $lot->expiresOn;
        $this->madeOn = $lot->madeOn;
        $this->origin = $lot->origin;
    }

    public function lotFacts(): LotFacts
    {
        return LotFacts::of($this->lot, $this->expiresOn, $this->madeOn, $this->origin);
    }

    /** @param list<string> $numbers */
    public function carries(array $numbers): void
    {
        $this->delivery->mustBeOpen();
        $this->serials = $numbers;
    }

    /** @return list<string> */
    public function serials(): array
    {
        return $this->serials;
    }

    public function madeOn(): ?\DateTimeImmutable
    {
        return $this->madeOn;
    }

    public function origin(): string
    {
        return $this->origin;
    }

    public function remember(): void
    {
        $this->expected = $this->line->outstanding();
    }

    /** Packs that were or are outstanding; beside another line, as many as were counted. */
    public function expected(): BigDecimal
    {
        return match (true) {
            null !== $this->expected => $this->expected,
            null !== $this->beside => $this->counted ?? BigDecimal::zero(),
            default => $this->line->outstanding(),
        };
    }

    /** What was counted of the line of the order, in all lots, against what is outstanding on it. */
    public function finding(): Count
    {
        $counted = $this->counted;
        foreach ($this->others() as $other) {
            $counted = null === $other->counted ? $counted : $other->counted->plus($counted ?? 0);
        }

        return Count::of($this->expected(), $counted);
    }

    public function version(): int
    {
        return $this->version;
    }

    /** Packs that are outstanding and in no lot of it counted yet. */
    public function missing(): BigDecimal
    {
        $finding = $this->finding();

        return BigDecimal::max($finding->outstanding->minus($finding->counted ?? 0), 0);
    }

    /** As many as should be in it: what is missing, or of it what they said was coming; null where they named none. */
    public function asExpected(): ?BigDecimal
    {
        $advised = $this->delivery->advisedOf($this->line);

        return match (true) {
            null === $advised => $this->missing(),
            $advised->isZero() => null,
            default => BigDecimal::min($advised, $this->missing()),
        };
    }

    public function counted(): ?BigDecimal
    {
        return $this->counted;
    }

    public function closesShort(): bool
    {
        return $this->closeShort;
    }

    public function lot(): string
    {
        return $this->lot;
    }

    public function expiresOn(): ?\DateTimeImmutable
    {
        return $this->expiresOn;
    }
}
