<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;

/** A line typed below the others: an item by our code, theirs, its name or GTIN, or free text with a price. */
final readonly class AddedLine
{
    public function __construct(public string $words, public ?BigDecimal $packs, public ?BigDecimal $price)
    {
    }
}
