<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use TallBarrel\Core\InvalidValue;

/**
 * How an item is called for short: any letters, digits, blanks and marks, as businesses have them. What an address of a
 * page cannot carry is refused: marks that are not seen, and parts that would lead elsewhere.
 */
final readonly class ItemCode
{
    public const LONGEST = 40;
    private const NAME_FOLLOWS = ' · ';

    private function __construct()
    {
    }

    /** The code in what a list of items offers, “JAR-340R · Round honey jar”, or in what was typed without one. */
    public static function chosen(string $typed): string
    {
        return trim(explode(self::NAME_FOLLOWS, $typed)[0]);
    }

    /** @throws InvalidValue */
    public static function read(string $typed): string
    {
        $code = trim($typed);
        if ('' === $code || mb_strlen($code) > self::LONGEST) {
            throw InvalidValue::because(
                sprintf(
                    '“%s” is no item code; expected 1 to %d letters, digits and marks.',
                    mb_substr($code, 0, 60),
                    self::LONGEST,
                ),
            );
        }
        if (!mb_check_encoding($code, 'UTF-8') || 1 === preg_match('/[\p{C}\p{Z}](?<! )/u', $code)) {
            throw InvalidValue::because(
                sprintf('“%s” holds a mark that cannot be seen.',
                    mb_scrub((string) preg_replace('/\p{C}/u', '?', $code))),
            );
        }
        if (str_contains($code, self::NAME_FOLLOWS)) {
            throw InvalidValue::because(sprintf('“%s” cannot be a code: a name follows after “ · ” in lists.', $code));
        }
        $parts = explode('/', $code);
        if (in_array('', $parts, true) || in_array('.', $parts, true) || in_array('..', $parts, true)) {
            throw InvalidValue::because(
                sprintf('“%s” cannot be a code: a slash stands between two parts that say something.', $code),
            );
        }
        if ('new' === mb_strtolower($code)) {
            throw InvalidValue::because('“new” cannot be a code: it is the name of a page.');
        }

        return $code;
    }
}
