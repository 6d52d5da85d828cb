<?php

declare(strict_types=1);

namespace TallBarrel\Store\Person;

/** What a key does on every page; the value is the letter that does it with Alt. */
enum KeyAct: string
{
    case Find = 'f';
    case Help = 'h';
    case Go = 'g';
    case New = 'n';
    case Rows = 'l';
    case Why = 'w';
    case Skip = 'x';

    public function words(): string
    {
        return match ($this) {
            self::Find => 'Find anything',
            self::Help => 'Show the keys',
            self::Go => 'Go to a stage: this, then its letter',
            self::New => 'Begin an order',
            self::Rows => 'To the first quantity of a list',
            self::Why => 'To the why of the row, and back',
            self::Skip => 'Put the row off',
        };
    }

    /** The key that does it alone, for those who have chosen nothing; empty for none. */
    public function usual(): string
    {
        return match ($this) {
            self::Find => '/',
            self::Help => '?',
            default => '',
        };
    }
}
