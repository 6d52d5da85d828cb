<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
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
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Planning\ChangeProposal;

/** Carries out what a comparison came to: into the proposal where there is one, else into a draft. */
final readonly class BuyAsCompared
{
    public function __construct(
        private EntityManagerInterface $entities,
        private ChangeProposal $choices,
        private Rates $rates,
        private Agreements $agreements,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @throws InvalidValue|Refused */
    public function intoProposal(SavedProposal $proposal, Offer $offer, BigDecimal $units): void
    {
        if ($offer->item !== $proposal->item) {
            throw new Refused(sprintf('%s does not offer %s.', $offer->supplier->name(), $proposal->item->code));
        }
        if ($proposal->offer() !== $offer) {
            $this->choices->buyFrom($proposal, $offer);
        }
        $this->choices->order($proposal, $offer->rule()->packsFor($units), true);
    }

    /** Onto the person's open draft for that supplier, or a new one. */
    public function intoDraft(Offer $offer, Site $site, BigDecimal $units, Person $person): PurchaseOrder
    {
        $order = $this->draftFor(
            $offer->supplier,
            $person,
            $this->clock->now()->modify(sprintf('+%d days', $offer->leadDays())),
        );
        $line = OrderLine::fromOffer($order, $offer, $site, $offer->rule()->packsFor($units));
        $this->agreements->attach($line, $this->clock->now());

        return $order;
    }

    public function draftFor(Supplier $supplier, Person $person, \DateTimeImmutable $wanted): PurchaseOrder
    {
        $open = $this->entities
            ->getRepository(PurchaseOrder::class)
            ->findOneBy(['supplier' => $supplier, 'buyer' => $person, 'state' => 'draft'], ['id' => 'DESC']);

        return $open ?? $this->newDraft($supplier, $person, $wanted, 'Drafted from Compare');
    }

    public function newDraft(Supplier $supplier, Person $person, \DateTimeImmutable $wanted, string $why): PurchaseOrder
    {
        $now = $this->clock->now();
        $order = new PurchaseOrder(
            NumberSeries::take($this->entities->getConnection(), NumberSeries::ORDERS),
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
}
