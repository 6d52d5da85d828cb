<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What a line of the sum stands for. Amounts are stock units unless it says packs. */
enum Term: string
{
    /** With lead and review, in days. */
    case ForecastUntilNext = 'forecast-until-next';
    /** With lead and cover in days, and the basis of the cover. */
    case ForecastOverCover = 'forecast-over-cover';
    /** With target and level of the service, and the spread of the delivery in days. */
    case SafetyStock = 'safety-stock';
    case ParLevel = 'par-level';
    /** With the minimum under which it is ordered. */
    case Maximum = 'maximum';
    case ByHand = 'by-hand';
    /** With name and day. */
    case Planned = 'planned';
    case OnHand = 'on-hand';
    case OnOrder = 'on-order';
    case Promised = 'promised';
    /** The total: what is ordered if it is due, what could be, or how much more there is than wanted. */
    case Needed = 'needed';
    case CouldFillUp = 'could-fill-up';
    case MoreThanWanted = 'more-than-wanted';
    /** With the lot. */
    case InLots = 'in-lots';
    /** With percent and day of the price rise. */
    case BoughtAhead = 'bought-ahead';
    /** What is left out, with the days the item keeps. */
    case SellsInTime = 'sells-in-time';
    /** Packs, with name and content of the pack, and how many it would be exactly. */
    case InPacks = 'in-packs';
    /** Packs, with name and content of the pack, the stock units from which the lower price holds, what it saves and
     *  what holding the surplus costs, in the home currency. */
    case UpToBreak = 'up-to-break';

    public function isTotal(): bool
    {
        return in_array($this, [self::Needed, self::CouldFillUp, self::MoreThanWanted], true);
    }

    public function isInPacks(): bool
    {
        return self::InPacks === $this || self::UpToBreak === $this;
    }
}
