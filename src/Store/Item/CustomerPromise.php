<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** Stock promised to a customer and not yet handed over. */
#[ORM\Entity]
class CustomerPromise implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
        #[ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $wantedOn,
        #[ORM\Column(length: 40)] public readonly string $reference,
    ) {
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
