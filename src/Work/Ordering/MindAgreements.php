<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;

/** Asks before an order draws too much or too little on an agreement, and remembers who said yes to that. */
final readonly class MindAgreements
{
    public function __construct(private Agreements $agreements, private Audit $audit, private ClockInterface $clock)
    {
    }

    /** @throws Refused if it would, and nobody said yes to that */
    public function of(PurchaseOrder $order, Person $person, bool $drawAnyway): void
    {
        $objections = $this->agreements->objections($order->lines(), $this->clock->now());
        if ([] === $objections) {
            return;
        }
        if (!$drawAnyway) {
            throw new Refused(implode(' ', $objections).' Tick “draw it anyway” if that is meant.');
        }
        $this->audit->note($person, $order->number, 'Drawn anyway: '.implode(' ', $objections));
    }
}
