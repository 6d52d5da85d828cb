<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Csv;

use TallBarrel\Work\Keeping\TableFile;

/**
 * A CSV file after RFC 4180. A text that a spreadsheet would take for a formula has an apostrophe before it (OWASP,
 * "CSV
 * Injection"); a number keeps its sign.
 */
final readonly class CsvTable implements TableFile
{
    public function write(iterable $rows, string $delimiter = ','): string
    {
        $file = fopen('php://temp', 'r+') ?: throw new \RuntimeException('No memory for a file.');
        foreach ($rows as $row) {
            fputcsv($file, array_map(self::harmless(...), $row), $delimiter, '"', '', "\r\n");
        }

        return (string) stream_get_contents($file, -1, 0);
    }

    private static function harmless(string $cell): string
    {
        return 1 === preg_match('/^[=+\-@\t\r]/', $cell) && !is_numeric($cell) ? "'".$cell : $cell;
    }

    /** What stands in a cell that may have been written so. */
    public static function meant(?string $cell): string
    {
        return (string) preg_replace("/^'(?=[=+\\-@\\t\\r])/", '', trim((string) $cell));
    }
}
