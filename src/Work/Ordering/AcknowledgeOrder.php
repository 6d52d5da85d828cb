<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** The supplier's yes, with its day. */
final readonly class AcknowledgeOrder
{
    public function __construct(private OrderStep $step, private Audit $audit, private ClockInterface $clock)
    {
    }

    /** @throws Refused */
    public function acknowledge(SeenOrder $seen, Person $person, \DateTimeImmutable $promised): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person, $promised): void {
            $order->acknowledge($promised, $this->clock->now());
            $this->audit->note($person, $order->number, 'Acknowledged for '.$promised->format('D j M Y'));
        });
    }
}
