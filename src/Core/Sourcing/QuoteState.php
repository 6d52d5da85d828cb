<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

/** How far one supplier's quote has come. */
enum QuoteState: string
{
    case Asked = 'asked';
    case Answered = 'answered';
    case Declined = 'declined';
    case Won = 'won';
    case Lost = 'lost';

    /** Whether an answer may still be given or changed. */
    public function isOpen(): bool
    {
        return self::Won !== $this && self::Lost !== $this;
    }

    public function canBecome(self $next): bool
    {
        return match ($this) {
            self::Asked, self::Answered, self::Declined => self::Asked !== $next,
            self::Won, self::Lost => false,
        };
    }
}
