<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Type\BigDecimalType;

/** From so many packs, this price of one. */
#[ORM\Entity]
class PriceBreak implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne(inversedBy: 'breaks'), ORM\JoinColumn(nullable: false)] public readonly Offer $offer,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] private BigDecimal $fromPacks,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 4)] private BigDecimal $price,
    ) {
    }

    public function change(BigDecimal $fromPacks, BigDecimal $price): void
    {
        $this->fromPacks = $fromPacks;
        $this->price = $price;
    }

    public function fromPacks(): BigDecimal
    {
        return $this->fromPacks;
    }

    public function price(): BigDecimal
    {
        return $this->price;
    }

    public function moves(): Moves
    {
        return Moves::items($this->offer->item);
    }
}
