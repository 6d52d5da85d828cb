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

    /** @return array<string, string> names of tax rates as they are spelt, by their name in small letters */
    public function taxes(): array
    {
        /** @var array<string, string> $names */
        $names = $this->connection->fetchAllKeyValue('SELECT LOWER(name), name FROM tax_rate');

        return $names;
    }

    /**
     * What stands in a column tax_rate; null where nothing does.
     *
     * @param array<string, string> $taxes as taxes() gives them
     */
    public static function taxName(Row $row, array $taxes): ?string
    {
        if (!$row->has('tax_rate')) {
            return null;
        }
        $name = $taxes[mb_strtolower($row->text('tax_rate', 30))] ?? null;
        if (null === $name) {
            $row->refuse('tax_rate', 'no tax rate has this name; add it under “Tax rates” first');
        }

        return $name;
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
