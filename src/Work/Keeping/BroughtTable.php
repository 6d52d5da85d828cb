<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** A file that was brought, before it is read row by row. */
final readonly class BroughtTable
{
    /**
     * @param array<string, string> $headings  as they stand in the file, by the same in small letters
     * @param list<string>          $sheets    there are, of a workbook
     * @param list<string>          $missing   columns that are needed and that none of them means
     * @param list<list<string>>    $first     the first rows as they stand
     * @param list<string>          $encodings to choose from
     */
    public function __construct(
        public array $headings,
        public string $encoding,
        public string $delimiter,
        public string $sheet,
        public array $sheets,
        public array $missing,
        public array $first,
        public array $encodings,
    ) {
    }
}
