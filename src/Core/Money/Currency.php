<?php

declare(strict_types=1);

namespace TallBarrel\Core\Money;

use TallBarrel\Core\InvalidValue;

/** A currency by its ISO 4217 code. The number of decimals (its minor unit) comes from ICU. */
final readonly class Currency
{
    /** @param int<0, max> $decimals */
    private function __construct(public string $code, public int $decimals)
    {
    }

    /** @throws InvalidValue if ICU knows no such currency */
    public static function of(string $code): self
    {
        /** @var array<string, self> $known */
        static $known = [];
        $code = strtoupper(trim($code));

        return $known[$code] ??= self::load($code);
    }

    private static function load(string $code): self
    {
        $bundle = \ResourceBundle::create('en', 'ICUDATA-curr', true);
        $names = $bundle?->get('Currencies');
        if (
            1 !== preg_match('/^[A-Z]{3}$/', $code)
            || !($names instanceof \ResourceBundle)
            || null === $names->get($code)
        ) {
            throw InvalidValue::because(
                sprintf('“%s” is not a currency; expected an ISO 4217 code such as EUR.', $code),
            );
        }

        return new self(
            $code,
            max(
                0,
                (int) numfmt_get_attribute(
                    new \NumberFormatter('en@currency='.$code, \NumberFormatter::CURRENCY),
                    \NumberFormatter::FRACTION_DIGITS,
                ),
            ),
        );
    }
}
