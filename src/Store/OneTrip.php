<?php

declare(strict_types=1);

namespace TallBarrel\Store;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;

/** Several small questions put to the database in one query; each is answered by rows of text, in its own order. */
final class OneTrip
{
    /** @var array<string, list<string>> names of the columns, by question */
    private array $columns = [];
    /** @var list<string> */
    private array $selects = [];
    /** @var list<string|int|null> */
    private array $values = [];

    /**
     * @param list<string>          $columns what $sql selects
     * @param string                $order   of the rows, by these columns
     * @param list<string|int|null> $values  for the question marks in $sql
     */
    public function ask(string $question, array $columns, string $order, string $sql, array $values = []): self
    {
        $texts = array_map(static fn (string $column): string => "CAST(q.`$column` AS CHAR)", $columns);
        $this->columns[$question] = $columns;
        $this->selects[] = sprintf(
            "SELECT '%s' question, ROW_NUMBER() OVER (ORDER BY %s) nth,
                CONVERT(JSON_ARRAY(%s) USING utf8mb4) answer FROM (%s) q",
            $question,
            $order,
            implode(', ', $texts),
            $sql,
        );
        array_push($this->values, ...$values);

        return $this;
    }

    /** @return array<string, list<array<string, string|null>>> rows by question, by column */
    public function answers(Connection $connection): array
    {
        $answers = array_fill_keys(array_keys($this->columns), []);
        /** @var list<array{question: string, nth: int, answer: string}> $rows */
        $rows = [] === $this->selects
            ? []
            : $connection->fetchAllAssociative(
                implode(' UNION ALL ', $this->selects).' ORDER BY question, nth',
                $this->values,
                // A number among texts would keep the database from using an index.
                array_map(
                    static fn (string|int|null $value): ParameterType => is_int($value)
                        ? ParameterType::INTEGER
                        : ParameterType::STRING,
                    $this->values,
                ),
            );
        foreach ($rows as $row) {
            /** @var list<string|null> $fields */
            $fields = json_decode($row['answer'], true, flags: \JSON_THROW_ON_ERROR);
            $answers[$row['question']][] = array_combine($this->columns[$row['question']], $fields);
        }

        return $answers;
    }
}
