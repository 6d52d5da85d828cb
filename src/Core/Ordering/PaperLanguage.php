<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

/** Languages in which orders go out; the values are ISO 639-1 codes. */
enum PaperLanguage: string
{
    case English = 'en';
    case German = 'de';
    case French = 'fr';
    case Polish = 'pl';

    /** The language's name for itself. */
    public function words(): string
    {
        return match ($this) {
            self::English => 'English',
            self::German => 'Deutsch',
            self::French => 'français',
            self::Polish => 'polski',
        };
    }
}
