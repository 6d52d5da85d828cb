<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** How a file that was brought is to be read, where somebody says so; null or nothing to leave it as it is. */
final readonly class FileReading
{
    /**
     * @param string|null                       $mark    decimal mark of its numbers
     * @param array<string, string>             $layout  encoding, delimiter, sheet
     * @param array<string, string>|null        $mapping our column by their heading; "" for one that is left out
     * @param array<int, array<string, string>> $mended  cells put right, by line and our column
     */
    public function __construct(
        public ?string $mark = null,
        public array $layout = [],
        public ?array $mapping = null,
        public array $mended = [],
    ) {
    }
}
