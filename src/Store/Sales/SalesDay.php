<?php

declare(strict_types=1);

namespace TallBarrel\Store\Sales;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** What an item sold at a site on a day. A day without a row sold nothing, with stock on the shelf. */
#[ORM\Entity]
#[ORM\Index(columns: ['day'], name: 'sales_of_day')]
class SalesDay
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Id, ORM\Column(type: 'date_immutable')] public readonly \DateTimeImmutable $day,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
        /** Nothing was on the shelf: the day says nothing about demand. */
        #[ORM\Column] public readonly bool $outOfStock,
    ) {
    }
}
