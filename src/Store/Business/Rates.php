<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Refused;
use TallBarrel\Store\OfToday;
use TallBarrel\Store\Planning\WhatMoved;

/** The exchange rates in force. */
final class Rates implements ResetInterface
{
    /** @var array<string, array<string, array{rate: string, day: string, source: string}>> by day, read once */
    private array $read = [];

    public function __construct(
        private readonly Connection $connection,
        private readonly CurrentBusiness $business,
        private readonly WhatMoved $moved,
        private readonly OfToday $today,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * The latest rate up to a day.
     *
     * @throws Refused if there is none
     */
    public function on(string $currency, \DateTimeImmutable $day): ExchangeRate
    {
        return $this->allOn($day)[$currency] ??
            throw new Refused(
                sprintf('There is no exchange rate for %s on or before %s.', $currency, $day->format('j M Y')),
            );
    }

    /**
     * @param array<string, array<string, string>> $rates by day and currency
     *
     * @return int how many were new or changed
     */
    public function take(array $rates, string $source): int
    {
        $this->reset();
        $taken = 0;
        foreach ($rates as $day => $byCurrency) {
            foreach ($byCurrency as $currency => $rate) {
                $taken += (int) $this->connection->executeStatement(
                    'INSERT INTO exchange_rate (currency, day, foreign_for_one, source) VALUES (?, ?, ?, ?)
                        ON DUPLICATE KEY UPDATE source = IF(foreign_for_one = VALUES(foreign_for_one), source,
                        VALUES(source)), foreign_for_one = VALUES(foreign_for_one)',
                    [$currency, $day, $rate, $source],
                );
            }
        }

        if ($taken > 0) {
            $this->moved->noteCurrencies(array_keys(array_merge(...array_values($rates))));
        }

        return $taken;
    }

    /** @return array<string, array{rates: array<string, string>, source: string}> by day, latest first */
    public function history(\DateTimeImmutable $since): array
    {
        /** @var list<array{currency: string, day: string, rate: string, source: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT currency, day, foreign_for_one rate, source FROM exchange_rate WHERE day >= ?
                ORDER BY day DESC, currency',
            [$since->format('Y-m-d')],
        );
        $history = [];
        foreach ($rows as $row) {
            $history[$row['day']]['rates'][$row['currency']] = $row['rate'];
            $history[$row['day']]['source'] = $row['source'];
        }

        return $history;
    }

    /**
     * @return array<string, array{rate: string, day: string, source: string}> what is in force on a day and since when,
     *      by foreign currency
     */
    public function daysOn(\DateTimeImmutable $day): array
    {
        $asked = $day->format('Y-m-d');
        if (!isset($this->read[$asked])) {
            $this->read($asked, $this->clock->now());
        }

        return $this->read[$asked];
    }

    private function read(string $day, \DateTimeImmutable $now): void
    {
        $today = $now->format('Y-m-d');
        $this->read[$day] = [];
        if ($day === $today) {
            // Who asks for today's is likely to ask for yesterday's.
            $this->read[$now->modify('-1 day')->format('Y-m-d')] = [];
        }
        /** @var list<array{asked: string, currency: string, rate: string, day: string, source: string}> $rows */
        $rows =
            $day === $today
                ? $this->today->read(OfToday::RATES)
                : $this->connection->fetchAllAssociative(OfToday::LATEST_RATES, [$day, $day]);
        foreach ($rows as $row) {
            $this->read[$row['asked']][$row['currency']] = [
                'rate' => $row['rate'],
                'day' => $row['day'],
                'source' => $row['source'],
            ];
        }
    }

    /** @return array<string, ExchangeRate> by currency, the home currency among them */
    public function allOn(\DateTimeImmutable $day): array
    {
        $home = $this->business->get()->currency;
        $rates = [$home => ExchangeRate::of($home, $home, 1)];
        foreach ($this->daysOn($day) as $currency => $found) {
            $rates[$currency] = ExchangeRate::of($home, $currency, $found['rate']);
        }

        return $rates;
    }

    /** A worker sees what changed since its last message. */
    public function reset(): void
    {
        $this->read = [];
        $this->today->reset();
    }
}
