<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
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
     * By hand, with a first line where an offer is given. Asked for twice, an empty draft of the same person is taken,
     * unless it is to have a number of its own.
     *
     * @param string $number of our own; empty for the next of the series
     *
     * @throws InvalidValue if it cannot be a number
     * @throws Refused      if there is no exchange rate for the supplier's currency, or an order has the number
     */
    public function byHand(
        Supplier $supplier,
        Person $person,
        ?Offer $first,
        Site $site,
        string $number = '',
    ): PurchaseOrder {
        $this->mustBeFree($number);

        return $this->whole->take(function () use ($supplier, $person, $first, $site, $number): PurchaseOrder {
            $order = ('' === $number ? $this->emptyDraft($supplier, $person) : null) ?? $this->blank(
                $supplier,
                $person,
                $this->couldBeHere($supplier, $first),
                'Begun by hand',
                $number,
            );
            if (null !== $first) {
                $line = OrderLine::fromOffer($order, $first, $site, $first->rule()->packsFor(1));
                $this->agreements->attach($line, $this->clock->now());
            }

            return $order;
        });
    }

    /** @throws InvalidValue|Refused */
    private function mustBeFree(string $number): void
    {
        if ('' === $number) {
            return;
        }
        if (1 !== preg_match('/^(?=.*\d)[\p{L}\d][\p{L}\d._-]{0,19}$/u', $number)) {
            throw InvalidValue::because(sprintf(
                '“%s” cannot be the number of an order; expected up to 20 letters and digits, at least one digit.',
                $number,
            ));
        }
        $kept = array_values($this->entities->getRepository(NumberSeries::class)->findAll());
        if (NumberSeries::couldGive($number, $kept)) {
            throw new Refused(sprintf('%s is a number that we give out ourselves; begin it otherwise.', $number));
        }
        if (null !== $this->entities->getRepository(PurchaseOrder::class)->findOneBy(['number' => $number])) {
            throw new Refused(sprintf('There is an order %s already; a number is never used twice.', $number));
        }
    }

    /**
     * Inside the caller's transaction.
     *
     * @param string $number of our own; empty for the next of the series
     */
    public function blank(
        Supplier $supplier,
        Person $person,
        \DateTimeImmutable $wanted,
        string $why,
        string $number = '',
    ): PurchaseOrder {
        $now = $this->clock->now();
        $order = new PurchaseOrder(
            '' !== $number
                ? $number
                : NumberSeries::take($this->entities->getConnection(), NumberSeries::ORDERS, $now),
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
