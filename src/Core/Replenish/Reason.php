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
    case Covered = 'covered';

    public function words(): string
    {
        return match ($this) {
            self::Rush => 'rush: promised, not there',
            self::Out => 'nothing left',
            self::BelowSafetyStock => 'below safety stock',
            self::BelowReorderPoint => 'below reorder point',
            self::Covered => 'covered',
        };
    }

    public function urgency(): int
    {
        return match ($this) {
            self::Rush => 0,
            self::Out => 1,
            self::BelowSafetyStock => 2,
            self::BelowReorderPoint => 3,
            self::Covered => 4,
        };
    }

    public function isShort(): bool
    {
        return $this->urgency() <= 2;
    }
}
