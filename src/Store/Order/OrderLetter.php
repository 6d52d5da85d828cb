<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use TallBarrel\Store\Person\Person;

/** Takes an order to its supplier. */
interface OrderLetter
{
    public function send(PurchaseOrder $order, Person $sender, string $pdf): void;
}
