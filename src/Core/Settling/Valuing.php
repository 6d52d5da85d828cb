<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/**
 * How the cost of what is in stock is reckoned (IAS 2 “Inventories”, paragraphs 25 and 27): by the moving average of
 * all that came, or first in, first out, so that what is there is what came last, of each lot.
 */
enum Valuing: string
{
    case Average = 'average';
    case Fifo = 'fifo';

    public function words(): string
    {
        return match ($this) {
            self::Average => 'at average cost',
            self::Fifo => 'first in, first out, by lot',
        };
    }
}
