<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/**
 * Several orders one has looked through, in one stroke: what the person's limit reaches goes out, the rest waits for a
 * yes.
 * Each by itself, so that one that cannot go holds up none of the others.
 */
final readonly class SendTogether
{
    public function __construct(
        private EntityManagerInterface $entities,
        private SendOrder $send,
        private SubmitOrder $submit,
        private Approval $approval,
    ) {
    }

    /**
     * @param list<array{PurchaseOrder, SeenOrder}> $orders each as it stands, and as the person saw it
     */
    public function send(array $orders, Person $person): SentTogether
    {
        $sent = $waiting = $held = [];
        foreach ($orders as [$order, $seen]) {
            $number = $order->number;
            // Known anew each time: what is refused makes everything else forgotten.
            $person = $this->entities->find(Person::class, $person->id) ?? $person;
            try {
                if (!$person->mayHandleOrdersOf($order->buyer)) {
                    throw new Refused(sprintf('It is an order of %s.', $order->buyer->name()));
                }
                if ($this->goesOut($order, $person)) {
                    $sent[] = $this->send->send($seen, $person)->number;
                } else {
                    $waiting[] = $this->submit->submit($seen, $person)->number;
                }
            } catch (Refused $refused) {
                $held[$number] = $refused->getMessage();
            }
        }

        return new SentTogether($sent, $waiting, $held);
    }

    /** Whether the person may send it themselves; else it waits for somebody with a higher limit. */
    private function goesOut(PurchaseOrder $order, Person $person): bool
    {
        return OrderState::Approved === $order->state() || null === $this->approval->objection($order, $person);
    }
}
