<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

/**
 * A table that somebody brings, the first line naming its columns: a CSV file after RFC 4180 in whatever letters and
 * with whatever between its cells, or a sheet of a workbook. What is not in UTF-8 is written anew beside it, once.
 */
final readonly class CsvFile
{
    private const MOST_COLUMNS = 200;
    private const LONGEST_CELL = 10_000;
    private const AT_ONCE = 1_048_576;

    /**
     * @param non-empty-list<string> $headings as they stand in the file
     * @param list<string>           $columns  what each of them means to us; "" for one that is left out
     */
    private function __construct(
        private string $path,
        public FileLayout $layout,
        public array $headings,
        public array $columns,
    ) {
    }

    /**
     * @param array<string, string> $chosen  how it is written, where somebody said so; see FileLayout
     * @param array<string, string> $mapping our column by their heading in small letters; others stand for themselves
     *
     * @throws InvalidValue if it is no such file
     */
    public static function open(string $path, array $chosen = [], array $mapping = []): self
    {
        $layout = FileLayout::of($path, $chosen);
        $plain = $layout->isPlain($path) ? $path : self::plain($path, $layout);
        $head = (string) file_get_contents($plain, length: 65536);
        $first = strtok(str_starts_with($head, "\u{feff}") ? substr($head, 3) : $head, "\r\n");
        $headings = array_map(
            static fn (?string $name): string => CsvTable::meant(mb_scrub((string) $name)),
            str_getcsv((string) $first, $layout->delimiter, '"', ''),
        );
        if (count($headings) > self::MOST_COLUMNS) {
            throw InvalidValue::because(
                sprintf('The file has %d columns; at most %d are read.', count($headings), self::MOST_COLUMNS),
            );
        }
        $columns = array_map(static fn (string $heading): string => $mapping[self::key($heading)]
            ?? self::key($heading), $headings);

        return new self($plain, $layout, [] === $headings ? [''] : $headings, $columns);
    }

    /**
     * Reads what came as bytes; nothing of it is left on the disk.
     *
     * @template T
     *
     * @param callable(self): T $read
     *
     * @return T
     *
     * @throws InvalidValue if it is no such file
     */
    public static function ofBytes(string $bytes, callable $read): mixed
    {
        $path = tempnam(sys_get_temp_dir(), 'table') ?: throw new \RuntimeException('There is no room for the file.');
        try {
            file_put_contents($path, $bytes);

            return $read(self::open($path));
        } finally {
            array_map(unlink(...), array_filter([$path, self::besides($path)], is_file(...)));
        }
    }

    /** A heading as it is remembered. */
    public static function key(string $heading): string
    {
        return mb_strtolower(trim($heading));
    }

    /** What was written beside a file when it was read. */
    public static function besides(string $path): string
    {
        return $path.'.plain';
    }

    /** How its numbers are written, by what they themselves bear out. */
    public function numerals(): Numerals
    {
        if ('' !== $this->layout->sheet) {
            return Numerals::with(Numerals::POINT);
        }
        $guess = Numerals::guessedFrom($this->cells());
        if (null !== $guess->mark || ',' !== $this->layout->delimiter) {
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
     * @return iterable<int, array<string, string>> values by our columns, by line of the file; a short or long line is
     *      filled or cut, and named in "\0"
     */
    public function rows(): iterable
    {
        foreach ($this->lines() as $line => [$values, $problem]) {
            $row = [];
            foreach ($this->columns as $i => $column) {
                if ('' !== $column) {
                    $row[$column] ??= $values[$i];
                }
            }
            yield $line => '' === $problem ? $row : $row + ["\0" => $problem];
        }
    }

    /** @return iterable<int, array{list<string>, string}> all cells as they stand, and what is wrong with the line */
    public function lines(): iterable
    {
        $file = fopen($this->path, 'r') ?: throw new \RuntimeException('The file cannot be read.');
        $width = count($this->headings);
        $line = 0;
        try {
            while (false !== ($values = fgetcsv($file, null, $this->layout->delimiter, '"', ''))) {
                if (1 === ++$line || [null] === $values) {
                    continue;
                }
                $problem =
                    count($values) === $width
                        ? ''
                        : sprintf('%d values in a line of %d columns', count($values), $width);
                $cells = array_map(
                    CsvTable::meant(...),
                    array_pad(array_slice($values, 0, $width), $width, ''),
                );
                if ('' === $problem && !mb_check_encoding(implode('', $cells), 'UTF-8')) {
                    $problem = 'letters that are not UTF-8';
                    $cells = array_map(static fn (string $value): string => mb_scrub($value, 'UTF-8'), $cells);
                }
                foreach ($cells as $i => $cell) {
                    if (strlen($cell) > self::LONGEST_CELL) {
                        $problem = sprintf('a cell of %d characters; at most %d are read', mb_strlen($cell),
                            self::LONGEST_CELL);
                        $cells[$i] = mb_strcut($cell, 0, self::LONGEST_CELL);
                    }
                }
                yield $line => [$cells, $problem];
            }
        } finally {
            fclose($file);
        }
    }

    /** The same in UTF-8, with the delimiter that was found. */
    private static function plain(string $path, FileLayout $layout): string
    {
        $plain = self::besides($path);
        $part = $plain.'.part';
        $to = fopen($part, 'w') ?: throw new \RuntimeException('There is no room for the file.');
        if ('' !== $layout->sheet) {
            $width = null;
            $next = 1;
            foreach (Workbook::open($path)->rows($layout->sheet) as $number => $cells) {
                $width ??= count($cells);
                // Lines are named by the numbers the sheet shows; what stands above its headings counts as the first.
                while ($next > 1 && $next < $number && $number - $next < 1000) {
                    fwrite($to, "\r\n");
                    ++$next;
                }
                fputcsv($to, array_pad($cells, $width, ''), $layout->delimiter, '"', '', "\r\n");
                $next = $next > 1 ? $number + 1 : 2;
            }
        } else {
            $from = fopen($path, 'r') ?: throw new \RuntimeException('The file cannot be read.');
            $first = true;
            while (!feof($from)) {
                $bytes = (string) fread($from, self::AT_ONCE);
                fwrite($to, FileLayout::inUtf8($bytes, $layout->encoding, $first));
                $first = false;
            }
            fclose($from);
        }
        fclose($to);
        rename($part, $plain);

        return $plain;
    }
}
