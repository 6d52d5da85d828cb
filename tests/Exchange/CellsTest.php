<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Exchange\Csv\Row;
use TallBarrel\Exchange\Csv\Workbook;

/** Cells as people have them: in a row of a list, and in a workbook of ISO/IEC 29500. */
final class CellsTest extends TestCase
{
    private const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
    private const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

    /** @var list<string> files to take away */
    private array $files = [];

    protected function tearDown(): void
    {
        array_map(unlink(...), array_filter($this->files, is_file(...)));
    }

    /** @param array<string, string> $values */
    private static function row(array $values, string $mark = Numerals::POINT): Row
    {
        return new Row(7, $values, Numerals::with($mark));
    }

    /** @return \Generator<string, array{string, string|null, string}> */
    public static function days(): \Generator
    {
        yield 'as it is kept' => ['2026-11-30', '2026-11-30', ''];
        yield 'with slashes, the year first' => ['2026/11/30', '2026-11-30', ''];
        yield 'without noughts' => ['2026-3-5', '2026-03-05', ''];
        yield 'with points' => ['30.11.2026', '2026-11-30', ''];
        yield 'with points, early in the month' => ['05.04.2026', '2026-04-05', ''];
        yield 'the day first, told by the day' => ['30/11/2026', '2026-11-30', ''];
        yield 'the month first, told by the day' => ['11/30/2026', '2026-11-30', ''];
        yield 'the same either way' => ['04/04/2026', '2026-04-04', ''];
        yield 'two days' => ['05/04/2026', null, 'could be two days, with the month first or the day first'];
        yield 'the twelfth of two months' => ['12/11/2026', null, 'could be two days'];
        yield 'no such month' => ['2026-13-01', null, 'not a day written as 2026-11-30'];
        yield 'no such day' => ['2026-02-29', null, 'not a day written as 2026-11-30'];
        yield 'a leap day' => ['2028-02-29', '2028-02-29', ''];
        yield 'neither can be a month' => ['13/13/2026', null, 'not a day written as 2026-11-30'];
        yield 'words' => ['last Monday', null, 'not a day written as 2026-11-30'];
        yield 'two figures of a year' => ['30.11.26', null, 'not a day written as 2026-11-30'];
        yield 'nothing' => ['', null, ''];
    }

    #[DataProvider('days')]
    public function testADayIsReadWhereItCanBeOneDayOnly(string $typed, ?string $day, string $refused): void
    {
        $row = self::row(['day' => $typed]);
        self::assertSame($day, $row->day('day')?->format('Y-m-d'));
        self::assertSame('' === $refused, $row->isGood());
        if ('' !== $refused) {
            self::assertSame([7, 'day', $typed], array_slice($row->problems[0], 0, 3));
            self::assertStringContainsString($refused, $row->problems[0][3]);
        }
    }

    /** @return \Generator<string, array{string, bool, bool, bool}> */
    public static function yeses(): \Generator
    {
        foreach (['yes', 'YES', '1', 'true', 'True'] as $yes) {
            yield $yes => [$yes, false, true, true];
        }
        foreach (['no', 'No', '0', 'false'] as $no) {
            yield $no => [$no, true, false, true];
        }
        yield 'nothing, where yes is meant' => ['', true, true, true];
        yield 'nothing, where no is meant' => ['', false, false, true];
        yield 'perhaps' => ['perhaps', true, false, false];
        yield 'a number' => ['2', true, false, false];
    }

    #[DataProvider('yeses')]
    public function testYesAndNoAreSaidInAFewWords(string $typed, bool $missing, bool $yes, bool $good): void
    {
        $row = self::row(['sold' => $typed]);
        self::assertSame($yes, $row->yes('sold', $missing));
        self::assertSame($good, $row->isGood());
        if (!$good) {
            self::assertSame([[7, 'sold', $typed, 'neither yes nor no']], $row->problems);
        }
    }

    /** @return \Generator<string, array{string, int|null, bool}> */
    public static function wholeNumbers(): \Generator
    {
        yield 'nothing' => ['', null, true];
        yield 'the least' => ['1', 1, true];
        yield 'the most' => ['365', 365, true];
        yield 'too few' => ['0', null, false];
        yield 'too many' => ['366', null, false];
        yield 'below nothing' => ['-5', null, false];
        yield 'a part' => ['1.5', null, false];
        yield 'words' => ['ten', null, false];
        yield 'far too many figures' => ['0000000012', null, false];
    }

    #[DataProvider('wholeNumbers')]
    public function testAWholeNumberLiesWithinItsBounds(string $typed, ?int $number, bool $good): void
    {
        $row = self::row(['lead_days' => $typed]);
        self::assertSame($number, $row->integer('lead_days', 1, 365));
        self::assertSame($good, $row->isGood());
        if (!$good) {
            self::assertSame([[7, 'lead_days', $typed, 'not a whole number from 1 to 365']], $row->problems);
        }
    }

    public function testANumberIsReadByTheMarkOfItsFile(): void
    {
        self::assertSame('1.25', (string) self::row(['price' => '1,25'], ',')->decimal('price'));
        self::assertSame('12500', (string) self::row(['price' => '12.500'], ',')->decimal('price'));
        $point = self::row(['price' => '12.500'])->decimal('price');
        self::assertSame('12.5', (string) $point?->strippedOfTrailingZeros());
        self::assertNull(self::row(['price' => ''])->decimal('price'));
        self::assertNull(self::row([])->decimal('price'));
        $below = self::row(['price' => '-3']);
        self::assertNull($below->decimal('price'));
        self::assertFalse($below->isGood());
        self::assertSame('-3', (string) self::row(['price' => '-3'])->decimal('price', negative: true));
        $words = self::row(['price' => 'cheap']);
        self::assertNull($words->decimal('price'));
        self::assertStringContainsString('cheap', $words->problems[0][3]);
    }

    public function testATextMayBeMissingTooLongOrNeeded(): void
    {
        $row = self::row(['name' => str_repeat('ä', 11), 'note' => '']);
        self::assertSame(str_repeat('ä', 11), $row->text('name', 11));
        self::assertTrue($row->isGood());
        $row->text('name', 10);
        self::assertSame('longer than 10 characters', $row->problems[0][3]);
        self::assertSame('none', $row->text('note', missing: 'none'));
        self::assertSame(['', 'missing'], [$row->required('note'), $row->problems[1][3]]);
        self::assertSame([true, false, false], [$row->has('name'), $row->has('note'), $row->has('else')]);
    }

    public function testACodeIsKnownInAnyLettersOrSaidNotToBe(): void
    {
        $known = ['JAR-1' => 11];
        self::assertSame(11, self::row(['item' => 'jar-1'])->code('item', $known, 'item'));
        $row = self::row(['item' => 'JAR-2', 'site' => '']);
        self::assertNull($row->code('item', $known, 'item'));
        self::assertNull($row->code('site', $known, 'site'));
        self::assertSame(
            [[7, 'item', 'JAR-2', 'no such item'], [7, 'site', '', 'missing']],
            $row->problems,
        );
    }

    /**
     * A workbook of one sheet or several.
     *
     * @param array<string, string> $sheets  rows of each, as they are written
     * @param list<string>          $words   that cells share
     * @param string                $formats of numbers, and cells that use them
     */
    private function book(array $sheets, array $words = [], string $formats = '', string $properties = ''): string
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'book');
        $this->files[] = $file;
        $zip = new \ZipArchive();
        self::assertTrue($zip->open($file, \ZipArchive::OVERWRITE));
        $list = $relations = '';
        foreach (array_keys($sheets) as $i => $name) {
            $list .= sprintf('<sheet name="%s" sheetId="%d" r:id="rId%2$d"/>', $name, $i + 1);
            $relations .= sprintf('<Relationship Id="rId%d" Target="worksheets/sheet%1$d.xml"/>', $i + 1);
        }
        $zip->addFromString('xl/workbook.xml', sprintf(
            '<workbook xmlns="%s" xmlns:r="%s">%s<sheets>%s</sheets></workbook>',
            self::MAIN,
            self::RELATIONS,
            $properties,
            $list,
        ));
        $zip->addFromString(
            'xl/_rels/workbook.xml.rels',
            '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">'.$relations.
                '</Relationships>',
        );
        foreach (array_values($sheets) as $i => $rows) {
            $zip->addFromString(sprintf('xl/worksheets/sheet%d.xml', $i + 1), sprintf(
                '<worksheet xmlns="%s"><sheetData>%s</sheetData></worksheet>',
                self::MAIN,
                $rows,
            ));
        }
        if ([] !== $words) {
            $zip->addFromString(
                'xl/sharedStrings.xml',
                sprintf('<sst xmlns="%s"><si>%s</si></sst>', self::MAIN, implode('</si><si>', $words)),
            );
        }
        if ('' !== $formats) {
            $zip->addFromString(
                'xl/styles.xml',
                sprintf('<styleSheet xmlns="%s">%s</styleSheet>', self::MAIN, $formats),
            );
        }
        $zip->close();

        return $file;
    }

    /** @return array<int, list<string>> cells by row */
    private static function read(string $file, string $sheet = 'One'): array
    {
        return iterator_to_array(Workbook::open($file)->rows($sheet));
    }

    private static function refusal(callable $act): string
    {
        try {
            $act();
        } catch (InvalidValue $refused) {
            return $refused->getMessage();
        }

        return 'not refused';
    }

    public function testCellsStandWhereTheySayAndRowsKeepTheirNumbers(): void
    {
        $file = $this->book(['One' => '<row r="2"><c r="A2"><v>1</v></c><c r="D2"><v>4</v></c></row><row r="3"/>'
            .'<row r="5"><c r="B5"><v>2.50</v></c></row><row><c><v>9</v></c><c><v>8</v></c></row>']);
        self::assertSame(
            [2 => ['1', '', '', '4'], 5 => ['', '2.50'], 6 => ['9', '8']],
            self::read($file),
            'a row without a number follows the one before; empty ones are left out',
        );
    }

    public function testColumnsBeyondTheTwentySixthHaveTwoLetters(): void
    {
        [$row] = array_values(self::read($this->book(['One' => '<row r="1"><c r="AB1"><v>7</v></c></row>'])));
        self::assertCount(28, $row);
        self::assertSame('7', $row[27]);
    }

    /** @return \Generator<string, array{string, string}> */
    public static function cells(): \Generator
    {
        yield 'a word that is shared' => ['<c t="s"><v>1</v></c>', 'rich text'];
        yield 'one that is not there' => ['<c t="s"><v>9</v></c>', ''];
        yield 'how it is spoken is no part of it' => ['<c t="s"><v>2</v></c>', '東京'];
        yield 'a word of its own' => ['<c t="inlineStr"><is><t>plain</t></is></c>', 'plain'];
        yield 'yes' => ['<c t="b"><v>1</v></c>', 'yes'];
        yield 'no' => ['<c t="b"><v>0</v></c>', 'no'];
        yield 'what a formula came to' => ['<c t="str"><f>A1&amp;"x"</f><v>ax</v></c>', 'ax'];
        yield 'what it never came to' => ['<c><f>SUM(A1:A3)</f></c>', '=SUM(A1:A3)'];
        yield 'an error' => ['<c t="e"><v>#N/A</v></c>', '#N/A'];
        yield 'a number' => ['<c><v>12.5</v></c>', '12.5'];
        yield 'a sum of binary fractions' => ['<c><v>0.30000000000000004</v></c>', '0.3'];
        yield 'a power of ten' => ['<c><v>1.5E3</v></c>', '1500'];
        yield 'a small one' => ['<c><v>1.5E-7</v></c>', '0.00000015'];
        yield 'thirteen figures' => ['<c><v>4006381333931</v></c>', '4006381333931'];
        yield 'a day' => ['<c s="1"><v>46356</v></c>', '2026-11-30'];
        yield 'a day with an hour' => ['<c s="1"><v>46356.75</v></c>', '2026-11-30'];
        yield 'a day by a format of its own' => ['<c s="2"><v>46356</v></c>', '2026-11-30'];
        yield 'a weight by a format of its own' => ['<c s="3"><v>46356</v></c>', '46356'];
        yield 'no day at all' => ['<c s="1"><v>0</v></c>', '0'];
        yield 'a day that never comes' => ['<c s="1"><v>2958466</v></c>', '2958466'];
    }

    /** Days are numbered from 1899-12-30 on (ISO/IEC 29500-1, 18.17.4.1): 46356 is 30 November 2026. */
    #[DataProvider('cells')]
    public function testACellIsReadAsAPersonSeesIt(string $cell, string $seen): void
    {
        $file = $this->book(
            ['One' => '<row r="1"><c><v>first</v></c>'.$cell.'</row>'],
            ['<t>plain</t>', '<r><t>rich </t></r><r><t>text</t></r>', '<t>東京</t><rPh sb="0" eb="2"><t>とうきょう</t></rPh>'],
            '<numFmts><numFmt numFmtId="170" formatCode="yyyy&quot; year &quot;mm dd"/>'
                .'<numFmt numFmtId="171" formatCode="0.0&quot; day&quot;"/></numFmts>'
                .'<cellXfs><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="170"/><xf numFmtId="171"/></cellXfs>',
        );
        $cells = self::read($file)[1] ?? [];
        self::assertSame($seen, $cells[1] ?? '');
    }

    public function testSomeBooksCountTheirDaysFromNineteenHundredAndFourOn(): void
    {
        $file = $this->book(
            ['One' => '<row r="1"><c s="0"><v>44894</v></c></row>'],
            [],
            '<cellXfs><xf numFmtId="14"/></cellXfs>',
            '<workbookPr date1904="1"/>',
        );
        self::assertSame([1 => ['2026-11-30']], self::read($file), '46356 less the 1462 days between the two');
    }

    public function testSheetsAreNamedInTheirOrderAndAnotherIsSaidNotToBeThere(): void
    {
        $file = $this->book(['One' => '<row r="1"><c><v>1</v></c></row>', 'Two' => '<row r="1"><c><v>2</v></c></row>']);
        self::assertSame(['One', 'Two'], Workbook::open($file)->sheets());
        self::assertSame([1 => ['2']], self::read($file, 'Two'));
        self::assertSame(
            'There is no sheet “Three”; there is One, Two.',
            self::refusal(static fn () => self::read($file, 'Three')),
        );
    }

    public function testWhatIsNoWorkbookIsSaid(): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'none');
        $this->files[] = $file;
        file_put_contents($file, "item,site\nJAR,MILL\n");
        self::assertFalse(Workbook::isOne($file));
        self::assertStringContainsString(
            'neither a CSV file nor a workbook (.xlsx) that can be opened',
            self::refusal(static fn () => Workbook::open($file)),
        );
        $zip = new \ZipArchive();
        $zip->open($file, \ZipArchive::OVERWRITE);
        $zip->addFromString('word/document.xml', '<document/>');
        $zip->close();
        self::assertTrue(Workbook::isOne($file));
        self::assertSame(
            'This is neither a CSV file nor a workbook (.xlsx). Save it as one of these and bring that.',
            self::refusal(static fn () => Workbook::open($file)),
        );
    }

    public function testADamagedBookIsSaidToBeDamaged(): void
    {
        $file = $this->book(['One' => '<row r="1"><c><v>1</v></c></row>'], [], '<cellXfs><xf numFmtId="14"></cellXfs>');
        self::assertSame(
            'The workbook is damaged: a part of it cannot be read.',
            self::refusal(static fn () => Workbook::open($file)),
        );
        $zip = new \ZipArchive();
        $empty = $this->book(['One' => '']);
        $zip->open($empty);
        $zip->deleteName('xl/worksheets/sheet1.xml');
        $zip->close();
        self::assertSame(
            'The workbook has no sheet with cells.',
            self::refusal(static fn () => Workbook::open($empty)),
        );
    }

    public function testASheetOfFarTooManyColumnsIsRefused(): void
    {
        $file = $this->book(['One' => '<row r="1"><c r="ZZZ1"><v>1</v></c></row>']);
        self::assertStringContainsString(
            'columns; leave out those that are not needed.',
            self::refusal(static fn () => self::read($file)),
        );
    }
}
