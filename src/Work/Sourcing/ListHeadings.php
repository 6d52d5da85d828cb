<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

/** How the columns of a price list are headed, and what that seems to mean. */
final readonly class ListHeadings
{
    /**
     * @param array<string, string> $headings as they stand in the file, by heading in small letters
     * @param array<string, string> $mapping  our column by heading in small letters; empty for one that is left out
     * @param list<list<string>>    $first    cells of the first rows
     */
    public function __construct(public array $headings, public array $mapping, public array $first)
    {
    }
}
