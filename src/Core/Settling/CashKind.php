<?php

declare(strict_types=1);

namespace TallBarrel\Core\Settling;

/** How certain it is that something will have to be paid, the most certain first. */
enum CashKind: string
{
    /** Settled, or entered and not yet settled; credit notes lessen it. */
    case Invoiced = 'invoiced';
    /** Received and on no invoice yet. */
    case Received = 'received';
    /** On an order that was sent. */
    case Ordered = 'ordered';

    public function words(): string
    {
        return match ($this) {
            self::Invoiced => 'on invoices',
            self::Received => 'received, no invoice yet',
            self::Ordered => 'on open orders',
        };
    }

    /** Whether it is owed already, whatever is still done. */
    public function isOwed(): bool
    {
        return self::Ordered !== $this;
    }
}
