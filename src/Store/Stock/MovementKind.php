<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

/** What moved the stock. */
enum MovementKind: string
{
    case Opening = 'opening';
    case Receipt = 'receipt';
    /** The opposite of a receipt that was booked by mistake. */
    case ReceiptBack = 'receipt-back';
    case Sale = 'sale';
    case Use = 'use';
    case Count = 'count';
    case Transfer = 'transfer';
    /** Of an item that stood twice. */
    case Joined = 'joined';
    /** Freight, duty or the like: no units, and its cost is what each unit that was there costs more from now on. */
    case Charge = 'charge';
    /** Counted in another unit from now on; its cost is the average in that unit. */
    case Unit = 'unit';
    /** Put right to what is there in truth. */
    case Adjusted = 'adjusted';
    case Scrapped = 'scrapped';
    /** From one state to another: looked at, held back, set free. */
    case Inspected = 'inspected';
    /** Sent back to the supplier, at the cost it came with. */
    case Returned = 'returned';

    public function words(): string
    {
        return match ($this) {
            self::Opening => 'opening stock',
            self::Receipt => 'received',
            self::ReceiptBack => 'receipt taken back',
            self::Sale => 'sold',
            self::Use => 'used',
            self::Count => 'counted',
            self::Transfer => 'moved between sites',
            self::Joined => 'joined with its double',
            self::Charge => 'charge spread on it',
            self::Unit => 'counted in another unit',
            self::Adjusted => 'put right',
            self::Scrapped => 'scrapped',
            self::Inspected => 'changed its state',
            self::Returned => 'sent back',
        };
    }
}
