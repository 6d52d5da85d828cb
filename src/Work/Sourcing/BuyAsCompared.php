<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Ordering\BeginOrder;
use TallBarrel\Work\Planning\ChangeProposal;

/** Carries out what a comparison came to: into the proposal where there is one, else into a draft. */
final readonly class BuyAsCompared
{
    public function __construct(
        private EntityManagerInterface $entities,
        private ChangeProposal $choices,
        private BeginOrder $begin,
        private Agreements $agreements,
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

    /**
     * Part from one supplier, the rest from another.
     *
     * @param array{Offer, BigDecimal} $first  with the stock units to buy there
     * @param array{Offer, BigDecimal} $second
     *
     * @throws InvalidValue|Refused
     */
    public function inTwoParts(SavedProposal $proposal, array $first, array $second): void
    {
        $this->intoProposal($proposal, $first[0], $first[1]->plus($second[1]));
        $this->choices->split($proposal, $second[0], $second[0]->rule()->packsFor($second[1]));
        $this->choices->order($proposal, $first[0]->rule()->packsFor($first[1]), true);
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

        return $open ?? $this->begin->blank($supplier, $person, $wanted, 'Drafted from Compare');
    }
}
