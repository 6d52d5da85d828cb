<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Supplier\Supplier;

/** A note that something changed which proposals rest on. Written with the change, gone once they are planned again. */
#[ORM\Entity]
class MovedItem
{
    #[ORM\Id, ORM\Column(type: 'bigint'), ORM\GeneratedValue]
    public readonly int $id;

    public function __construct(
        /** Null where it is not about one item. */
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')] public readonly ?Item $item,
        /** All this supplier offers; null with no item either: everything. */
        #[ORM\ManyToOne, ORM\JoinColumn(onDelete: 'CASCADE')] public readonly ?Supplier $supplier = null,
    ) {
    }
}
