<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** What is done about goods that are on an invoice and have not come. */
enum QuantityVerdict: string
{
    /** Only what came is paid. */
    case AsReceived = 'as-received';
    /** Only what came is paid, and the supplier is asked for a credit note. */
    case Credit = 'credit';
    /** The rest is on its way: all is paid. */
    case Awaited = 'awaited';
}
