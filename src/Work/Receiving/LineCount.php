<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Receiving\LotFacts;

/** What was typed beside a line at the dock. */
final readonly class LineCount
{
    /**
     * @param bool                          $said      whether a count was typed at all; false leaves it as it is
     * @param BigDecimal|null               $packs     null for not counted yet
     * @param bool|null $keepRest whether the rest of a short line stays on order; null: left as it is
     * @param LotFacts|null                 $lot       null: left as it is
     * @param list<string>|null             $serials   numbers of the pieces; null: left as they are
     * @param BigDecimal|null               $bad       packs of these that are not good; null: left as they are
     */
    public function __construct(
        public bool $said,
        public ?BigDecimal $packs,
        public ?bool $keepRest = null,
        public ?LotFacts $lot = null,
        public ?array $serials = null,
        public ?BigDecimal $bad = null,
        public string $badBecause = '',
    ) {
    }
}
