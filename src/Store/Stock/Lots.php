<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;

/** The lots there are. What was said last of a lot's expiry counts; saying nothing leaves what is known. */
final readonly class Lots
{
    public function __construct(private Connection $connection)
    {
    }

    /** @param \DateTimeImmutable|null $expiresOn null where it was not said */
    public function know(int $item, string $number, ?\DateTimeImmutable $expiresOn): void
    {
        if ('' === $number) {
            return;
        }
        $this->connection->executeStatement(
            'INSERT INTO lot (item_id, number, expires_on) VALUES (?, ?, ?)
             ON DUPLICATE KEY UPDATE expires_on = COALESCE(VALUES(expires_on), expires_on)',
            [$item, $number, $expiresOn?->format('Y-m-d')],
        );
    }
}
