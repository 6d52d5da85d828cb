<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** Where a colleague's wish stands. */
enum RequisitionState: string
{
    case Asked = 'asked';
    case Ordered = 'ordered';
    case Quoted = 'quoted';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';

    public function words(): string
    {
        return match ($this) {
            self::Asked => 'waits for a buyer',
            self::Ordered => 'on an order',
            self::Quoted => 'quotes are asked for',
            self::Declined => 'no',
            self::Withdrawn => 'taken back',
        };
    }

    public function isDecided(): bool
    {
        return self::Asked !== $this;
    }
}
