<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** What was paid beside the goods themselves and belongs to their cost. */
enum ChargeKind: string
{
    case Freight = 'freight';
    case Duty = 'duty';
    case Brokerage = 'brokerage';
    case Insurance = 'insurance';
    case Packing = 'packing';
    case Other = 'other';

    public function words(): string
    {
        return self::Other === $this ? 'another charge' : $this->value;
    }
}
