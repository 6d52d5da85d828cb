<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** Where a purchase order stands, and where it may go from there. */
enum OrderState: string
{
    case Draft = 'draft';
    case AwaitingApproval = 'awaiting-approval';
    case Approved = 'approved';
    case Sent = 'sent';
    case Acknowledged = 'acknowledged';
    case PartReceived = 'part-received';
    case Received = 'received';
    case Closed = 'closed';
    case Cancelled = 'cancelled';

    public function words(): string
    {
        return str_replace('-', ' ', $this->value);
    }

    public function canBecome(self $next): bool
    {
        return in_array(
            $next,
            match ($this) {
                self::Draft => [self::AwaitingApproval, self::Approved, self::Cancelled],
                self::AwaitingApproval => [self::Approved, self::Draft, self::Cancelled],
                self::Approved => [self::Sent, self::Draft, self::Cancelled],
                self::Sent => [self::Acknowledged, self::PartReceived, self::Received, self::Closed, self::Cancelled],
                self::Acknowledged => [
                    self::Sent,
                    self::PartReceived,
                    self::Received,
                    self::Closed,
                    self::Cancelled,
                ],
                // What went back to come once more is expected again.
                self::PartReceived => [
                    self::PartReceived, self::Received, self::Closed, self::Sent, self::Acknowledged,
                ],
                self::Received => [self::Closed, self::PartReceived, self::Sent, self::Acknowledged],
                self::Closed => [self::Sent, self::Acknowledged, self::PartReceived],
                self::Cancelled => [self::Draft, self::Sent, self::Acknowledged],
            },
            true,
        );
    }

    /** Lines, supplier and prices may still change. */
    public function isEditable(): bool
    {
        return self::Draft === $this;
    }

    /** Not with the supplier yet. */
    public function isUnsent(): bool
    {
        return in_array($this, [self::Draft, self::AwaitingApproval, self::Approved], true);
    }

    /** Promised by us to the supplier, and not all here yet. */
    public function isOpen(): bool
    {
        return in_array($this, [self::Sent, self::Acknowledged, self::PartReceived], true);
    }

    /** Nothing more is to be done with it. */
    public function isSettled(): bool
    {
        return in_array($this, [self::Received, self::Closed, self::Cancelled], true);
    }

    /** @return list<string> */
    public static function openValues(): array
    {
        return array_values(
            array_map(
                static fn (self $state): string => $state->value,
                array_filter(self::cases(), static fn (self $state): bool => $state->isOpen()),
            ),
        );
    }
}
