<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use TallBarrel\Exchange\Csv\CsvFile;
use TallBarrel\Exchange\Csv\CsvTable;

/** RFC 4180; OWASP, "CSV Injection". */
final class CsvTableTest extends TestCase
{
    private const CELLS = ['=1+1', '+44 20', '@home', '-stand, "tall"', "two\nlines", '-12.5', 'é', '’tis'];

    public function testAFormulaIsMadeHarmlessAndANumberKeepsItsSign(): void
    {
        $text = (new CsvTable())->write([['a', 'b', 'c'], ['=1+1', '-12.5', '@home']]);
        self::assertSame("a,b,c\r\n'=1+1,-12.5,'@home\r\n", $text);
    }

    public function testWhatWasWrittenIsReadBackAsItWas(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'csv');
        $columns = array_map(static fn (int $i): string => 'c'.$i, array_keys(self::CELLS));
        file_put_contents($file, (new CsvTable())->write([$columns, self::CELLS]));
        $rows = iterator_to_array((static fn () => yield from CsvFile::open($file)->rows())(), false);
        unlink($file);
        self::assertSame([self::CELLS], array_map(array_values(...), $rows));
    }
}
