<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use Doctrine\DBAL\Connection;

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

    /** @return array<string, int> */
    private function of(string $query): array
    {
        /** @var array<string, int> $codes */
        $codes = $this->connection->fetchAllKeyValue($query);

        return $codes;
    }
}
