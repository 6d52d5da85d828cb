<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Requisition\Requisition;
use TallBarrel\Store\Requisition\Requisitions;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Sourcing\BeginRound;

/** A buyer makes a line, a question to suppliers or a no of a colleague's wish. */
final readonly class DecideRequisition
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Requisitions $requisitions,
        private BeginOrder $orders,
        private BeginRound $rounds,
        private PutOnOrder $lines,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Onto the supplier's open draft, else a new one; rounded to what they sell, as free text where they offer no such
     * item.
     *
     * @throws Refused      once it is decided
     * @throws InvalidValue if their offer is blocked or does not hold today
     */
    public function putOnOrder(int $id, Supplier $supplier, Person $person): PurchaseOrder
    {
        return $this->whole->take(function () use ($id, $supplier, $person): PurchaseOrder {
            $wish = $this->requisitions->lock($id);
            $now = $this->clock->now();
            $order = $this->draft($supplier) ?? $this->orders->blank(
                $supplier,
                $person,
                $wish->wantedOn ?? $now->modify('+7 days'),
                'Begun from a requisition',
            );
            $wish->putOn($order, $person, $now);
            $line = $this->line($order, $wish);
            if (null !== $wish->wantedOn) {
                $line->wantFor($wish->wantedOn);
            }
            $line->say(
                $line->noteToThem(),
                mb_substr(
                    implode('; ', array_filter([$line->noteToUs(), self::forWhom($wish)], self::isSaid(...))),
                    0,
                    200,
                ),
            );
            $this->audit->note(
                $person,
                $order->number,
                sprintf('%s put on it, as %s asked', $wish->words, $wish->by->firstName()),
            );

            return $order;
        });
    }

    /** @throws Refused once it is decided */
    public function askForQuotes(int $id, Person $person): QuoteRound
    {
        return $this->whole->take(function () use ($id, $person): QuoteRound {
            $wish = $this->requisitions->lock($id);
            $round = $this->rounds->begin($person, $wish->site);
            $round->ask($wish->item, $wish->words, [$wish->quantity]);
            $wish->askIn($round, $person, $this->clock->now());

            return $round;
        });
    }

    /** @throws Refused without a reason, or once it is decided */
    public function decline(int $id, string $reason, Person $person): Requisition
    {
        return $this->whole->take(function () use ($id, $reason, $person): Requisition {
            $wish = $this->requisitions->lock($id);
            $wish->decline($reason, $person, $this->clock->now());

            return $wish;
        });
    }

    private static function forWhom(Requisition $wish): string
    {
        return 'for '.$wish->by->firstName().('' === $wish->why ? '' : ': '.$wish->why);
    }

    private static function isSaid(string $words): bool
    {
        return '' !== $words;
    }

    private function draft(Supplier $supplier): ?PurchaseOrder
    {
        /** @var PurchaseOrder|null $draft */
        $draft = $this->entities
            ->createQuery(
                'SELECT o FROM '.
                    PurchaseOrder::class.
                    " o WHERE o.supplier = :supplier AND o.state = 'draft' ORDER BY o.id DESC",
            )
            ->setParameter('supplier', $supplier)
            ->setMaxResults(1)
            ->getOneOrNullResult();

        return $draft;
    }

    private function line(PurchaseOrder $order, Requisition $wish): OrderLine
    {
        $offer = null === $wish->item
            ? null
            : $this->entities
                ->getRepository(Offer::class)
                ->findOneBy(['supplier' => $order->supplier, 'item' => $wish->item], ['rank' => 'ASC']);
        if (null === $offer) {
            return OrderLine::ofText($order, $wish->words, $wish->site, $wish->quantity, BigDecimal::zero());
        }

        return $this->lines->put($order, $offer, $wish->site, $offer->rule()->packsFor($wish->quantity))->line;
    }
}
