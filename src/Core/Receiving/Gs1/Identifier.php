<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving\Gs1;

/**
 * An application identifier: what follows it, and how long that is.
 *
 * Source: GS1 General Specifications, section 3.2, "GS1 Application Identifiers in numerical order"; which of them have
 * a fixed length and need no separator behind them: section 7.8.5, figure "Element strings with predefined length".
 */
final readonly class Identifier
{
    /** Those at a dock, by their digits; the fourth digit of 310 to 316 says how many places are behind the point. */
    private const KNOWN = [
        '00' => ['n', 18, true], '01' => ['n', 14, true], '02' => ['n', 14, true], '10' => ['x', 20, false],
        '11' => ['n', 6, true], '12' => ['n', 6, true], '13' => ['n', 6, true], '15' => ['n', 6, true],
        '16' => ['n', 6, true], '17' => ['n', 6, true], '20' => ['n', 2, true], '21' => ['x', 20, false],
        '22' => ['x', 20, false], '30' => ['n', 8, false], '37' => ['n', 8, false], '240' => ['x', 30, false],
        '241' => ['x', 30, false], '250' => ['x', 30, false], '251' => ['x', 30, false], '400' => ['x', 30, false],
        '401' => ['x', 30, false], '402' => ['n', 17, false], '403' => ['x', 30, false], '410' => ['n', 13, true],
        '411' => ['n', 13, true], '412' => ['n', 13, true], '413' => ['n', 13, true], '414' => ['n', 13, true],
        '420' => ['x', 20, false], '422' => ['n', 3, false], '90' => ['x', 30, false],
    ];

    private function __construct(public string $digits, public string $kind, public int $length, public bool $isFixed)
    {
    }

    /** The one a text begins with; null for none that is read here. */
    public static function at(string $text): ?self
    {
        if (1 === preg_match('/^(31[0-6]|32\d|33\d|34\d|35\d|36\d)(\d)/', $text, $found)) {
            return new self($found[1].$found[2], 'n', 6, true);
        }
        if (1 === preg_match('/^9[1-9]/', $text, $found)) {
            return new self($found[0], 'x', 90, false);
        }
        foreach ([2, 3] as $long) {
            $digits = substr($text, 0, $long);
            if (isset(self::KNOWN[$digits])) {
                return new self($digits, ...self::KNOWN[$digits]);
            }
        }

        return null;
    }
}
