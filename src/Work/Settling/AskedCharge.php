<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Supplier\Supplier;

/** A charge as somebody types it. */
final readonly class AskedCharge
{
    /**
     * @param Money                  $amount   as it is asked for
     * @param list<Receipt>          $receipts what came with it
     * @param array<int, BigDecimal> $typed    home currency by line of the receipts, where shares are typed
     * @param bool                   $isPart   another bill will come: what was expected stays
     */
    public function __construct(
        public ChargeKind $kind,
        public ?Supplier $supplier,
        public string $paper,
        public Money $amount,
        public SpreadBasis $basis,
        public array $receipts,
        public array $typed,
        public bool $isPart = false,
    ) {
    }
}
