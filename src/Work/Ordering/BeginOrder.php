<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\AllOrNothing;

/** A new draft, with a number of its own. */
final readonly class BeginOrder
{
    /** Where nothing is known of how long a supplier takes. */
    private const USUAL_DAYS = 7;

    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Rates $rates,
        private PlanningData $data,
        private Agreements $agreements,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * By hand, with a first line where an offer is given. Asked for twice, an empty draft of the same person is taken.
     *
     * @throws Refused if there is no exchange rate for the supplier's currency
     */
    public function byHand(Supplier $supplier, Person $person, ?Offer $first, Site $site): PurchaseOrder
    {
        return $this->whole->take(function () use ($supplier, $person, $first, $site): PurchaseOrder {
            $order = $this->emptyDraft($supplier, $person) ?? $this->blank(
                $supplier,
                $person,
                $this->couldBeHere($supplier, $first),
                'Begun by hand',
            );
            if (null !== $first) {
                $line = OrderLine::fromOffer($order, $first, $site, $first->rule()->packsFor(1));
                $this->agreements->attach($line, $this->clock->now());
            }

            return $order;
        });
    }

    /** Inside the caller's transaction. */
    public function blank(Supplier $supplier, Person $person, \DateTimeImmutable $wanted, string $why): PurchaseOrder
    {
        $now = $this->clock->now();
        $order = new PurchaseOrder(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::ORDERS, $now),
            $supplier,
            $supplier->buyer() ?? $person,
            $this->rates->on($supplier->currency()->code, $now),
            $wanted->setTime(0, 0),
            $now,
        );
        $this->entities->persist($order);
        $this->audit->note($person, $order->number, $why);

        return $order;
    }

    private function emptyDraft(Supplier $supplier, Person $person): ?PurchaseOrder
    {
        /** @var PurchaseOrder|null $draft */
        $draft = $this->entities
            ->createQuery(
                'SELECT o FROM '.
                    PurchaseOrder::class.
                    " o WHERE o.supplier = :supplier AND o.buyer = :buyer AND o.state = 'draft'
                     AND o.lines IS EMPTY ORDER BY o.id DESC",
            )
            ->setParameter('supplier', $supplier)
            ->setParameter('buyer', $supplier->buyer() ?? $person)
            ->setMaxResults(1)
            ->getOneOrNullResult();

        return $draft;
    }

    /** The day on which goods ordered at the next chance could be here. */
    private function couldBeHere(Supplier $supplier, ?Offer $first): \DateTimeImmutable
    {
        $usual = $this->entities
            ->createQuery('SELECT AVG(o.leadDays) FROM '.Offer::class.' o WHERE o.supplier = :supplier')
            ->setParameter('supplier', $supplier)
            ->getSingleScalarResult();
        $days = $first?->leadDays() ?? (is_numeric($usual) ? (int) round((float) $usual) : self::USUAL_DAYS);

        return $this->data->orderDays()[$supplier->id]->arrival($this->clock->now(), $days);
    }
}
