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
    /** What it costs us to take goods in; nobody bills it. */
    case Handling = 'handling';
    case Other = 'other';

    /** Whether somebody will ask to be paid for it. */
    public function isBilled(): bool
    {
        return self::Handling !== $this;
    }

    public function words(): string
    {
        return self::Other === $this ? 'another charge' : $this->value;
    }
}
