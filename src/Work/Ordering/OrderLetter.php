<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\OrderAnswer;
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
    public function send(PurchaseOrder $order, Person $sender, array $documents, LetterWords $words): void;

    /** The words it goes out with unless somebody changes them; with LetterWords::LINK for the address of its page. */
    public function usual(PurchaseOrder $order, Person $sender): string;

    /**
     * A revision of it, saying what is different.
     *
     * @param list<SentDocument> $documents to go with it
     */
    public function revised(PurchaseOrder $order, Person $sender, array $documents, RevisionChange $change): void;

    /** That it is no longer wanted, and why. */
    public function cancelled(PurchaseOrder $order, string $reason, Person $sender): void;

    /** Our yes or no to what they answered. */
    public function decided(OrderAnswer $answer, string $words, Person $sender): void;

    /**
     * Where it is.
     *
     * @param int $before how often it was asked before
     */
    public function askWhere(PurchaseOrder $order, int $before, Person $sender): void;

    /** Asks for one item of a sent order by an earlier day. */
    public function askForward(PurchaseOrder $order, Item $item, \DateTimeImmutable $by, Person $sender): void;
}
