<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;

/** An item, or one lot of it, where it can be counted. */
final readonly class ShelfRow
{
    /**
     * @param BigDecimal $stands stock units that may be sold there
     * @param BigDecimal $cost   of one, in the home currency; 0 if not known
     * @param int        $last   the last movement of it there; 0 for none
     */
    public function __construct(
        public int $item,
        public string $code,
        public string $name,
        public string $unit,
        public string $bin,
        public string $lot,
        public BigDecimal $stands,
        public BigDecimal $cost,
        public int $last,
    ) {
    }

    public function key(): string
    {
        return $this->item.'|'.$this->lot;
    }
}
