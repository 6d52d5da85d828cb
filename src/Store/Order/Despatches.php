<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\Dock\Delivery;

/** What suppliers said is on its way. */
final readonly class Despatches
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Despatch> of these orders that no delivery was begun from, the earliest first */
    public function expected(PurchaseOrder ...$orders): array
    {
        if ([] === $orders) {
            return [];
        }
        /** @var list<Despatch> $found */
        $found = $this->entities
            ->createQuery(
                'SELECT d FROM '.Despatch::class.' d WHERE d.order IN (:orders) AND NOT EXISTS
                    (SELECT v.id FROM '.Delivery::class.' v WHERE v.advised = d) ORDER BY d.hereOn, d.id',
            )
            ->setParameter('orders', $orders)
            ->getResult();

        return $found;
    }

    public function find(int $id): ?Despatch
    {
        return $this->entities->find(Despatch::class, $id);
    }
}
