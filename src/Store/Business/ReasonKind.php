<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

/** What a reason is given for. */
enum ReasonKind: string
{
    case Adjustment = 'adjustment';
    case GoodsBack = 'return';

    public function words(): string
    {
        return match ($this) {
            self::Adjustment => 'when stock is put right, held back or scrapped',
            self::GoodsBack => 'when goods go back to a supplier',
        };
    }
}
