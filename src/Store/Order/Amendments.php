<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\EntityManagerInterface;

/** Revisions in draft, the revisions that were sent, and what suppliers answered. */
final readonly class Amendments
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function of(PurchaseOrder $order): ?OrderAmendment
    {
        return $this->entities->getRepository(OrderAmendment::class)->findOneBy(['order' => $order]);
    }

    public function drop(PurchaseOrder $order): void
    {
        $amendment = $this->of($order);
        if (null !== $amendment) {
            $this->entities->remove($amendment);
        }
    }

    /** @return list<OrderRevision> as they were sent, the first one first */
    public function sent(PurchaseOrder $order): array
    {
        return $this->entities
            ->getRepository(OrderRevision::class)
            ->findBy(['order' => $order], ['number' => 'ASC']);
    }

    /** @return list<OrderAnswer> the latest first */
    public function answers(PurchaseOrder $order): array
    {
        return $this->entities->getRepository(OrderAnswer::class)->findBy(['order' => $order], ['id' => 'DESC']);
    }
}
