<?php

declare(strict_types=1);

namespace TallBarrel\Store\Business;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\Mapping as ORM;

/** The next number of a series of papers, such as purchase orders. */
#[ORM\Entity]
class NumberSeries
{
    public const ORDERS = 'PO';
    public const TRANSFERS = 'T';
    public const RECEIPTS = 'R';
    public const ROUNDS = 'Q';
    public const AGREEMENTS = 'A';

    public function __construct(
        #[ORM\Id, ORM\Column(length: 10)] public readonly string $name,
        #[ORM\Column] public readonly int $next,
    ) {
    }

    /** Takes the next number, inside the caller's transaction; a rolled-back one is given out again. */
    public static function take(Connection $connection, string $series): string
    {
        $connection->executeStatement(
            'INSERT INTO number_series (name, next) VALUES (?, 1002) ON DUPLICATE KEY UPDATE next = next + 1',
            [$series],
        );

        return $series.
            '-'.
            ((int) self::scalar($connection->fetchOne('SELECT next FROM number_series WHERE name = ?', [$series])) - 1);
    }

    private static function scalar(mixed $value): string
    {
        return is_scalar($value) ? (string) $value : '0';
    }
}
