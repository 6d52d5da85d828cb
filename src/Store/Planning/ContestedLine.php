<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\Usage;

/** A proposal that more than one supplier could fill: read only, from one row. */
final readonly class ContestedLine
{
    /**
     * @param BigDecimal $units what is proposed, in stock units
     * @param int|null   $offer the one chosen now
     */
    public function __construct(
        public int $id,
        public int $item,
        public string $itemCode,
        public string $itemName,
        public Unit $unit,
        public string $site,
        public BigDecimal $units,
        public ?int $offer,
        public Usage $usage,
    ) {
    }
}
