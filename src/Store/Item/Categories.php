<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Kinds of items, as they are named on them. */
final readonly class Categories
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<string> */
    public function all(): array
    {
        /** @var list<string> $names */
        $names = $this->connection->fetchFirstColumn('SELECT DISTINCT category FROM item ORDER BY category');

        return $names;
    }
}
