<?php

declare(strict_types=1);

namespace TallBarrel\Work\Receiving;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\UnknownDelivery;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Keeping\AllOrNothing;
use TallBarrel\Work\Ordering\EndOrder;
use TallBarrel\Work\Ordering\SeenOrder;

/** Nothing that stands at the dock is left out: it is noted at once, and placed or sent away when somebody knows. */
final readonly class PlaceUnknown
{
    private const NO_PAPER = 'none';

    public function __construct(
        private EntityManagerInterface $entities,
        private Orders $orders,
        private EndOrder $end,
        private StartDelivery $start,
        private AllOrNothing $whole,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /** @param Problems $problems takes what cannot be so, as "what" */
    public function note(
        Site $site,
        string $what,
        string $from,
        int $packages,
        string $noteNumber,
        string $carrier,
        Person $by,
        Problems $problems,
    ): ?UnknownDelivery {
        $unknown = $problems->attempt('what', fn (): UnknownDelivery => new UnknownDelivery(
            $site, trim($what), trim($from), $packages, trim($noteNumber), trim($carrier), $by, $this->clock->now(),
        ));
        if (null !== $unknown) {
            $this->entities->persist($unknown);
            $this->entities->flush();
        }

        return $unknown;
    }

    /**
     * It is a delivery of an order after all, and is counted as one. An order that was closed or cancelled is opened
     * again for it, and says so.
     *
     * @param Problems $problems takes what stands in the way
     *
     * @throws Refused if it was decided before
     */
    public function place(UnknownDelivery $unknown, int $order, Person $by, Problems $problems): ?Delivery
    {
        return $this->whole->take(function () use ($unknown, $order, $by, $problems): ?Delivery {
            $this->lock($unknown);
            $unknown->mustWait();
            $note = $unknown->noteNumber ?: self::NO_PAPER;
            $this->openAgain($order, $by);
            $delivery = $this->start->start([$order], $unknown->site, $note, true, $problems);
            if (null !== $delivery) {
                $unknown->belongsTo($delivery);
                $words = sprintf('Came unannounced, %s: %s', $unknown->at->format('j M H:i'), $unknown->what);
                foreach ($delivery->orders() as $one) {
                    $this->audit->note($by, $one->number, $words);
                }
            }

            return $delivery;
        });
    }

    private function openAgain(int $order, Person $by): void
    {
        $ended = $this->orders->find($order);
        if (null !== $ended && in_array($ended->state(), [OrderState::Cancelled, OrderState::Closed], true)) {
            $this->audit->note($by, $ended->number, 'Goods of it came although it had ended');
            $this->end->reopen(SeenOrder::now($ended), $by);
        }
    }

    /** @throws Refused without a reason, or if it was decided before */
    public function sendAway(UnknownDelivery $unknown, string $because): void
    {
        $this->whole->take(function () use ($unknown, $because): void {
            $this->lock($unknown);
            $unknown->goesAway(trim($because));
        });
    }

    /** @throws Refused if a colleague was quicker */
    private function lock(UnknownDelivery $unknown): void
    {
        $state = $this->entities->getConnection()->fetchOne(
            'SELECT state FROM unknown_delivery WHERE id = ? FOR UPDATE',
            [$unknown->id],
        );
        if ($state !== $unknown->state()->value) {
            throw new Refused('Somebody has just decided that.');
        }
    }
}
