<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;

/** Letters to a supplier about an order. */
interface OrderLetter
{
    /** The order itself, with its paper. */
    public function send(PurchaseOrder $order, Person $sender, string $pdf): void;

    /** Asks for one item of a sent order by an earlier day. */
    public function askForward(PurchaseOrder $order, Item $item, \DateTimeImmutable $by, Person $sender): void;
}
