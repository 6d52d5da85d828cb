<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** A table to be taken away and opened elsewhere. */
interface TableFile
{
    /**
     * @param iterable<list<string>> $rows      the first names the columns
     * @param string                 $delimiter what lies between two cells
     */
    public function write(iterable $rows, string $delimiter = ','): string;
}
