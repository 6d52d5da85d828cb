<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\SentDocument;
use TallBarrel\Store\Person\Person;

/** Letters to a supplier about an order. */
interface OrderLetter
{
    /**
     * The order itself.
     *
     * @param list<SentDocument> $documents to go with it
     */
    public function send(PurchaseOrder $order, Person $sender, array $documents): void;

    /** Asks for one item of a sent order by an earlier day. */
    public function askForward(PurchaseOrder $order, Item $item, \DateTimeImmutable $by, Person $sender): void;
}
