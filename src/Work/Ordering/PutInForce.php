<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Makes a sent order different: what it was and what it becomes are both kept as revisions. */
final readonly class PutInForce
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Amendments $amendments,
        private ClockInterface $clock,
    ) {
    }

    /**
     * Inside the caller's transaction.
     *
     * @param callable(): void $change
     *
     * @throws Refused if nothing is to come on the order, or the person's limit does not reach
     */
    public function revise(PurchaseOrder $order, Person $person, callable $change): RevisionChange
    {
        $before = OrderRevision::of($order, $order->buyer, $order->sentAt() ?? $this->clock->now());
        $cost = $order->homeTotal();
        if ([] === $this->amendments->sent($order)) {
            $this->entities->persist($before);
        }
        $order->revise($change);
        $after = OrderRevision::of($order, $person, $this->clock->now());
        $this->entities->persist($after);
        $different = $after->since($before);
        $now = $order->homeTotal();
        if ($different->needsYes() && $now->isGreaterThan($cost) && !$person->maySpend($now)) {
            throw new Refused(
                sprintf(
                    'It would come to %s %s, over %s’s limit; somebody with a higher one has to say yes.',
                    $now->amount,
                    $now->currency->code,
                    $person->firstName(),
                ),
            );
        }

        return $different;
    }
}
