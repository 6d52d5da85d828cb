<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;

/** Something that could be put on an order, with what one wants to know of it before. */
final readonly class LineChoice
{
    /**
     * @param Pack|null       $pack      null where the supplier does not sell it
     * @param BigDecimal|null $packs     proposed, else the least they sell
     * @param Money|null      $price     of one pack at that quantity
     * @param float           $held      stock units at the site
     * @param float           $coming    stock units
     * @param int|null        $coverDays that both last; null where nothing is sold
     * @param string          $others    who else sells it
     */
    public function __construct(
        public string $code,
        public string $name,
        public string $theirCode,
        public Unit $unit,
        public ?Pack $pack,
        public ?BigDecimal $packs,
        public ?Money $price,
        public float $held,
        public float $coming,
        public ?int $coverDays,
        public bool $proposed,
        public string $others,
    ) {
    }
}
