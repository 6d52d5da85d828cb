<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Exchange\Csv\CsvFile;
use TallBarrel\Exchange\Csv\CsvTable;
use TallBarrel\Exchange\Csv\Workbook;
use TallBarrel\Exchange\Csv\XlsxFile;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Keeping\FileReading;
use TallBarrel\Work\Keeping\Imports;

/** Letters, delimiters, headings and workbooks as other programs write them. */
final class FilesAsPeopleHaveThemTest extends StoreTestCase
{
    private string $file;

    protected function setUp(): void
    {
        $this->file = (string) tempnam(sys_get_temp_dir(), 'brought');
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), glob($this->file.'*') ?: []);
        parent::tearDown();
    }

    private function check(string $kind, string $content, string $name = 'mine.csv'): ImportRun
    {
        file_put_contents($this->file, $content);

        return self::get(Imports::class)->check($kind, $this->file, $name, self::person('mara'));
    }

    /** @return list<array<string, string>> */
    private function rows(string $content): array
    {
        file_put_contents($this->file, $content);

        return array_values([...CsvFile::open($this->file)->rows()]);
    }

    /** @return iterable<string, array{string}> */
    public static function writings(): iterable
    {
        $text = "code;name\r\nX-1;Größe „5“, süß\r\nX-2;\"Zeile; mit Strich\"\r\n";
        yield 'UTF-8' => [$text];
        yield 'UTF-8 with a mark' => ["\xEF\xBB\xBF".$text];
        yield 'UTF-16, small end first' => ["\xFF\xFE".mb_convert_encoding($text, 'UTF-16LE', 'UTF-8')];
        yield 'UTF-16, large end first' => ["\xFE\xFF".mb_convert_encoding($text, 'UTF-16BE', 'UTF-8')];
        yield 'UTF-16 without a mark' => [mb_convert_encoding($text, 'UTF-16LE', 'UTF-8')];
        yield 'Windows-1252' => [mb_convert_encoding($text, 'Windows-1252', 'UTF-8')];
        yield 'tabulators' => [str_replace(';', "\t", str_replace('Zeile; mit', 'Zeile; mit', $text))];
        yield 'upright lines' => [(string) preg_replace('/;(?! )/', '|', $text)];
        yield 'a workbook' => [(new XlsxFile())->sheet('Artikel', [
            ['code', 'name'], ['X-1', 'Größe „5“, süß'], ['X-2', 'Zeile; mit Strich'],
        ])];
    }

    #[DataProvider('writings')]
    public function testTheSameTableHoweverItIsWritten(string $content): void
    {
        $rows = $this->rows($content);
        self::assertSame('X-1', $rows[0]['code']);
        self::assertSame('Größe „5“, süß', $rows[0]['name']);
        self::assertStringStartsWith('Zeile', $rows[1]['name']);
    }

    public function testALineInOtherLettersIsNamed(): void
    {
        $rows = $this->rows("code,name\nX-1,süß\nX-2,s\xfc\xdf\n");
        self::assertArrayNotHasKey("\0", $rows[0]);
        self::assertStringContainsString('not UTF-8', $rows[1]["\0"]);
    }

    public function testHeadingsAreGuessedChosenAndRemembered(): void
    {
        $file = "Artikel-Nr.;Artikelbezeichnung;Mengeneinheit;Gewicht (kg);Bemerkung\nZ-1;Zange;EA;0,25;rot\n";
        $run = $this->check('items', $file);
        self::assertSame(
            ['artikel-nr.' => 'code', 'artikelbezeichnung' => 'name', 'mengeneinheit' => 'unit',
                'gewicht (kg)' => 'weight_kg',
                'bemerkung' => ''],
            $run->mapping(),
        );
        self::assertSame([1, 0, ','], [$run->rows(), $run->badRows(), $run->decimalMark()]);
        self::get(Imports::class)->checkAgain($run, new FileReading(mapping: [
            'Bemerkung' => 'notes',
        ] + array_flip(['code' => 'Artikel-Nr.', 'name' => 'Artikelbezeichnung', 'unit' => 'Mengeneinheit'])));
        self::assertSame('notes', $run->mapping()['bemerkung']);
        self::assertSame('notes', $this->check('items', $file)->mapping()['bemerkung'], 'the next file of this kind');
        self::assertTrue(self::get(Imports::class)->askToApply($run));
        self::assertSame(
            ['Zange', 'rot'],
            array_values((array) self::connection()
                ->fetchAssociative("SELECT name, notes FROM item WHERE code = 'Z-1'")),
        );
    }

    public function testTwoHeadingsCannotMeanTheSame(): void
    {
        $run = $this->check('items', "code,name,unit,other\nZ-1,Zange,EA,x\n");
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('“name” and “other” cannot both be name');
        self::get(Imports::class)->checkAgain(
            $run,
            new FileReading(mapping: ['code' => 'code', 'name' => 'name', 'unit' => 'unit', 'other' => 'name']),
        );
    }

    public function testWhatIsNeededAndNotThereIsAskedForAndNothingCanBeApplied(): void
    {
        $run = $this->check('items', "description,group\nZange,Tools\n");
        self::assertSame(['code', 'unit'], self::get(Imports::class)->file($run)->missing);
        self::assertSame(0, $run->goodRows());
        self::assertFalse(self::get(Imports::class)->askToApply($run));
    }

    public function testACellIsPutRightWithoutTheFile(): void
    {
        $run = $this->check('items', "code,name,unit,sales_price\nZ-1,Zange,EA,cheap\nZ-2,Feile,XX,3\n");
        self::assertSame(2, $run->badRows());
        $bad = [...self::get(Imports::class)->badRows($run)];
        self::assertSame(['code', 'name', 'unit', 'sales_price', 'reason'], $bad[0]);
        self::assertSame(['Z-1', 'Zange', 'EA', 'cheap'], array_slice($bad[1], 0, 4));
        self::assertStringContainsString('sales_price: ', $bad[1][4]);
        self::get(Imports::class)->checkAgain(
            $run,
            new FileReading(mended: [2 => ['sales_price' => '4.20'], 3 => ['unit' => 'EA']]),
        );
        self::assertSame([2, 0], [$run->rows(), $run->badRows()]);
        self::assertTrue(self::get(Imports::class)->askToApply($run));
        self::assertSame(
            '4.20',
            self::connection()->fetchOne("SELECT sales_price FROM item WHERE code = 'Z-1'"),
        );
    }

    public function testAWorkbookHasSheetsDaysAndWorkedOutFormulas(): void
    {
        $this->workbook([
            'First' => '<row r="1"><c r="A1" t="s"><v>0</v></c></row>',
            'Sales' => '<row r="1"><c r="A1" t="s"><v>1</v></c><c r="B1" t="s"><v>2</v></c><c r="C1" t="s"><v>3</v></c>'
                .'<c r="D1" t="s"><v>4</v></c></row>'
                .'<row r="3"><c r="A3" t="inlineStr"><is><t>JAR-</t><r><t>340R</t></r></is></c>'
                .'<c r="B3" t="str"><f>UPPER("mill")</f><v>MILL</v></c><c r="C3" s="1"><v>46344</v></c>'
                .'<c r="D3"><f>10+2.5</f><v>12.500000000000002</v></c></row>'
                .'<row r="4"><c r="A4" t="s"><v>5</v></c><c r="B4" t="s"><v>6</v></c><c r="C4" '
                    .'s="2"><v>46345.75</v></c>'
                .'<c r="D4"><f>A1*2</f></c></row>',
        ], ['only this', 'item', 'site', 'day', 'quantity', 'JAR-340R', 'MILL']);
        $book = Workbook::open($this->file);
        self::assertSame(['First', 'Sales'], $book->sheets());
        self::assertSame(
            [
                1 => ['item', 'site', 'day', 'quantity'],
                3 => ['JAR-340R', 'MILL', '2026-11-18', '12.5'],
                4 => ['JAR-340R', 'MILL', '2026-11-19', '=A1*2'],
            ],
            iterator_to_array((static fn () => yield from $book->rows('Sales'))()),
        );
        $run = self::get(Imports::class)->check('sales', $this->file, 'sales.xlsx', self::person('mara'));
        self::assertSame('Sales', $run->layout()['sheet'] ?? '', 'the one that has what is needed');
    }

    public function testAnotherSheetIsChosenAndItsLinesAreThoseTheSheetShows(): void
    {
        $this->workbook([
            'Cover' => '<row r="1"><c r="A1" t="s"><v>0</v></c></row>',
            'Sales' => '<row r="1"><c r="A1" t="s"><v>0</v></c><c r="B1" t="s"><v>1</v></c><c r="C1" t="s"><v>2</v></c>'
                .'<c r="D1" t="s"><v>3</v></c></row>'
                .'<row r="4"><c r="A4" t="s"><v>4</v></c><c r="B4" t="s"><v>5</v></c><c r="C4" t="s"><v>6</v></c>'
                .'<c r="D4"><f>A1*2</f></c></row>',
        ], ['item', 'site', 'day', 'quantity', 'JAR-340R', 'MILL', '18.11.2022']);
        $run = self::get(Imports::class)->check('sales', $this->file, 'sales.xlsx', self::person('mara'));
        self::get(Imports::class)->checkAgain($run, new FileReading(layout: ['sheet' => 'Cover']));
        self::assertSame(['site', 'day', 'quantity'], self::get(Imports::class)->file($run)->missing);
        self::get(Imports::class)->checkAgain($run, new FileReading(layout: ['sheet' => 'Sales']));
        self::assertSame([1, 1], [$run->rows(), $run->badRows()]);
        self::assertSame([4, 'quantity', '=A1*2'], array_slice($run->problems()[0], 0, 3));
    }

    public function testAWorkbookThatWouldBurstIsRefused(): void
    {
        $archive = new \ZipArchive();
        $archive->open($this->file, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        for ($i = 0; $i < 7; ++$i) {
            $archive->addFromString('xl/'.$i.'.xml', str_repeat("\0", 100_000_000));
        }
        $archive->close();
        self::assertLessThan(2_000_000, filesize($this->file));
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('larger than 600 MB');
        Workbook::open($this->file);
    }

    public function testForeignEntitiesAreNotRead(): void
    {
        $archive = new \ZipArchive();
        $archive->open($this->file, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        $archive->addFromString('xl/_rels/workbook.xml.rels',
            '<!DOCTYPE r [<!ENTITY e SYSTEM "file:///etc/passwd">]><r>&e;</r>');
        $archive->addFromString('xl/workbook.xml', '<workbook/>');
        $archive->close();
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('damaged');
        Workbook::open($this->file);
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        foreach (['sites', 'items', 'suppliers', 'rates', 'offers', 'stock', 'sales', 'plans', 'promises'] as $kind) {
            yield $kind => [$kind];
        }
    }

    #[DataProvider('kinds')]
    public function testEveryListComesBackUnchangedFromBothKindsOfFile(string $kind): void
    {
        if ('sales' === $kind) {
            // Three years are as many lines as any; a few weeks show the same.
            self::connection()->executeStatement("DELETE FROM sales_day WHERE day < '2026-10-20'");
        }
        $rows = [...self::get(Imports::class)->all($kind)];
        self::assertGreaterThan(2, count($rows));
        $files = ['csv' => (new CsvTable())->write($rows), 'xlsx' => (new XlsxFile())->sheet($kind, $rows)];
        foreach ($files as $format => $content) {
            $run = $this->check($kind, $content, 'all.'.$format);
            self::assertSame([], array_slice($run->problems(), 0, 3), $format);
            self::assertSame(count($rows) - 1, $run->goodRows());
            self::assertTrue(self::get(Imports::class)->askToApply($run));
            self::entities()->clear();
            $after = self::entities()->find(ImportRun::class, $run->id);
            self::assertSame(ImportRun::APPLIED, $after?->state(), (string) $after?->message());
            self::assertSame($rows, [...self::get(Imports::class)->all($kind)], $format);
        }
    }

    /** Names with blanks, parts of a unit and GTINs: what went out makes the same packs anew. */
    public function testPacksComeBackWhereTheyAreGone(): void
    {
        self::connection()->executeStatement(
            "INSERT INTO item_pack (item_id, name, quantity, gtin)
             SELECT i.id, p.name, p.quantity, p.gtin FROM item i JOIN (SELECT 'wooden case' name, 12 quantity,
                '04006381333931' gtin UNION ALL SELECT 'bx', 2.5, NULL) p WHERE i.code = 'JAR-340R'",
        );
        $rows = [...self::get(Imports::class)->all('items')];
        $packs = array_column(array_filter($rows, static fn (array $row): bool => 'JAR-340R' === $row[0]),
            (int) array_search('packs', $rows[0], true));
        self::assertSame(['wooden case=12/04006381333931 bx=2.5'], $packs);
        self::connection()->executeStatement('DELETE FROM item_pack');
        $run = $this->check('items', (new CsvTable())->write($rows));
        self::assertTrue(self::get(Imports::class)->askToApply($run));
        self::assertSame($rows, [...self::get(Imports::class)->all('items')]);
    }

    public function testACellThatWouldBeWorkedOutComesBackAsItWas(): void
    {
        $name = '=HYPERLINK("x")';
        self::connection()->executeStatement("UPDATE item SET name = ? WHERE code = 'JAR-340R'", [$name]);
        $rows = [...self::get(Imports::class)->all('items')];
        self::assertStringContainsString("\"'=HYPERLINK", (new CsvTable())->write($rows));
        $this->check('items', (new CsvTable())->write($rows));
        self::assertContains($name, array_column($this->rows((new CsvTable())->write($rows)), 'name'));
        self::assertContains($name, array_column($this->rows((new XlsxFile())->sheet('x', $rows)), 'name'));
    }

    /**
     * @param array<string, string> $sheets rows by name
     * @param list<string>          $words  shared texts
     */
    private function workbook(array $sheets, array $words): void
    {
        $main = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
        $office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
        $archive = new \ZipArchive();
        $archive->open($this->file, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        $names = $relations = '';
        foreach (array_keys($sheets) as $i => $name) {
            $names .= sprintf('<sheet name="%s" sheetId="%d" r:id="r%d"/>', $name, $i + 1, $i);
            $relations .= sprintf('<Relationship Id="r%d" Type="w" Target="worksheets/s%d.xml"/>', $i, $i);
            $archive->addFromString(
                sprintf('xl/worksheets/s%d.xml', $i),
                sprintf('<worksheet %s><sheetData>%s</sheetData></worksheet>', $main, $sheets[$name]),
            );
        }
        $archive->addFromString(
            'xl/workbook.xml',
            sprintf('<workbook %s xmlns:r="%s"><sheets>%s</sheets></workbook>', $main, $office, $names),
        );
        $archive->addFromString(
            'xl/_rels/workbook.xml.rels',
            sprintf('<Relationships '
                .'xmlns="http://schemas.openxmlformats.org/package/2006/relationships">%s</Relationships>', $relations),
        );
        $archive->addFromString('xl/styles.xml', sprintf(
            '<styleSheet %s><numFmts><numFmt numFmtId="164" formatCode="dd\\.mm\\.yyyy"/></numFmts><cellXfs>'
            .'<xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="164"/></cellXfs></styleSheet>',
            $main,
        ));
        $archive->addFromString('xl/sharedStrings.xml', sprintf(
            '<sst %s>%s</sst>',
            $main,
            implode('', array_map(static fn (string $word): string => '<si><t>'.$word.'</t></si>', $words)),
        ));
        $archive->close();
    }

    /** Neither the file nor what it was written anew as, whether it could be read or not. */
    public function testOfWhatCameAsBytesNothingIsLeftOnTheDisk(): void
    {
        $left = static fn (): array => glob(sys_get_temp_dir().'/table*') ?: [];
        $before = $left();
        $bytes = "\xff\xfe".mb_convert_encoding("item;price\nJAR-1;2,50\n", 'UTF-16LE');
        $read = CsvFile::ofBytes($bytes, static function (CsvFile $file) use ($left, $before): array {
            self::assertCount(2, array_diff($left(), $before), 'while it is read there is something to find');

            return $file->columns;
        });
        self::assertSame(['item', 'price'], $read);
        self::assertSame($before, $left());
        self::mustRefuse(
            static fn () => CsvFile::ofBytes($bytes, static fn () => throw InvalidValue::because('No such item.')),
            'No such item.',
        );
        self::assertSame($before, $left());
    }
}
