<?php

declare(strict_types=1);

namespace TallBarrel\Core\Quantity;

use TallBarrel\Core\InvalidValue;

/**
 * A Global Trade Item Number of 8, 12, 13 or 14 digits, kept as 14 with leading zeros.
 *
 * Check digit: GS1 General Specifications, section 7.9, "Check digit calculations".
 */
final readonly class Gtin
{
    private function __construct(public string $digits)
    {
    }

    /** @throws InvalidValue if the length or the check digit is wrong */
    public static function of(string $digits): self
    {
        $digits = str_replace([' ', '-'], '', trim($digits));
        if (1 !== preg_match('/^(\d{8}|\d{12}|\d{13}|\d{14})$/', $digits)) {
            throw InvalidValue::because(sprintf('“%s” is not a GTIN; expected 8, 12, 13 or 14 digits.', $digits));
        }
        $expected = self::checkDigit(substr($digits, 0, -1));
        if ((int) substr($digits, -1) !== $expected) {
            throw InvalidValue::because(
                sprintf(
                    'GTIN “%s” ends in %s, but its check digit is %d; one digit is mistyped.',
                    $digits,
                    substr($digits, -1),
                    $expected,
                ),
            );
        }

        return new self(str_pad($digits, 14, '0', \STR_PAD_LEFT));
    }

    public static function tryOf(string $digits): ?self
    {
        try {
            return self::of($digits);
        } catch (InvalidValue) {
            return null;
        }
    }

    /** @param string $body the digits before the check digit */
    public static function checkDigit(string $body): int
    {
        $sum = 0;
        foreach (str_split(strrev($body)) as $i => $digit) {
            $sum += (int) $digit * (0 === $i % 2 ? 3 : 1);
        }

        return (10 - ($sum % 10)) % 10;
    }

    /** As printed under the bars: 13 digits unless the first of the 14 says otherwise. */
    public function short(): string
    {
        return str_starts_with($this->digits, '0') ? substr($this->digits, 1) : $this->digits;
    }
}
