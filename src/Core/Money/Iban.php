<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use TallBarrel\Core\InvalidValue;

/**
 * An international bank account number. Source: ISO 13616-1, the two check digits by mod 97-10 of ISO 7064; how long it
 * is in a country is from the registry kept with that standard (from memory, for the countries named here).
 */
final readonly class Iban
{
    private const LENGTHS = [
        'AD' => 24, 'AT' => 20, 'BE' => 16, 'BG' => 22, 'CH' => 21, 'CY' => 28, 'CZ' => 24, 'DE' => 22, 'DK' => 18,
        'EE' => 20, 'ES' => 24, 'FI' => 18, 'FR' => 27, 'GB' => 22, 'GI' => 23, 'GR' => 27, 'HR' => 21, 'HU' => 28,
        'IE' => 22, 'IS' => 26, 'IT' => 27, 'LI' => 21, 'LT' => 20, 'LU' => 20, 'LV' => 21, 'MC' => 27, 'MT' => 31,
        'NL' => 18, 'NO' => 15, 'PL' => 28, 'PT' => 25, 'RO' => 24, 'SE' => 24, 'SI' => 19, 'SK' => 24, 'SM' => 27,
    ];
    private const GROUP = 4;

    private function __construct(public string $digits)
    {
    }

    /** @throws InvalidValue if its characters, length or check digits cannot be */
    public static function of(string $typed): self
    {
        $plain = strtoupper((string) preg_replace('/[\s.-]+/', '', $typed));
        if (1 !== preg_match('/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/', $plain)) {
            throw InvalidValue::because(
                sprintf('“%s” is no IBAN; expected two letters, two digits and 11 to 30 more.', $typed),
            );
        }
        $long = self::LENGTHS[substr($plain, 0, 2)] ?? strlen($plain);
        if (strlen($plain) !== $long) {
            throw InvalidValue::because(sprintf(
                '“%s” has %d characters; an IBAN of %s has %d.',
                $typed,
                strlen($plain),
                substr($plain, 0, 2),
                $long,
            ));
        }
        if (1 !== self::remainder($plain)) {
            throw InvalidValue::because(
                sprintf('“%s”: the check digits do not fit; look at each digit again.', $typed),
            );
        }

        return new self($plain);
    }

    /** Letters as 10 to 35, the first four at the end, and what is left of dividing by 97. */
    private static function remainder(string $plain): int
    {
        $left = 0;
        foreach (str_split(substr($plain, self::GROUP).substr($plain, 0, self::GROUP)) as $one) {
            $value = ctype_digit($one) ? (int) $one : ord($one) - 55;
            $left = ($left * ($value > 9 ? 100 : 10) + $value) % 97;
        }

        return $left;
    }

    /** In groups of four, as people read it. */
    public function readable(): string
    {
        return implode(' ', str_split($this->digits, self::GROUP));
    }

    /**
     * A bank's identifier by ISO 9362, where one is typed.
     *
     * @return string empty for none
     *
     * @throws InvalidValue
     */
    public static function bank(string $typed): string
    {
        $plain = strtoupper(trim($typed));
        if ('' !== $plain && 1 !== preg_match('/^[A-Z0-9]{4}[A-Z]{2}[A-Z0-9]{2}([A-Z0-9]{3})?$/', $plain)) {
            throw InvalidValue::because(sprintf('“%s” is no BIC; expected 8 or 11 letters and digits.', $typed));
        }

        return $plain;
    }
}
