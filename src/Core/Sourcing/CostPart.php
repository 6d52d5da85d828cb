<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** What a landed cost is made of. */
enum CostPart: string
{
    case Price = 'price';
    case Freight = 'freight';
    case Duty = 'duty';
    case Currency = 'currency';
    case Terms = 'terms';
    case Holding = 'holding';
    case Late = 'late';

    public function words(): string
    {
        return match ($this) {
            self::Price => 'Price',
            self::Freight => 'Freight share',
            self::Duty => 'Duty',
            self::Currency => 'Exchange charge',
            self::Terms => 'Paying later or less',
            self::Holding => 'Holding until sold',
            self::Late => 'Being late',
        };
    }
}
