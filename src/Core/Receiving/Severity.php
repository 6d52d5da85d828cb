<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/** How strictly samples are judged, by how what came before was found. */
enum Severity: string
{
    case Normal = 'normal';
    case Tightened = 'tightened';
    case Reduced = 'reduced';

    public function words(): string
    {
        return match ($this) {
            self::Normal => 'as usual',
            self::Tightened => 'tightened: two of five were refused',
            self::Reduced => 'reduced: long found good',
        };
    }
}
