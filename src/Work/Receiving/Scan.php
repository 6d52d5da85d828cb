<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;

/** A code that was read, perhaps with how many packs there are, and a key that is sent again with it. */
final readonly class Scan
{
    public function __construct(public string $code, public ?BigDecimal $packs = null, public string $key = '')
    {
    }
}
