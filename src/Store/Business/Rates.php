<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Refused;

/** The exchange rates in force. */
final readonly class Rates
{
    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /**
     * The latest rate up to a day.
     *
     * @throws Refused if there is none
     */
    public function on(string $currency, \DateTimeImmutable $day): ExchangeRate
    {
        return $this->allOn($day)[$currency]
            ?? throw new Refused(sprintf('There is no exchange rate for %s on or before %s.', $currency, $day->format('j M Y')));
    }

    /** @return array<string, ExchangeRate> by currency, the home currency among them */
    public function allOn(\DateTimeImmutable $day): array
    {
        $home = $this->business->get()->currency;
        $rates = [$home => ExchangeRate::of($home, $home, 1)];
        /** @var array<string, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT r.currency, r.foreign_for_one FROM exchange_rate r
             JOIN (SELECT currency, MAX(day) day FROM exchange_rate WHERE day <= ? GROUP BY currency) latest USING (currency, day)',
            [$day->format('Y-m-d')],
        );
        foreach ($rows as $currency => $rate) {
            $rates[$currency] = ExchangeRate::of($home, $currency, $rate);
        }

        return $rates;
    }
}
