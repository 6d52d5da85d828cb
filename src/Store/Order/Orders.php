<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\QueryBuilder;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\OneTrip;

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

    /** With all its page shows; head and lines are read apart, so that the head is not read once for each line. */
    public function byNumber(string $number): ?PurchaseOrder
    {
        /** @var PurchaseOrder|null $order */
        $order = $this->entities
            ->createQuery(
                sprintf(
                    'SELECT o, s, b, a, contact, address FROM %s o JOIN o.supplier s JOIN o.buyer b
                     LEFT JOIN o.approvedBy a LEFT JOIN s.contacts contact LEFT JOIN s.addresses address
                     WHERE o.number = :number ORDER BY contact.id, address.id',
                    PurchaseOrder::class,
                ),
            )
            ->setParameter('number', $number)
            ->getOneOrNullResult();
        if (null !== $order) {
            $this->withWhatItsLinesName($order);
        }

        return $order;
    }

    /**
     * Each thing once, however many lines name it; every page has the sites, and few lines draw on an agreement.
     */
    private function withWhatItsLinesName(PurchaseOrder $order): void
    {
        InBatches::ahead($this->entities, OrderLine::class, 'e.order = :o', ['o' => $order], 'item');
        $drawnOn = [];
        foreach ($order->lines() as $line) {
            $drawnOn[] = $line->agreement();
        }
        $drawnOn = array_filter($drawnOn, $this->entities->isUninitializedObject(...));
        if ([] !== $drawnOn) {
            $this->entities
                ->createQuery(sprintf('SELECT a FROM %s a WHERE a IN (:drawnOn)', Agreement::class))
                ->setParameter('drawnOn', $drawnOn)
                ->getResult();
        }
    }

    /** The order that went to the same supplier before, asked along with other things: see beforeIn(). */
    public static function askBefore(OneTrip $trip, PurchaseOrder $order): void
    {
        $trip->ask(
            'before',
            ['number', 'currency', 'rate', 'snapshot'],
            'number',
            'SELECT o.number, o.currency, o.foreign_for_one rate, r.snapshot FROM purchase_order o
             LEFT JOIN order_revision r ON r.order_id = o.id AND r.number = o.revision
             WHERE o.supplier_id = ? AND o.sent_at IS NOT NULL AND o.id <> ?
             ORDER BY o.sent_at DESC, o.id DESC LIMIT 1',
            [$order->supplier->id, $order->id],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array{number: string, currency: string, rate: BigDecimal, facts: array<string, string>}|null facts it
     *      kept of the supplier, empty where it kept none
     */
    public static function beforeIn(array $answers): ?array
    {
        $row = $answers['before'][0] ?? null;
        if (null === $row) {
            return null;
        }
        /** @var array{facts?: array<string, string>} $snapshot */
        $snapshot = json_decode($row['snapshot'] ?? '[]', true, flags: \JSON_THROW_ON_ERROR);

        return [
            'number' => (string) $row['number'],
            'currency' => (string) $row['currency'],
            'rate' => BigDecimal::of((string) $row['rate']),
            'facts' => $snapshot['facts'] ?? [],
        ];
    }

    /**
     * The offers of its lines with their prices, in one go, for whoever looks at them line by line.
     *
     * @param int|null $many of so many lines; null for all
     */
    public function withOffers(PurchaseOrder $order, int $from = 0, ?int $many = null): void
    {
        $offers = array_filter(
            array_map(
                static fn (OrderLine $line): ?int => $line->offer?->id,
                array_slice($order->lines(), $from, $many),
            ),
            static fn (?int $id): bool => null !== $id,
        );
        if ([] !== $offers) {
            $this->entities
                ->createQuery(sprintf('SELECT f, p FROM %s f LEFT JOIN f.breaks p WHERE f.id IN (:ids)', Offer::class))
                ->setParameter('ids', array_values(array_unique($offers)))
                ->getResult();
        }
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

    /** @return list<PurchaseOrder> that were sent and have ended without all of it, the latest first */
    public function ended(int $most): array
    {
        /** @var list<PurchaseOrder> $orders */
        $orders = $this->entities
            ->createQuery(
                'SELECT o, s FROM '.PurchaseOrder::class.' o JOIN o.supplier s
                 WHERE o.state IN (:ended) AND o.sentAt IS NOT NULL ORDER BY o.id DESC',
            )
            ->setParameter('ended', [OrderState::Cancelled, OrderState::Closed])
            ->setMaxResults($most)
            ->getResult();

        return $orders;
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
