<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Work\Keeping\AllOrNothing;

/** One step in an order's life: one transaction on the locked order, as somebody saw it last. */
final readonly class OrderStep
{
    public function __construct(private AllOrNothing $whole, private Orders $orders)
    {
    }

    /**
     * @param callable(PurchaseOrder): void $change
     *
     * @throws Refused if somebody changed the order meanwhile, or the rules forbid the step
     */
    public function take(SeenOrder $seen, callable $change): PurchaseOrder
    {
        return $this->whole->take(function () use ($seen, $change): PurchaseOrder {
            $order = $this->orders->lock($seen->id);
            if ($order->version() !== $seen->version) {
                throw new Refused(
                    sprintf(
                        '%s was changed by somebody else meanwhile. Look at it once more, then try again.',
                        $order->number,
                    ),
                );
            }
            $change($order);

            return $order;
        });
    }
}
