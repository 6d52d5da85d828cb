<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

/** Something that a role may do or see. */
enum Right: string
{
    case Buy = 'ROLE_BUY';
    case Receive = 'ROLE_RECEIVE';
    case Import = 'ROLE_IMPORT';
    case Invoice = 'ROLE_INVOICE';
    case Decide = 'ROLE_DECIDE';
    case Release = 'ROLE_RELEASE';
    case Costs = 'ROLE_COSTS';
    case Approve = 'ROLE_APPROVE';

    public function words(): string
    {
        return match ($this) {
            self::Buy => 'plan, keep items and suppliers, order within their limit',
            self::Receive => 'count and book in deliveries, move stock',
            self::Import => 'bring and take away files',
            self::Invoice => 'type suppliers’ invoices',
            self::Decide => 'decide what differs on an invoice',
            self::Release => 'settle invoices and note what is paid',
            self::Costs => 'see costs, prices and margins',
            self::Approve => 'approve orders of others, and set all this',
        };
    }

    /** Whether it makes no sense without seeing what things cost. */
    public function needsCosts(): bool
    {
        return !in_array($this, [self::Receive, self::Costs], true);
    }

    /** The last one is the owner's alone. */
    public function canBeGiven(): bool
    {
        return self::Approve !== $this;
    }
}
