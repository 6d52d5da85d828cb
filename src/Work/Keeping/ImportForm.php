<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** What a kind of import asks for. */
final readonly class ImportForm
{
    /**
     * @param array<string, string> $columns what stands in each column; a star marks those that are needed
     * @param list<list<string>>    $sample  a few lines as they could be
     */
    public function __construct(
        public string $name,
        public string $title,
        public array $columns,
        public array $sample,
    ) {
    }

    /** What could stand in a column: the first sample line that says something. */
    public function example(int $column): string
    {
        foreach ($this->sample as $line) {
            if ('' !== ($line[$column] ?? '')) {
                return $line[$column];
            }
        }

        return '';
    }
}
