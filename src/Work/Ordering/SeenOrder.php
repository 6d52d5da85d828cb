<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Store\Order\PurchaseOrder;

/** An order as a person saw it when they decided something about it. */
final readonly class SeenOrder
{
    public function __construct(public int $id, public int $version)
    {
    }

    public static function now(PurchaseOrder $order): self
    {
        return new self($order->id, $order->version());
    }
}
