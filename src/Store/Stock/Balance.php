<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** The sum of the movements of an item at a site, by state and lot. Written by the Ledger alone. */
#[ORM\Entity(readOnly: true)]
#[ORM\Table(name: 'stock_balance')]
class Balance
{
    public function __construct(
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Id, ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Id, ORM\Column(length: 20, enumType: StockState::class)] public readonly StockState $state,
        #[ORM\Id, ORM\Column(length: 40)] public readonly string $lot,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] public readonly BigDecimal $quantity,
    ) {
    }
}
