<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Ends an order before all of it came: cancelled while nothing has, its rest given up afterwards. */
final readonly class EndOrder
{
    public function __construct(private OrderStep $step, private Audit $audit)
    {
    }

    /** @throws Refused if something has been received */
    public function cancel(SeenOrder $seen, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person): void {
            $order->cancel();
            $this->audit->note($person, $order->number, 'Cancelled');
        });
    }

    /** @throws Refused if nothing is outstanding */
    public function closeShort(SeenOrder $seen, Person $person, string $agreedWith): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $agreedWith): void {
            $order->closeShort();
            $words = 'What was outstanding is closed'.('' === $agreedWith ? '' : ', agreed with '.$agreedWith);
            $this->audit->note($person, $order->number, $words);
        });
    }
}
