<?php

declare(strict_types=1);

namespace TallBarrel\Tests;

use PHPUnit\Framework\Assert;

/** A database as another process has it, outside the transaction that a test rolls back. */
final class AnotherConnection
{
    /** @param mixed $url as DATABASE_URL has it */
    public static function to(mixed $url): \PDO
    {
        Assert::assertIsString($url);
        $parts = parse_url($url);
        Assert::assertIsArray($parts);

        return new \PDO(
            sprintf('mysql:host=%s;port=%d;dbname=tallbarrel', $parts['host'] ?? '', $parts['port'] ?? 0),
            $parts['user'] ?? '',
            $parts['pass'] ?? '',
        );
    }
}
