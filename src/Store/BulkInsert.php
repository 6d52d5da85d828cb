<?php

declare(strict_types=1);

namespace TallBarrel\Store;

use Doctrine\DBAL\Connection;

/** Inserts many rows into one table, many at a time. Call flush() at the end. */
final class BulkInsert
{
    /** @var list<scalar|null> */
    private array $values = [];
    private int $rows = 0;
    /** @var list<self> */
    private array $parents = [];

    /** @param list<string> $columns */
    public function __construct(
        private readonly Connection $connection,
        private readonly string $table,
        private readonly array $columns,
        private readonly string $onDuplicate = '',
        private readonly int $atOnce = 1000,
    ) {
    }

    /** Rows here point at rows there: those are written first. */
    public function after(self ...$parents): self
    {
        $this->parents = array_values($parents);

        return $this;
    }

    /** @param scalar|null ...$row in the order of the columns */
    public function add(mixed ...$row): void
    {
        array_push($this->values, ...array_values($row));
        if ($this->atOnce === ++$this->rows) {
            $this->flush();
        }
    }

    public function flush(): void
    {
        if (0 === $this->rows) {
            return;
        }
        foreach ($this->parents as $parent) {
            $parent->flush();
        }
        $row = '('.implode(',', array_fill(0, count($this->columns), '?')).')';
        $this->connection->executeStatement(
            sprintf(
                'INSERT INTO %s (%s) VALUES %s%s',
                $this->table,
                implode(',', $this->columns),
                implode(',', array_fill(0, $this->rows, $row)),
                $this->onDuplicate,
            ),
            array_map(static fn (mixed $value): mixed => is_bool($value) ? (int) $value : $value, $this->values),
        );
        $this->values = [];
        $this->rows = 0;
    }
}
