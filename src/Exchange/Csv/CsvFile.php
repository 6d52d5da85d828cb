<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/** A CSV file after RFC 4180: UTF-8, comma or semicolon, the first line naming the columns. */
final readonly class CsvFile
{
    /** @param non-empty-list<string> $columns */
    private function __construct(private string $path, private string $delimiter, public array $columns)
    {
    }

    /** @throws InvalidValue if it is not such a file */
    public static function open(string $path): self
    {
        $head = (string) file_get_contents($path, length: 65536);
        if ('' === trim($head)) {
            throw InvalidValue::because('The file is empty.');
        }
        if (str_contains($head, "\0") || str_starts_with($head, 'PK') || str_starts_with($head, '%PDF')) {
            throw InvalidValue::because(
                'This is not a CSV file but something else (a spreadsheet or a PDF, perhaps). Save it as “CSV, '
                .'UTF-8” and bring that.',
            );
        }
        $first = strtok(str_starts_with($head, "\u{feff}") ? substr($head, 3) : $head, "\r\n");
        $delimiter = substr_count((string) $first, ';') > substr_count((string) $first, ',') ? ';' : ',';
        $columns = array_map(
            static fn (?string $name): string => strtolower(trim((string) $name)),
            str_getcsv((string) $first, $delimiter, '"', ''),
        );
        if (!mb_check_encoding((string) $first, 'UTF-8')) {
            throw InvalidValue::because('The file is not in UTF-8. Save it as “CSV, UTF-8” and bring that.');
        }

        return new self($path, $delimiter, [] === $columns ? [''] : $columns);
    }

    /** How its numbers are written, by what they themselves bear out. */
    public function numerals(): Numerals
    {
        $guess = Numerals::guessedFrom($this->cells());
        if (null !== $guess->mark || ',' !== $this->delimiter) {
            return $guess;
        }
        // Where commas divide the columns and no number holds one, points are decimal points.
        foreach ($this->cells() as $cell) {
            if (1 === preg_match('/^[\d.\s]*,[\d.,\s]*$/', $cell)) {
                return $guess;
            }
        }

        return Numerals::with(Numerals::POINT);
    }

    /** @return iterable<string> those with a mark in them */
    private function cells(): iterable
    {
        foreach ($this->rows() as $row) {
            foreach ($row as $cell) {
                if (str_contains($cell, ',') || str_contains($cell, '.')) {
                    yield $cell;
                }
            }
        }
    }

    /**
     * @return iterable<int, array<string, string>> values by column, by line of the file; a short or long line is
     *      filled or cut, and named in "\0"
     */
    public function rows(): iterable
    {
        $file = fopen($this->path, 'r') ?: throw new \RuntimeException('The file cannot be read.');
        $width = count($this->columns);
        $line = 0;
        try {
            while (false !== ($values = fgetcsv($file, null, $this->delimiter, '"', ''))) {
                if (1 === ++$line || [null] === $values) {
                    continue;
                }
                $problem =
                    count($values) === $width
                        ? ''
                        : sprintf('%d values in a line of %d columns', count($values), $width);
                $row = array_combine(
                    $this->columns,
                    array_map(
                        CsvTable::meant(...),
                        array_pad(array_slice($values, 0, $width), $width, ''),
                    ),
                );
                if ('' === $problem && !mb_check_encoding(implode('', $row), 'UTF-8')) {
                    $problem = 'letters that are not UTF-8';
                    $row = array_map(static fn (string $value): string => mb_scrub($value, 'UTF-8'), $row);
                }
                yield $line => '' === $problem ? $row : $row + ["\0" => $problem];
            }
        } finally {
            fclose($file);
        }
    }
}
