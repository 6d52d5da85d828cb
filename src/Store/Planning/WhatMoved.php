<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Store\BulkInsert;

/** The notes of what changed since it was planned last, see PlanningRestsOnIt. */
final readonly class WhatMoved
{
    private const LOCK = 'what-moved';

    public function __construct(private Connection $connection)
    {
    }

    /**
     * For changes written in sets, within their transaction.
     *
     * @param list<int> $items
     */
    public function note(array $items): void
    {
        $rows = new BulkInsert($this->connection, 'moved_item', ['item_id']);
        foreach (array_unique($items) as $item) {
            $rows->add($item);
        }
        $rows->flush();
    }

    /**
     * What is bought in these currencies costs something else now.
     *
     * @param list<string> $currencies
     */
    public function noteCurrencies(array $currencies): void
    {
        $this->connection->executeStatement(
            'INSERT INTO moved_item (supplier_id) SELECT id FROM supplier WHERE currency IN (?)',
            [$currencies],
            [ArrayParameterType::STRING],
        );
    }

    public function noteEverything(): void
    {
        $this->connection->executeStatement('INSERT INTO moved_item (item_id) VALUES (NULL)');
    }

    /** The last note there is, to tell what came before from what comes after; 0 where there is none. */
    public function last(): int
    {
        $last = $this->connection->fetchOne('SELECT MAX(id) FROM moved_item');

        return is_numeric($last) ? (int) $last : 0;
    }

    /** Whether something concerns every item. */
    public function isEverything(): bool
    {
        return false !==
            $this->connection->fetchOne(
                'SELECT 1 FROM moved_item WHERE item_id IS NULL AND supplier_id IS NULL LIMIT 1',
            );
    }

    /** @return list<int> the items concerned by what was noted, at most so many */
    public function items(int $most): array
    {
        /** @var list<int> $items */
        $items = $this->connection->fetchFirstColumn(
            'SELECT item_id FROM moved_item WHERE item_id IS NOT NULL
             UNION SELECT o.item_id FROM moved_item m JOIN offer o ON o.supplier_id = m.supplier_id
             ORDER BY 1 LIMIT '.$most,
        );

        return $items;
    }

    /** How many items wait to be planned again. */
    public function count(): int
    {
        $count = $this->connection->fetchOne(
            'SELECT COUNT(*) FROM (SELECT item_id FROM moved_item WHERE item_id IS NOT NULL
             UNION SELECT o.item_id FROM moved_item m JOIN offer o ON o.supplier_id = m.supplier_id) moved',
        );

        return is_numeric($count) ? (int) $count : 0;
    }

    /**
     * Forgets the notes about some items up to one; a supplier's note is broken up into those of its items that remain.
     *
     * @param list<int> $items
     */
    public function forgetItems(array $items, int $last): void
    {
        $this->connection->executeStatement(
            'INSERT INTO moved_item (item_id) SELECT DISTINCT o.item_id FROM moved_item m
                JOIN offer o ON o.supplier_id = m.supplier_id
             WHERE m.id <= ? AND o.item_id NOT IN (?)',
            [$last, $items],
            [1 => ArrayParameterType::INTEGER],
        );
        $this->connection->executeStatement(
            'DELETE FROM moved_item WHERE id <= ? AND (item_id IN (?) OR supplier_id IS NOT NULL)',
            [$last, $items],
            [1 => ArrayParameterType::INTEGER],
        );
    }

    /**
     * Does something while nobody else does, on whatever machine.
     *
     * @param callable(): void $work
     *
     * @return bool whether it could
     */
    public function alone(callable $work): bool
    {
        $name = 'CONCAT(DATABASE(), ?)';
        if (1 !== (int) self::scalar($this->connection->fetchOne("SELECT GET_LOCK($name, 0)", [self::LOCK]))) {
            return false;
        }
        try {
            $work();
        } finally {
            $this->connection->executeQuery("SELECT RELEASE_LOCK($name)", [self::LOCK])->free();
        }

        return true;
    }

    private static function scalar(mixed $value): string
    {
        return is_scalar($value) ? (string) $value : '';
    }
}
