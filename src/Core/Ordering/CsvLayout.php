<?php

declare(strict_types=1);

namespace TallBarrel\Core\Ordering;

use TallBarrel\Core\InvalidValue;

/** How a supplier's system takes the lines of an order: which columns, under which headings, and what lies between. */
final readonly class CsvLayout
{
    public const COLUMNS = [
        'order', 'line', 'your_code', 'our_code', 'description', 'quantity', 'pack', 'price', 'currency', 'deliver_to',
        'wanted_on',
    ];
    public const DELIMITERS = [',', ';', "\t"];
    private const NUMBER = '{order}';

    /**
     * @param array<string, string> $columns  headings by column, in their order
     * @param string                $filename with {order} where the number stands
     */
    private function __construct(public array $columns, public string $delimiter, private string $filename)
    {
    }

    public static function usual(): self
    {
        return new self(array_combine(self::COLUMNS, self::COLUMNS), ',', self::NUMBER);
    }

    /**
     * @param string $columns  one a line, such as "your_code = ArtNr"; without a heading its own name; empty for all
     * @param string $filename without its ending, such as "PO_{order}"; empty for the number alone
     *
     * @throws InvalidValue if there is no such column, or one stands twice, or the delimiter or file name cannot be
     */
    public static function read(string $columns, string $delimiter, string $filename): self
    {
        $headings = [];
        foreach (preg_split('/\R+/', trim($columns), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $row) {
            $parts = array_map(trim(...), explode('=', $row, 2));
            if (!in_array($parts[0], self::COLUMNS, true)) {
                throw InvalidValue::because(
                    sprintf('“%s” is no column of an order; there are: %s.', $parts[0], implode(', ', self::COLUMNS)),
                );
            }
            if (isset($headings[$parts[0]])) {
                throw InvalidValue::because(sprintf('“%s” stands twice.', $parts[0]));
            }
            $headings[$parts[0]] = $parts[1] ?? $parts[0];
        }
        if (!in_array($delimiter, self::DELIMITERS, true)) {
            throw InvalidValue::because(
                sprintf('“%s” cannot stand between columns; expected a comma, a semicolon or a tabulator.', $delimiter),
            );
        }
        $filename = trim($filename);
        if (1 !== preg_match('/^[\w .{}-]*$/', $filename)) {
            throw InvalidValue::because(
                sprintf('“%s” cannot be a file name; letters, digits, spaces, points and - _ can.', $filename),
            );
        }

        return new self(
            [] === $headings ? self::usual()->columns : $headings,
            $delimiter,
            '' === $filename ? self::NUMBER : $filename,
        );
    }

    /**
     * @param array<string, string> $row by column
     *
     * @return list<string> in the order of the columns
     */
    public function cells(array $row): array
    {
        return array_map(static fn (string $column): string => $row[$column] ?? '', array_keys($this->columns));
    }

    /** @return list<string> */
    public function headings(): array
    {
        return array_values($this->columns);
    }

    public function filename(string $number): string
    {
        return str_replace(self::NUMBER, $number, $this->filename).'.csv';
    }
}
