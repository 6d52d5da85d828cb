<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Site\Site;

/** Figures that every page shows and that take long to find: kept until something changes, for a minute at most. */
final readonly class KeptFigures
{
    private const SECONDS = 60;

    public function __construct(private Connection $connection)
    {
    }

    /** The name of the count of what stands on Today, at a site or at all of them. */
    public static function today(?Site $site, \DateTimeImmutable $now): string
    {
        return sprintf('today-%d-%s', $site->id ?? 0, $now->format('Ymd'));
    }

    public function keep(string $name, int $figure, \DateTimeImmutable $now): void
    {
        $this->connection->executeStatement(
            'INSERT INTO kept_figure (name, figure, until) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE figure =
                VALUES(figure), until = VALUES(until)',
            [$name, $figure, $now->getTimestamp() + self::SECONDS],
        );
    }

    /** Something changed: all of them are found anew when they are asked for next. */
    public function forget(): void
    {
        $this->connection->executeStatement('DELETE FROM kept_figure');
    }
}
