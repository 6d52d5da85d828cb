<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;

/** Where an item, or one lot of it, lies if not in the item's own bin. Written by ShelfPlaces alone. */
#[ORM\Entity(readOnly: true)]
class ShelfPlace
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        /** Empty for items without lots. */
        #[ORM\Id, ORM\Column(length: 40)] public readonly string $lot,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false, onDelete: 'CASCADE')] public readonly Bin $bin,
    ) {
    }
}
