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
        return $this->since($order)['answers'];
    }

    /**
     * All that came after an order was sent.
     *
     * @return array{amendment: OrderAmendment|null, answers: list<OrderAnswer>, despatches: list<Despatch>} the latest
     *      first
     */
    public function since(PurchaseOrder $order): array
    {
        /** @var list<Despatch|OrderAmendment|OrderAnswer|PurchaseOrder|null> $found */
        $found = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT o, m, a, d FROM %s o LEFT JOIN %s m WITH m.order = o LEFT JOIN %s a WITH a.order = o
                     LEFT JOIN %s d WITH d.order = o WHERE o = :order ORDER BY a.id DESC, d.id DESC',
                    PurchaseOrder::class,
                    OrderAmendment::class,
                    OrderAnswer::class,
                    Despatch::class,
                ),
            )
            ->setParameter('order', $order)
            ->getResult();
        $amendment = null;
        $answers = $despatches = [];
        foreach ($found as $one) {
            if ($one instanceof OrderAmendment) {
                $amendment = $one;
            } elseif ($one instanceof OrderAnswer) {
                $answers[$one->id] = $one;
            } elseif ($one instanceof Despatch) {
                $despatches[$one->id] = $one;
            }
        }

        return [
            'amendment' => $amendment,
            'answers' => array_values($answers),
            'despatches' => array_values($despatches),
        ];
    }
}
