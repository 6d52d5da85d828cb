<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** Where an invoice stands. */
enum InvoiceState: string
{
    /** Its lines may still be decided on. */
    case Entered = 'entered';
    /** What is owed is settled and may be paid. */
    case Settled = 'settled';
    case Paid = 'paid';
}
