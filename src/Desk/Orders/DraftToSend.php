<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Order\PurchaseOrder;

/** One order among those that are looked through together. */
final readonly class DraftToSend
{
    /** @param list<string> $missing in words; nothing may be missing in what goes out
     * @param string|null  $below   what it lacks of the supplier's minimum */
    private function __construct(
        public PurchaseOrder $order,
        public Money $goods,
        public Money $home,
        public array $missing,
        public bool $goesOut,
        public ?string $below,
    ) {
    }

    public static function of(PurchaseOrder $order, bool $goesOut): self
    {
        return new self(
            $order,
            $order->totals()->goods,
            $order->homeTotal(),
            array_column($order->readiness()->missing, 'words'),
            $goesOut,
            $order->belowMinimum(),
        );
    }

    public function isReady(): bool
    {
        return [] === $this->missing;
    }
}
