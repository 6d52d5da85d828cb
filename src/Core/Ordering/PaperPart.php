<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** What may stand on a line of an order's paper beside what always does: description and quantity. */
enum PaperPart: string
{
    case TheirCode = 'their-code';
    case OurCode = 'our-code';
    case Gtin = 'gtin';
    case StockUnits = 'stock-units';
    case WantedDay = 'wanted-day';
    case Weight = 'weight';
    case CustomsNumber = 'customs-number';
    case Maker = 'maker';

    /** What stands there until somebody says otherwise. */
    public const USUAL = [self::TheirCode, self::OurCode];

    public function words(): string
    {
        return match ($this) {
            self::TheirCode => 'their item code, in a column',
            self::OurCode => 'our item code',
            self::Gtin => 'GTIN of one unit',
            self::StockUnits => 'how many stock units that is',
            self::WantedDay => 'the wanted day, on every line',
            self::Weight => 'weight',
            self::CustomsNumber => 'customs number and origin',
            self::Maker => 'who makes it',
        };
    }
}
