<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use Brick\Math\BigDecimal;

/** One row of lines that somebody pasted. */
final readonly class PastedLine
{
    /**
     * @param int             $row   as counted in what was pasted, from 1
     * @param string          $code  the item's, of either side, or its GTIN
     * @param BigDecimal|null $price of one pack; null for the one offered
     * @param string|null     $site  its code
     */
    public function __construct(
        public int $row,
        public string $code,
        public BigDecimal $packs,
        public ?BigDecimal $price,
        public ?\DateTimeImmutable $day,
        public ?string $site,
    ) {
    }
}
