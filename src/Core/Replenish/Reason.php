<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** Why an item is proposed, most urgent first. */
enum Reason: string
{
    case Rush = 'rush';
    case Out = 'out';
    case BelowSafetyStock = 'below-safety-stock';
    case BelowReorderPoint = 'below-reorder-point';
    case BelowMinimum = 'below-minimum';
    case Planned = 'planned';
    case PriceRise = 'price-rise';
    case Asked = 'asked';
    case FillsOrder = 'fills-order';
    case Covered = 'covered';

    public function words(): string
    {
        return match ($this) {
            self::Rush => 'rush: promised, not there',
            self::Out => 'nothing left',
            self::BelowSafetyStock => 'below safety stock',
            self::BelowReorderPoint => 'below reorder point',
            self::BelowMinimum => 'below its minimum',
            self::Planned => 'for planned demand',
            self::PriceRise => 'before the price rises',
            self::Asked => 'asked for',
            self::FillsOrder => 'fills the order',
            self::Covered => 'covered',
        };
    }

    public function urgency(): int
    {
        return match ($this) {
            self::Rush => 0,
            self::Out => 1,
            self::BelowSafetyStock => 2,
            self::BelowReorderPoint, self::BelowMinimum, self::Planned => 3,
            self::PriceRise => 4,
            self::Asked => 5,
            self::FillsOrder => 6,
            self::Covered => 7,
        };
    }

    public function isShort(): bool
    {
        return $this->urgency() <= 2;
    }
}
