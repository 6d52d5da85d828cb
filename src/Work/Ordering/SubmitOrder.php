<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Asks for a yes, or gives it where the person's own limit reaches. */
final readonly class SubmitOrder
{
    public function __construct(
        private OrderStep $step,
        private MindAgreements $agreements,
        private Audit $audit,
        private Approval $approval,
        private ClockInterface $clock,
    ) {
    }

    /** @throws Refused */
    public function submit(SeenOrder $seen, Person $person, bool $drawAnyway = false): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $drawAnyway): void {
            $this->agreements->of($order, $person, $drawAnyway);
            if (null === $this->approval->objection($order, $person)) {
                $this->approval->give($order, $person);
                $this->audit->note(
                    $person,
                    $order->number,
                    sprintf('Approved, within %s’s limit', $person->firstName()),
                );
            } else {
                $order->awaitApproval();
                $asked = $order->buyer->asks($this->clock->now());
                $this->audit->note(
                    $person,
                    $order->number,
                    null === $asked ? 'Asked for approval' : sprintf('Asked %s for approval', $asked->name()),
                );
            }
        });
    }
}
