<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;

/** A movement about to be entered in the ledger. */
final readonly class Posting
{
    public function __construct(
        public int $item,
        public int $site,
        public MovementKind $kind,
        public BigDecimal $quantity,
        public ?BigDecimal $unitCost,
        public \DateTimeImmutable $day,
        public string $reference,
        public ?string $idempotencyKey,
        public string $lot = '',
        public StockState $state = StockState::Available,
    ) {
    }
}
