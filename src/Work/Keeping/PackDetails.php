<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Quantity\Gtin;

/** A further unit of an item as it is typed. */
final readonly class PackDetails
{
    /** @param BigDecimal $quantity stock units in it */
    public function __construct(public string $name, public BigDecimal $quantity, public ?Gtin $gtin)
    {
    }
}
