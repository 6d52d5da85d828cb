<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Rates;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Currency;

/**
 * The European Central Bank's file of euro reference rates, as XML (its daily and ninety-day files) or CSV (its
 * historical file): units of a currency for one euro, by day.
 */
final readonly class ReferenceRates
{
    /**
     * @return array<string, array<string, string>> by day and currency
     *
     * @throws InvalidValue naming what cannot be read
     */
    public static function read(string $text): array
    {
        return str_starts_with(ltrim($text, "\u{feff} \r\n\t"), '<') ? self::xml($text) : self::csv($text);
    }

    public static function looksLikeOne(string $text): bool
    {
        $head = ltrim(substr($text, 0, 2000), "\u{feff} \r\n\t");

        return str_contains($head, 'eurofxref')
            || str_contains($head, 'Cube')
            || 1 === preg_match('/^Date\s*,\s*[A-Z]{3}\s*,/', $head);
    }

    /** @return array<string, array<string, string>> */
    private static function xml(string $text): array
    {
        $document = new \DOMDocument();
        $before = libxml_use_internal_errors(true);
        $good = '' !== $text && $document->loadXML($text, \LIBXML_NONET);
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        if (!$good) {
            throw InvalidValue::because('This is not a file of reference rates: its XML is broken.');
        }
        $rates = [];
        foreach ((new \DOMXPath($document))->query('//*[local-name()="Cube" and @time]') ?: [] as $day) {
            if (!$day instanceof \DOMElement) {
                continue;
            }
            foreach ($day->getElementsByTagName('*') as $cube) {
                if ($cube->hasAttribute('currency')) {
                    self::add(
                        $rates,
                        $day->getAttribute('time'),
                        $cube->getAttribute('currency'),
                        $cube->getAttribute('rate'),
                    );
                }
            }
        }

        return [] === $rates ? throw InvalidValue::because('This file of reference rates has no rates in it.') : $rates;
    }

    /** @return array<string, array<string, string>> */
    private static function csv(string $text): array
    {
        $lines = preg_split('/\r\n|\n|\r/', trim($text)) ?: [];
        $columns = array_map(
            static fn (?string $value): string => trim((string) $value),
            str_getcsv((string) array_shift($lines), ',', '"', ''),
        );
        if ('Date' !== ltrim($columns[0] ?? '', "\u{feff}")) {
            throw InvalidValue::because('This is not a file of reference rates: its first column is not “Date”.');
        }
        $rates = [];
        foreach ($lines as $line) {
            $values = array_map(
                static fn (?string $value): string => trim((string) $value),
                str_getcsv($line, ',', '"', ''),
            );
            foreach (array_slice($columns, 1, preserve_keys: true) as $i => $currency) {
                if ('' !== $currency && '' !== ($values[$i] ?? '') && 'N/A' !== $values[$i]) {
                    self::add($rates, $values[0] ?? '', $currency, $values[$i]);
                }
            }
        }

        return [] === $rates ? throw InvalidValue::because('This file of reference rates has no rates in it.') : $rates;
    }

    /** @param array<string, array<string, string>> $rates */
    private static function add(array &$rates, string $day, string $currency, string $rate): void
    {
        $date =
            \DateTimeImmutable::createFromFormat('!Y-m-d', $day) ?:
            \DateTimeImmutable::createFromFormat('!j F Y', $day);
        if (false === $date || 1 !== preg_match('/^\d{1,7}(\.\d{1,8})?$/', $rate) || 0.0 === (float) $rate) {
            throw InvalidValue::because(
                sprintf('The rate of %s on “%s” is “%s”; expected a day and a rate above 0.', $currency, $day, $rate),
            );
        }
        try {
            $rates[$date->format('Y-m-d')][Currency::of($currency)->code] = $rate;
        } catch (InvalidValue) {
            // A currency that is no more: nobody buys in it.
        }
    }
}
