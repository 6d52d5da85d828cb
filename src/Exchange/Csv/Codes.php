<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Quantity\Unit;

/** Ids by code, looked up in one go. */
final readonly class Codes
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array<string, int> */
    public function items(): array
    {
        return $this->of('SELECT UPPER(code), id FROM item');
    }

    /** @return array<string, int> */
    public function sites(): array
    {
        return $this->of('SELECT UPPER(code), id FROM site');
    }

    /** @return array<string, int> */
    public function suppliers(): array
    {
        return $this->of('SELECT UPPER(code), id FROM supplier');
    }

    /** @return array<string, int> by email address */
    public function people(): array
    {
        return $this->of('SELECT LOWER(email), id FROM person');
    }

    /** @return array<int, Unit> stock unit by item */
    public function units(): array
    {
        /** @var array<int, string> $units */
        $units = $this->connection->fetchAllKeyValue('SELECT id, unit FROM item');

        return array_map(Unit::from(...), $units);
    }

    /** @return array<string, int> */
    private function of(string $query): array
    {
        /** @var array<string, int> $codes */
        $codes = $this->connection->fetchAllKeyValue($query);

        return $codes;
    }
}
