<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\QueryBuilder;
use TallBarrel\Core\Ordering\OrderState;

/** Purchase orders, found. */
final readonly class Orders
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** For an IN (…) of a query: the states in which goods are still to come. */
    public static function openStates(): string
    {
        return "'".implode("', '", OrderState::openValues())."'";
    }

    public function byNumber(string $number): ?PurchaseOrder
    {
        /** @var PurchaseOrder|null $order */
        $order = $this->withLines()
            ->addSelect('a', 'c', 'contact', 'address')
            ->leftJoin('s.contacts', 'contact')
            ->leftJoin('s.addresses', 'address')
            ->addOrderBy('contact.id')
            ->addOrderBy('address.id')
            ->leftJoin('o.approvedBy', 'a')
            ->leftJoin('l.agreement', 'c')
            ->where('o.number = :number')
            ->setParameter('number', $number)
            ->getQuery()
            ->getOneOrNullResult();

        return $order;
    }

    public function find(int $id): ?PurchaseOrder
    {
        return $this->entities->find(PurchaseOrder::class, $id);
    }

    public function byToken(string $token): ?PurchaseOrder
    {
        /** @var PurchaseOrder|null $order */
        $order =
            1 === preg_match('/^[0-9a-f]{32}$/', $token)
                ? $this->withLines()
                    ->where('o.token = :token')
                    ->setParameter('token', $token)
                    ->getQuery()
                    ->getOneOrNullResult()
                : null;

        return $order;
    }

    /** Read afresh and locked until the transaction ends. */
    public function lock(int $id): PurchaseOrder
    {
        $order =
            $this->entities->find(PurchaseOrder::class, $id, LockMode::PESSIMISTIC_WRITE) ??
            throw new \LogicException('No such order.');
        $this->entities->refresh($order);

        return $order;
    }

    /**
     * @param list<OrderState> $states
     *
     * @return list<PurchaseOrder> with supplier, buyer and lines loaded, by the day they are due
     */
    public function in(array $states, ?int $most = null): array
    {
        $ids = $this->entities
            ->createQueryBuilder()
            ->select('o.id')
            ->from(PurchaseOrder::class, 'o')
            ->where('o.state IN (:states)')
            ->setParameter('states', $states)
            ->orderBy('o.wantedOn', null === $most ? 'ASC' : 'DESC')
            ->addOrderBy('o.id', null === $most ? 'ASC' : 'DESC')
            ->setMaxResults($most)
            ->getQuery()
            ->getSingleColumnResult();
        /** @var list<PurchaseOrder> $orders */
        $orders = $this->withLines()
            ->where('o.id IN (:ids)')
            ->setParameter('ids', $ids)
            ->getQuery()
            ->getResult();
        usort(
            $orders,
            static fn (PurchaseOrder $a, PurchaseOrder $b): int => null === $most
                ? [$a->dueOn(), $a->id] <=> [$b->dueOn(), $b->id]
                : $b->id <=> $a->id,
        );

        return $orders;
    }

    private function withLines(): QueryBuilder
    {
        return $this->entities
            ->createQueryBuilder()
            ->select('o', 's', 'b', 'l', 'site', 'i', 'f')
            ->from(PurchaseOrder::class, 'o')
            ->join('o.supplier', 's')
            ->join('o.buyer', 'b')
            ->leftJoin('o.lines', 'l')
            ->leftJoin('l.site', 'site')
            ->leftJoin('l.item', 'i')
            ->leftJoin('l.offer', 'f')
            ->orderBy('o.id')
            ->addOrderBy('l.position');
    }

    /** @return list<PurchaseOrder> sent and not all here */
    public function open(): array
    {
        return $this->in(
            array_values(array_filter(OrderState::cases(), static fn (OrderState $state): bool => $state->isOpen())),
        );
    }

    /** @return list<PurchaseOrder> sent, and neither confirmed nor answered as they stand */
    public function unanswered(): array
    {
        /** @var list<PurchaseOrder> $orders */
        $orders = $this->withLines()
            ->where("o.state = 'sent' AND o.token IS NOT NULL")
            ->andWhere(
                'NOT EXISTS (SELECT a.id FROM '.
                    OrderAnswer::class.
                    " a WHERE a.order = o AND a.revision = o.revision AND a.state <> 'message')",
            )
            ->getQuery()
            ->getResult();

        return $orders;
    }

    /** @return list<SentDocument> */
    public function documents(PurchaseOrder $order): array
    {
        return array_values(
            $this->entities->getRepository(SentDocument::class)->findBy(['order' => $order], ['id' => 'ASC']),
        );
    }
}
