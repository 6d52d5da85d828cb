<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What was agreed beyond single offers. */
enum AgreedKind: string
{
    /** Percent, taken off what the offer asks after its own discounts. */
    case Discount = 'discount';
    /** The price of one stock unit, whatever the offer asks. */
    case Price = 'price';
}
