<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\AgreedScope;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Supplier\Supplier;

/** A price or discount agreed beyond single offers, and the days on which it holds. */
#[ORM\Entity]
class PriceTerm implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 80)]
    private string $name = '';

    #[ORM\ManyToOne]
    private ?Supplier $supplier = null;

    /** As typed; empty for everyone where it is for no single supplier. */
    #[ORM\Column(length: 40)]
    private string $supplierGroup = '';

    #[ORM\ManyToOne]
    private ?Item $item = null;

    /** As typed; empty for everything where it is on no single item. */
    #[ORM\Column(length: 40)]
    private string $itemGroup = '';

    #[ORM\Column(length: 10, enumType: AgreedKind::class)]
    private AgreedKind $kind = AgreedKind::Discount;

    #[ORM\Column(length: 12, enumType: BreakBasis::class)]
    private BreakBasis $basis = BreakBasis::Quantity;

    #[ORM\Column(length: 3)]
    private string $currency = '';

    /** With a decimal point: "5", or "1=5 100=7.5". */
    #[ORM\Column(length: 200)]
    private string $steps = '';

    #[ORM\Column(type: 'date_immutable')]
    private \DateTimeImmutable $firstDay;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $lastDay = null;

    public function __construct(\DateTimeImmutable $firstDay)
    {
        $this->firstDay = $firstDay;
    }

    /** @throws InvalidValue if it would be for one and for a group */
    public function isFor(?Supplier $supplier, string $supplierGroup, ?Item $item, string $itemGroup): void
    {
        AgreedScope::of($supplier?->id, $supplierGroup, $item?->id, $itemGroup);
        $this->supplier = $supplier;
        $this->supplierGroup = trim($supplierGroup);
        $this->item = $item;
        $this->itemGroup = trim($itemGroup);
    }

    /** @throws InvalidValue if it cannot be meant so for whom it is */
    public function gives(string $name, AgreedKind $kind, BreakBasis $basis, string $currency, string $steps): void
    {
        if ('' === trim($name)) {
            throw InvalidValue::because('Say what it is called, such as “Winter co-op”; it stands beside each price.');
        }
        AgreedPrice::read(0, $this->scope(), $kind, $basis, $currency, $steps, $name);
        $this->name = trim($name);
        $this->kind = $kind;
        $this->basis = $basis;
        $this->currency = $currency;
        $this->steps = $steps;
    }

    /** @throws InvalidValue if it would end before it begins */
    public function hold(\DateTimeImmutable $firstDay, ?\DateTimeImmutable $lastDay): void
    {
        if (null !== $lastDay && $lastDay < $firstDay) {
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
    }

    public function isInForce(\DateTimeImmutable $day): bool
    {
        $day = $day->format('Y-m-d');

        return $this->firstDay->format('Y-m-d') <= $day
            && (null === $this->lastDay || $day <= $this->lastDay->format('Y-m-d'));
    }

    public function isOver(\DateTimeImmutable $day): bool
    {
        return null !== $this->lastDay && $this->lastDay->format('Y-m-d') < $day->format('Y-m-d');
    }

    public function agreed(): AgreedPrice
    {
        return AgreedPrice::read(
            $this->id ?? 0,
            $this->scope(),
            $this->kind,
            $this->basis,
            $this->currency,
            $this->steps,
            $this->name,
        );
    }

    /** "everyone", "North" for a group of that name, or the supplier's name. */
    public function whom(): string
    {
        return $this->supplier?->name()
            ?? ('' === $this->supplierGroup ? 'everyone' : 'group '.$this->supplierGroup);
    }

    public function what(): string
    {
        return $this->item?->name() ?? ('' === $this->itemGroup ? 'everything' : 'group '.$this->itemGroup);
    }

    public function name(): string
    {
        return $this->name;
    }

    public function supplier(): ?Supplier
    {
        return $this->supplier;
    }

    public function supplierGroup(): string
    {
        return $this->supplierGroup;
    }

    public function item(): ?Item
    {
        return $this->item;
    }

    public function itemGroup(): string
    {
        return $this->itemGroup;
    }

    public function kind(): AgreedKind
    {
        return $this->kind;
    }

    public function basis(): BreakBasis
    {
        return $this->basis;
    }

    public function currency(): string
    {
        return $this->currency;
    }

    public function steps(): string
    {
        return $this->steps;
    }

    public function firstDay(): \DateTimeImmutable
    {
        return $this->firstDay;
    }

    public function lastDay(): ?\DateTimeImmutable
    {
        return $this->lastDay;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function moves(): Moves
    {
        return match (true) {
            null !== $this->item => Moves::items($this->item),
            null !== $this->supplier => Moves::allOf($this->supplier),
            default => Moves::everything(),
        };
    }

    private function scope(): AgreedScope
    {
        return AgreedScope::of($this->supplier?->id, $this->supplierGroup, $this->item?->id, $this->itemGroup);
    }
}
