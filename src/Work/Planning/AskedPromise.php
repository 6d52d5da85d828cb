<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use TallBarrel\Store\Site\Site;

/** A promise as it is typed; null for what is missing or could not be read. */
final readonly class AskedPromise
{
    /** @param string $item its code, perhaps with its name behind */
    public function __construct(
        public string $item,
        public string $customer,
        public string $reference,
        public ?BigDecimal $quantity,
        public ?\DateTimeImmutable $day,
        public ?Site $site,
    ) {
    }
}
