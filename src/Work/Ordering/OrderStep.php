<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;

/** One step in an order's life: one transaction on the locked order, as somebody saw it last. */
final readonly class OrderStep
{
    public function __construct(private EntityManagerInterface $entities, private Orders $orders)
    {
    }

    /**
     * @param callable(PurchaseOrder): void $change
     *
     * @throws Refused if somebody changed the order meanwhile, or the rules forbid the step
     */
    public function take(SeenOrder $seen, callable $change): PurchaseOrder
    {
        $connection = $this->entities->getConnection();
        $connection->beginTransaction();
        try {
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
            $this->entities->flush();
            $connection->commit();
        } catch (\Throwable $error) {
            $connection->rollBack();
            // What was half done is forgotten, so that whatever comes next begins with what is kept.
            $this->entities->clear();
            throw $error;
        }

        return $order;
    }
}
