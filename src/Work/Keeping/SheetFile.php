<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

/** A workbook with one sheet, to be taken away and opened elsewhere. */
interface SheetFile
{
    /** @param iterable<list<string>> $rows the first names the columns */
    public function sheet(string $name, iterable $rows): string;
}
