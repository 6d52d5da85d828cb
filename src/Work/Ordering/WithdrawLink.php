<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Refused;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Work\Keeping\AllOrNothing;

/**
 * A supplier's link that came into wrong hands is withdrawn: it leads nowhere any more. The next letter carries a new
 * one.
 */
final readonly class WithdrawLink
{
    public function __construct(private OrderStep $step, private AllOrNothing $whole, private Audit $audit)
    {
    }

    /** @throws Refused unless something is still to come */
    public function ofOrder(SeenOrder $seen, Person $person): PurchaseOrder
    {
        return $this->step->take($seen, function (PurchaseOrder $order) use ($person): void {
            $order->withdrawLink();
            $this->audit->note($person, $order->number, 'The supplier’s link was withdrawn');
        });
    }

    public function ofQuote(Quote $quote, Person $person): void
    {
        $this->whole->take(function () use ($quote, $person): void {
            $quote->withdrawLink();
            $this->audit->note($person, $quote->round->number, sprintf(
                'The link of %s was withdrawn',
                $quote->supplier->name(),
            ));
        });
    }
}
