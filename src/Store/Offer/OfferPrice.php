<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Type\BigDecimalType;

/** A price an offer had, has, or will have from a day on. */
#[ORM\Entity]
#[ORM\Index(columns: ['offer_id', 'from_day'], name: 'offer_price_by_day')]
#[ORM\Index(columns: ['applied', 'from_day'], name: 'offer_price_due')]
class OfferPrice implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    /** @var list<array{string, string}> from, price of one pack before discounts */
    #[ORM\Column(type: 'json')]
    private array $steps;

    #[ORM\Column(length: 12, enumType: BreakKind::class)]
    private BreakKind $kind;

    #[ORM\Column(length: 12, enumType: BreakBasis::class)]
    private BreakBasis $basis;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly Offer $offer,
        /** Null for the one that was there before anything was noted. */
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $fromDay,
        PriceBreaks $prices,
        /** Where it comes from: "price list of 2 Nov", "by hand on PO-1081". */
        #[ORM\Column(length: 120)] public readonly string $source,
        #[ORM\Column] private readonly bool $applied,
        /** Stock units in the pack, where that came with the price. */
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 6, nullable: true),]
        public readonly ?BigDecimal $packContent = null,
    ) {
        $this->steps = array_map(
            static fn (array $step): array => [(string) $step['from'], (string) $step['price']],
            $prices->steps,
        );
        $this->kind = $prices->kind;
        $this->basis = $prices->basis;
    }

    public function prices(): PriceBreaks
    {
        return PriceBreaks::of(
            array_map(
                static fn (array $step): array => [BigDecimal::of($step[0]), BigDecimal::of($step[1])],
                $this->steps,
            ),
            $this->kind,
            $this->basis,
        );
    }

    public function isApplied(): bool
    {
        return $this->applied;
    }

    public function moves(): Moves
    {
        return Moves::items($this->offer->item);
    }
}
