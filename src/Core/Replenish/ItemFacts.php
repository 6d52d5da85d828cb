<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Quantity\Unit;

/** What is the same of an item at every site. */
final readonly class ItemFacts
{
    /** @param bool $staple never to be without */
    public function __construct(
        public int $id,
        public string $code,
        public string $category,
        public Unit $unit,
        public ItemWorth $worth,
        public bool $staple = false,
    ) {
    }
}
