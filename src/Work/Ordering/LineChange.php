<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;

/** What was typed beside a line of a draft. */
final readonly class LineChange
{
    /**
     * @param BigDecimal|null $price        of one pack; null for as it was
     * @param string          $supplierCode empty for as it was
     * @param bool            $offerFollows whether the standing offer takes this price
     * @param bool            $costFollows  whether the standard cost does
     * @param \DateTimeImmutable|null $wantedOn a day of its own; null for the order's
     */
    public function __construct(
        public BigDecimal $packs,
        public ?BigDecimal $price,
        public string $supplierCode = '',
        public bool $offerFollows = false,
        public bool $costFollows = false,
        public ?\DateTimeImmutable $wantedOn = null,
    ) {
    }
}
