<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** What is done about a price that is higher than agreed. */
enum PriceVerdict: string
{
    /** The agreed price is paid. */
    case AsAgreed = 'as-agreed';
    /** The agreed price is paid, and the supplier is asked for a credit note. */
    case Credit = 'credit';
    /** The asked price is paid, and is the standing price from now on. */
    case Accepted = 'accepted';
}
