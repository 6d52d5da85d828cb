<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** The yes of somebody whose limit reaches, or the no with its reason. */
final readonly class ApproveOrder
{
    public function __construct(private OrderStep $step, private Audit $audit, private Approval $approval)
    {
    }

    /** @throws Refused */
    public function approve(SeenOrder $seen, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person): void {
            $this->approval->give($order, $person);
            $this->audit->note($person, $order->number, 'Approved');
        });
    }

    /** @throws Refused */
    public function sendBack(SeenOrder $seen, Person $person, string $reason): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $reason): void {
            $order->backToDraft();
            $this->audit->note($person, $order->number, '' === $reason ? 'Back to draft' : 'Back to draft: '.$reason);
        });
    }
}
