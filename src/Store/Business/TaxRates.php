<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Service\ResetInterface;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;

/** Rates of tax by name, as they hold today; read once a request. */
final class TaxRates implements ResetInterface
{
    /** @var array<string, Tax>|null by name in small letters */
    private ?array $today = null;

    public function __construct(private readonly Connection $connection, private readonly ClockInterface $clock)
    {
    }

    /** @return array<string, Tax> by name in small letters; only those that have begun */
    public function today(): array
    {
        return $this->today ??= $this->on($this->clock->now());
    }

    public function named(string $name): ?Tax
    {
        return $this->today()[mb_strtolower(trim($name))] ?? null;
    }

    /** @return array<string, Tax> by name in small letters */
    public function on(\DateTimeImmutable $day): array
    {
        /** @var list<array{name: string, category: string, percent: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT name, category, percent FROM tax_rate WHERE from_day <= ? ORDER BY from_day, id',
            [$day->format('Y-m-d')],
        );
        $rates = [];
        foreach ($rows as $row) {
            $rates[mb_strtolower($row['name'])] = Tax::of(TaxCategory::from($row['category']), $row['percent']);
        }

        return $rates;
    }

    public function reset(): void
    {
        $this->today = null;
    }
}
