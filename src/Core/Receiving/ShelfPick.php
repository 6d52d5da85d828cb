<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** Which of what stands on the shelves is counted. */
enum ShelfPick: string
{
    case All = 'all';
    /** By the rhythm of its class. */
    case Due = 'due';
    /** Below zero, or put right lately: what was wrong once is wrong again. */
    case Doubted = 'doubted';

    public const LATELY = 60;

    public function words(): string
    {
        return match ($this) {
            self::All => 'everything',
            self::Due => 'what is due again',
            self::Doubted => 'what is doubted',
        };
    }
}
