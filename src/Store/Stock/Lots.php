<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Receiving\LotFacts;

/** The lots there are. What was said last of a lot counts; saying nothing leaves what is known. */
final readonly class Lots
{
    public function __construct(private Connection $connection)
    {
    }

    public function know(int $item, LotFacts $lot): void
    {
        if ('' === $lot->number) {
            return;
        }
        $this->connection->executeStatement(
            "INSERT INTO lot (item_id, number, expires_on, made_on, origin) VALUES (?, ?, ?, ?, ?)
             ON DUPLICATE KEY UPDATE expires_on = COALESCE(VALUES(expires_on), expires_on),
                made_on = COALESCE(VALUES(made_on), made_on), origin = IF(VALUES(origin) = '', origin, VALUES(origin))",
            [
                $item, $lot->number, $lot->expiresOn?->format('Y-m-d'), $lot->madeOn?->format('Y-m-d'), $lot->origin,
            ],
        );
    }

    /** Whether it came before, and until when it may be used is known. */
    public function isKnown(int $item, string $number): bool
    {
        return false !== $this->connection->fetchOne(
            'SELECT 1 FROM lot WHERE item_id = ? AND number = ? AND expires_on IS NOT NULL',
            [$item, $number],
        );
    }

    /** @return array<string, string> until when its lots may be used, where that is known, as Y-m-d by number */
    public function ends(int $item): array
    {
        /** @var array<string, string> $ends */
        $ends = $this->connection->fetchAllKeyValue(
            'SELECT number, expires_on FROM lot WHERE item_id = ? AND expires_on IS NOT NULL',
            [$item],
        );

        return $ends;
    }

    /** Until when a lot may be used, as Y-m-d; null where nobody said. */
    public function endOf(int $item, string $lot): ?string
    {
        $end = $this->connection->fetchOne(
            'SELECT expires_on FROM lot WHERE item_id = ? AND number = ?',
            [$item, $lot],
        );

        return is_string($end) ? $end : null;
    }

    /** @return array<array-key, string> stock units of the lots that stand somewhere, by number; so many at most */
    public function standing(int $item, int $most): array
    {
        /** @var array<array-key, string> $units */
        $units = $this->connection->fetchAllKeyValue(
            "SELECT lot, SUM(quantity) FROM stock_balance WHERE item_id = ? AND lot <> '' GROUP BY lot
             HAVING SUM(quantity) > 0 ORDER BY lot LIMIT $most",
            [$item],
        );

        return $units;
    }
}
