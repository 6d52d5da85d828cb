<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Ordering\PastedLine;
use TallBarrel\Core\Ordering\PastedLines;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Quantity\Numerals;

final class PastedLinesTest extends TestCase
{
    /** @return iterable<string, array{string, string}> what is pasted, and the decimal mark */
    public static function dividers(): iterable
    {
        yield 'from a spreadsheet' => ["JAR-340H\t12\t9.30\t2026-12-07\tFERRY\n\nLID-63\t4", '.'];
        yield 'semicolons and a decimal comma' => ["JAR-340H; 12; 9,30; 2026-12-07; FERRY\r\n\r\nLID-63;4", ','];
        yield 'commas' => ["\"JAR-340H\",12,9.30,2026-12-07,FERRY\n\nLID-63,4\n", '.'];
    }

    #[DataProvider('dividers')]
    public function testARowIsACodePacksAndWhatElseIsSaid(string $text, string $mark): void
    {
        $problems = new Problems();
        $lines = PastedLines::read($text, Numerals::with($mark), $problems)->lines;
        self::assertTrue($problems->areNone(), implode(' ', $problems->all()));
        self::assertSame(
            [[1, 'JAR-340H', '12', '9.3', '2026-12-07', 'FERRY'], [3, 'LID-63', '4', null, null, null]],
            array_map(
                static fn (PastedLine $line): array => [
                    $line->row,
                    $line->code,
                    (string) $line->packs,
                    $line->price?->__toString(),
                    $line->day?->format('Y-m-d'),
                    $line->site,
                ],
                $lines,
            ),
        );
    }

    /** @return iterable<string, array{string, string}> a row, and what is said of it */
    public static function badRows(): iterable
    {
        yield 'no packs' => ['JAR-340H;', 'It needs a code and how many packs.'];
        yield 'no code' => [';4', 'It needs a code and how many packs.'];
        yield 'none' => ['JAR-340H;0', '“0” packs; expected above 0.'];
        yield 'below zero' => ['JAR-340H;-2', 'a quantity such as 12 or 2.5'];
        yield 'words' => ['JAR-340H;some', '“some”'];
        yield 'no price' => ['JAR-340H;1;cheap', '“cheap”'];
        yield 'no day' => ['JAR-340H;1;;31.02.2026', '“31.02.2026” is not a day'];
        yield 'a day that is none' => ['JAR-340H;1;;2026-02-31', '“2026-02-31” is not a day'];
        yield 'too much' => ['JAR-340H;1;;;FERRY;more', 'It has 6 columns'];
    }

    #[DataProvider('badRows')]
    public function testABadRowIsNamedAndTheOthersAreRead(string $row, string $said): void
    {
        $problems = new Problems();
        $lines = PastedLines::read("LID-63;1\n$row\nLID-82;2", Numerals::with('.'), $problems)->lines;
        self::assertSame(['LID-63', 'LID-82'], array_column($lines, 'code'));
        self::assertSame(['paste-2'], array_keys($problems->all()));
        self::assertStringContainsString($said, (string) $problems->at('paste-2'));
    }

    public function testTwoThousandRowsGoAtOnceAndNoMore(): void
    {
        $problems = new Problems();
        $rows = implode("\n", array_fill(0, PastedLines::MOST, 'LID-63;1'));
        self::assertCount(2000, PastedLines::read($rows, Numerals::with('.'), $problems)->lines);
        self::assertTrue($problems->areNone());
        self::assertCount(0, PastedLines::read($rows."\nLID-63;1", Numerals::with('.'), $problems)->lines);
        self::assertStringContainsString('2,001 rows', (string) $problems->at('paste'));
    }
}
