<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderAmendment;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Keeping\AllOrNothing;

/** Prepares a revision of a sent order beside the one in force. */
final readonly class AmendOrder
{
    public function __construct(
        private EntityManagerInterface $entities,
        private AllOrNothing $whole,
        private Amendments $amendments,
        private OfferWanted $wanted,
        private Audit $audit,
        private ClockInterface $clock,
    ) {
    }

    /**
     * The one that is prepared already, where there is one.
     *
     * @throws Refused if nothing is to come on the order
     */
    public function begin(PurchaseOrder $order, Person $person): OrderAmendment
    {
        return $this->whole->take(function () use ($order, $person): OrderAmendment {
            $order->mustBeOpen();
            $amendment = $this->amendments->of($order);
            if (null === $amendment) {
                $amendment = new OrderAmendment($order, $person, $this->clock->now(), $order->revision());
                $this->entities->persist($amendment);
                $this->audit->note($person, $order->number, sprintf('Revision %d begun', $order->revision() + 1));
            }

            return $amendment;
        });
    }

    /**
     * @param Problems $problems takes what stands in the way; nothing is saved then
     *
     * @throws Refused if somebody changed it meanwhile
     */
    public function save(PurchaseOrder $order, AmendmentChanges $changes, Person $person, Problems $problems): void
    {
        $this->whole->take(function () use ($order, $changes, $person, $problems): void {
            $amendment = $this->amendments->of($order) ?? throw new Refused('That revision is gone.');
            if ($amendment->version() !== $changes->version) {
                throw new Refused(
                    sprintf('%s changed it while you were typing; look once more.', $amendment->by()->firstName()),
                );
            }
            $wishes = [];
            foreach ($amendment->wishes() as $place => $wish) {
                $line = $this->line($order, $wish);
                $wish = $changes->wishes[$place] ?? $wish;
                if (null !== $line) {
                    $problems->apply('quantity-'.$place, static fn () => self::mustFit($line, $wish));
                }
                if (null !== $line || $wish->packs->isPositive()) {
                    $wishes[] = $wish;
                }
            }
            if (null !== $changes->added && !$problems->concern('add')) {
                $problems->apply('add', function () use ($order, $changes, &$wishes): void {
                    $wishes[] = $this->added($order, $changes->added, $changes->site);
                });
            }
            if ([] === array_filter($wishes, static fn (LineWish $wish): bool => $wish->packs->isPositive())) {
                $problems->refuse('amendment', 'Nothing would be left of it. Cancel the order instead.');
            }
            if ($problems->areNone()) {
                $amendment->change($wishes, $changes->adjustments, $changes->wantedOn, $changes->note, $person);
            }
        });
    }

    /** @throws Refused if there is none */
    public function drop(PurchaseOrder $order, Person $person): void
    {
        $this->whole->take(function () use ($order, $person): void {
            if (null === $this->amendments->of($order)) {
                throw new Refused('That revision is gone.');
            }
            $this->amendments->drop($order);
            $this->audit->note($person, $order->number, sprintf('Revision %d thrown away', $order->revision() + 1));
        });
    }

    /** @throws InvalidValue if the supplier does not sell so many, or so many have come */
    private static function mustFit(OrderLine $line, LineWish $wish): void
    {
        $came = $line->received()->plus($line->closedShort());
        $objection = match (true) {
            $wish->packs->isLessThan($came) => sprintf(
                '%s have come or were closed; it cannot be less.',
                $came->strippedOfTrailingZeros(),
            ),
            $wish->packs->isZero(), $wish->packs->isEqualTo($line->packs()) => null,
            default => $line->offer?->rule()->objectionTo($wish->packs),
        };
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
    }

    /** @throws InvalidValue if it cannot be bought so */
    private function added(PurchaseOrder $order, AddedLine $added, Site $site): LineWish
    {
        $offer =
            $this->wanted->find($order->supplier, $added->words) ??
            throw InvalidValue::because(
                $this->wanted->notOffered($order->supplier, $added->words) ??
                    sprintf('%s offers nothing called “%s”.', $order->supplier->name(), $added->words),
            );
        $packs = $added->packs ?? $offer->rule()->packsFor(1);
        $this->wanted->mustBeSold($offer, $packs);

        return new LineWish(
            null,
            $offer->id,
            $offer->item->name(),
            $packs,
            $added->price ?? $offer->prices()->priceFor($packs),
            null,
            $site->id,
        );
    }

    private function line(PurchaseOrder $order, LineWish $wish): ?OrderLine
    {
        foreach ($order->lines() as $line) {
            if ($line->id === $wish->line) {
                return $line;
            }
        }

        return null;
    }
}
