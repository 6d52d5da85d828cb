<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Exchange\Rates\ReferenceRates;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\WhatMoved;

/** Exchange rates by day; a day brought again replaces the one there. */
final readonly class RateImport implements ImportKind
{
    public function __construct(
        private Connection $connection,
        private CurrentBusiness $business,
        private WhatMoved $moved,
    ) {
    }

    public function name(): string
    {
        return 'rates';
    }

    public function title(): string
    {
        return 'Exchange rates';
    }

    public function columns(): array
    {
        return [
            'currency' => 'ISO 4217, such as GBP *',
            'day' => 'in force from, as 2026-11-30 *',
            'rate' => 'how many of it one of ours buys *',
        ];
    }

    public function sample(): array
    {
        return [['GBP', '2026-11-20', '0.8620'], ['PLN', '2026-11-20', '4.2680']];
    }

    public function reader(): callable
    {
        $home = $this->business->get()->currency;
        $seen = [];

        return static function (Row $row) use ($home, &$seen): ?array {
            $rate = $row->decimal('rate', 8);
            $currency = strtoupper($row->required('currency'));
            $row->attempt('currency', static fn (): ExchangeRate => ExchangeRate::of($home, $currency, 1));
            if ($currency === $home) {
                $row->refuse('currency', 'our own currency needs no rate');
            }
            if (null !== $rate && !$rate->isPositive()) {
                $row->refuse('rate', 'not above zero');
            }
            $day = $row->day('day');
            foreach (['day', 'rate'] as $column) {
                if (!$row->has($column)) {
                    $row->refuse($column, 'missing');
                }
            }
            $key = $currency.':'.$day?->format('Ymd');
            if (isset($seen[$key])) {
                $row->refuse('day', sprintf('the same currency and day stand in line %d already', $seen[$key]));
            }
            $seen[$key] = $row->line;

            return $row->isGood() && null !== $day && $rate instanceof BigDecimal
                ? [$currency, $day->format('Y-m-d'), (string) $rate]
                : null;
        };
    }

    /**
     * The file itself, or, where it is the European Central Bank's file of reference rates, the same as one of ours.
     *
     * @throws InvalidValue if such a file cannot be read, or our own currency is not the euro
     */
    public function asCsv(string $file): string
    {
        if (!ReferenceRates::looksLikeOne((string) file_get_contents($file, length: 2000))) {
            return $file;
        }
        if ('EUR' !== $this->business->get()->currency) {
            throw InvalidValue::because(
                sprintf(
                    'These reference rates are for one EUR; ours are for one %s.',
                    $this->business->get()->currency,
                ),
            );
        }
        $lines = "currency,day,rate\n";
        foreach (ReferenceRates::read((string) file_get_contents($file)) as $day => $rates) {
            foreach ($rates as $currency => $rate) {
                $lines .= sprintf("%s,%s,%s\n", $currency, $day, $rate);
            }
        }
        $converted = $file.'.csv';
        file_put_contents($converted, $lines);

        return $converted;
    }

    public function all(): iterable
    {
        /** @var array{currency: string, day: string, rate: string} $row */
        foreach (
            $this->connection->iterateAssociative(
                'SELECT currency, day, foreign_for_one rate FROM exchange_rate ORDER BY day, currency',
            ) as $row
        ) {
            yield [$row['currency'], $row['day'], Cell::number($row['rate'])];
        }
    }

    public function apply(iterable $rows, Person $person): void
    {
        $rates = new BulkInsert(
            $this->connection,
            'exchange_rate',
            ['currency', 'day', 'foreign_for_one', 'source'],
            ' ON DUPLICATE KEY UPDATE foreign_for_one = VALUES(foreign_for_one), source = VALUES(source)',
        );
        $currencies = [];
        /** @var array{string, string, string} $row */
        foreach ($rows as $row) {
            $currencies[$row[0]] = true;
            $rates->add(...[...$row, 'file']);
        }
        $rates->flush();
        $this->moved->noteCurrencies(array_keys($currencies));
    }
}
