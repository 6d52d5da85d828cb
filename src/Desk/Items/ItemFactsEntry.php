<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Items;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Item\Item;

/** What planning should know of an item, as it is typed. */
final class ItemFactsEntry
{
    public bool $staple;
    public ?int $shelf;
    /** Code of the item it sells like. */
    public string $like;
    public ?BigDecimal $factor;

    public function __construct(Item $item)
    {
        $this->staple = $item->isStaple();
        $this->shelf = $item->shelfDays();
        $this->like = $item->sellsLike()->code ?? '';
        $this->factor = $item->likeFactor();
    }
}
