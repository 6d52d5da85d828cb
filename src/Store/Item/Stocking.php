<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;

/** That a site stocks an item, and where it is put away. */
#[ORM\Entity]
class Stocking implements PlanningRestsOnIt
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\ManyToOne] public readonly ?Bin $bin,
        /** When it was last counted on the shelf, right or not. */
        #[ORM\Column(type: 'date_immutable', nullable: true)] private ?\DateTimeImmutable $countedOn = null,
    ) {
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }

    public function countedOn(): ?\DateTimeImmutable
    {
        return $this->countedOn;
    }
}
