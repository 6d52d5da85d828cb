<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** When to order, and how much. */
enum PolicyKind: string
{
    case OrderUpTo = 'order-up-to';
    case FixedQuantity = 'fixed-quantity';
    case Periodic = 'periodic';
    case MinMax = 'min-max';
    case Par = 'par';
    case CoverDays = 'cover-days';
    case CoverValue = 'cover-value';
    case LotForLot = 'lot-for-lot';
    case ByHand = 'by-hand';

    public function words(): string
    {
        return match ($this) {
            self::OrderUpTo => 'at the reorder point, up to an economic level',
            self::FixedQuantity => 'at the reorder point, a fixed quantity',
            self::Periodic => 'at every order day, up to a level',
            self::MinMax => 'under a minimum, up to a maximum',
            self::Par => 'always back up to par',
            self::CoverDays => 'cover for so many days',
            self::CoverValue => 'cover for so much expected sales',
            self::LotForLot => 'just what is needed until the next order',
            self::ByHand => 'only by hand',
        };
    }

    /** What the first figure of the policy means; null if it takes none. */
    public function amountWords(): ?string
    {
        return match ($this) {
            self::FixedQuantity => 'quantity; empty for the economic one',
            self::MinMax => 'maximum, stock units',
            self::Par => 'par level, stock units',
            self::CoverDays => 'days',
            self::CoverValue => 'sales value',
            default => null,
        };
    }

    public function needsAmount(): bool
    {
        return in_array($this, [self::MinMax, self::Par, self::CoverDays, self::CoverValue], true);
    }

    /** Whether it fills up to a level, beyond which nothing cheaper takes it unless that is allowed. */
    public function hasMaximum(): bool
    {
        return in_array($this, [self::MinMax, self::Par, self::OrderUpTo, self::Periodic], true);
    }

    /** Whether safety stock is kept for a service level. */
    public function aimsAtService(): bool
    {
        return !in_array($this, [self::MinMax, self::Par, self::ByHand], true);
    }
}
