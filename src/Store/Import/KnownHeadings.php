<?php

declare(strict_types=1);

namespace TallBarrel\Store\Import;

use Doctrine\DBAL\Connection;

/** What people said that headings of other people's files mean, by the kind of file. */
final readonly class KnownHeadings
{
    private const LONGEST = 80;

    public function __construct(private Connection $connection)
    {
    }

    /** The kind of a supplier's price lists: each supplier heads its columns in its own way. */
    public static function pricesOf(int $supplier): string
    {
        return 'prices '.$supplier;
    }

    /** @return array<string, string> our column by heading in small letters; empty where it was left out */
    public function of(string $kind): array
    {
        /** @var array<string, string> $known */
        $known = $this->connection->fetchAllKeyValue(
            'SELECT heading, meaning FROM known_heading WHERE kind = ?',
            [$kind],
        );

        return $known;
    }

    /** @param array<string, string> $mapping our column by heading in small letters */
    public function remember(string $kind, array $mapping): void
    {
        foreach ($mapping as $heading => $column) {
            if (mb_strlen($heading) <= self::LONGEST && $heading !== $column) {
                $this->connection->executeStatement(
                    'INSERT INTO known_heading (kind, heading, meaning) VALUES (?, ?, ?)
                     ON DUPLICATE KEY UPDATE meaning = VALUES(meaning)',
                    [$kind, $heading, $column],
                );
            }
        }
    }
}
