<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

/** What may carry fields of the business's own. */
enum OwnFieldThing: string
{
    case Item = 'item';
    case Supplier = 'supplier';
    case Order = 'order';
    case Delivery = 'delivery';
}
