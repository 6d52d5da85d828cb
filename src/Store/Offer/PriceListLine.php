<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** What a supplier's price list says of one thing they sell. Empty and null: it does not say. */
final readonly class PriceListLine
{
    public function __construct(
        public int $line,
        public string $code,
        public PriceBreaks $prices,
        public string $item,
        public string $gtin,
        public string $description,
        public string $pack,
        public ?BigDecimal $content,
        public ?BigDecimal $minimum,
        public ?BigDecimal $multiple,
        public ?int $leadDays,
    ) {
    }

    /** What they sell as one. */
    public function packName(): string
    {
        return '' === $this->pack ? 'piece' : $this->pack;
    }
}
