<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** By what a charge is shared out. */
enum SpreadBasis: string
{
    case Value = 'value';
    case Weight = 'weight';
    case Volume = 'volume';
    case Quantity = 'quantity';
    case Typed = 'typed';

    public function words(): string
    {
        return match ($this) {
            self::Value => 'by value',
            self::Weight => 'by weight',
            self::Volume => 'by volume',
            self::Quantity => 'by quantity',
            self::Typed => 'as typed',
        };
    }
}
