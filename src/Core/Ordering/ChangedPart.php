<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What of a sent order a revision may change. */
enum ChangedPart: string
{
    case Goods = 'goods';
    case Quantity = 'quantity';
    case Price = 'price';
    case Charges = 'charges';
    case Day = 'day';
    case Words = 'words';

    public function words(): string
    {
        return match ($this) {
            self::Goods => 'other goods',
            self::Quantity => 'a quantity',
            self::Price => 'a price',
            self::Charges => 'charges and allowances',
            self::Day => 'a day',
            self::Words => 'the words to them',
        };
    }

    /** What holds until somebody says otherwise: money and goods within the limit, the rest freely. */
    public function usualRule(): YesRule
    {
        return match ($this) {
            self::Day, self::Words => YesRule::Never,
            default => YesRule::BeyondLimit,
        };
    }
}
