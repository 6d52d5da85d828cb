<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Why an order lasts as long as it does. */
enum CoverBasis: string
{
    case AsAsked = 'as-asked';
    case ForSalesValue = 'for-sales-value';
    case UntilNextOrder = 'until-next-order';
    case NothingSells = 'nothing-sells';
    case CheapestOverSeason = 'cheapest-over-season';
    case EconomicQuantity = 'economic-quantity';
    case ReachesBreak = 'reaches-break';
}
