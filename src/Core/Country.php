<?php

declare(strict_types=1);

namespace TallBarrel\Core;

/** A country by its two letters (ISO 3166-1 alpha-2), as ICU knows them. */
final readonly class Country
{
    private function __construct()
    {
    }

    /** @throws InvalidValue if there is none of these letters */
    public static function read(string $letters): string
    {
        $code = strtoupper(trim($letters));
        if (
            1 !== preg_match('/^[A-Z]{2}$/', $code)
            || in_array($code, ['ZZ', 'EU', 'UN', 'EZ', 'XA', 'XB'], true)
            || \Locale::getDisplayRegion('-'.$code, 'en') === $code
        ) {
            throw InvalidValue::because(sprintf('“%s” is no country; expected two letters, such as IE.', $letters));
        }

        return $code;
    }

    public static function name(string $code): string
    {
        return '' === $code ? '' : (string) \Locale::getDisplayRegion('-'.$code, 'en');
    }
}
