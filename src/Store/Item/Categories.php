<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Kinds of items: a tree of names. */
final readonly class Categories
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<string> by name */
    public function all(): array
    {
        /** @var list<string> $names */
        $names = $this->connection->fetchFirstColumn('SELECT name FROM category ORDER BY name');

        return $names;
    }

    /** A new name becomes a kind of its own. */
    public function know(string $name): void
    {
        if ('' !== $name) {
            $this->connection->executeStatement('INSERT IGNORE INTO category (name) VALUES (?)', [$name]);
        }
    }

    /** Every name that stands on an item becomes one. */
    public function knowAll(): void
    {
        $this->connection->executeStatement(
            "INSERT IGNORE INTO category (name) SELECT DISTINCT category FROM item WHERE category <> ''",
        );
    }

    /**
     * The tree, each under what it is part of.
     *
     * @return list<array{id: int, name: string, parent: int|null, depth: int, items: int}>
     */
    public function tree(): array
    {
        /** @var list<array{id: int, name: string, parent: int|null, depth: int, items: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "WITH RECURSIVE tree AS (
                SELECT id, name, parent_id, 0 depth, CAST(name AS CHAR(2000)) path FROM category WHERE parent_id IS NULL
                UNION ALL SELECT c.id, c.name, c.parent_id, t.depth + 1, CONCAT(t.path, ' / ', c.name)
                    FROM category c JOIN tree t ON t.id = c.parent_id
             )
             SELECT t.id, t.name, t.parent_id parent, t.depth, COUNT(i.id) items FROM tree t
             LEFT JOIN item i ON i.category = t.name AND i.archived_on IS NULL
             GROUP BY t.id, t.name, t.parent_id, t.depth, t.path ORDER BY t.path",
        );

        return $rows;
    }

    /** @return list<string> a name and all that is part of it */
    public function within(string $name): array
    {
        /** @var list<string> $names */
        $names = $this->connection->fetchFirstColumn(
            'WITH RECURSIVE part AS (SELECT id, name FROM category WHERE name = ?
                UNION ALL SELECT c.id, c.name FROM category c JOIN part p ON p.id = c.parent_id)
             SELECT name FROM part',
            [$name],
        );

        return [] === $names ? [$name] : $names;
    }
}
