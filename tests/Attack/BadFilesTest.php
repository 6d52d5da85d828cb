<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Attack;

use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Import\ImportRun;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Keeping\Imports;
use TallBarrel\Work\Keeping\TableFile;
use TallBarrel\Work\Sourcing\QuoteSheet;

/** Files that nobody should bring, by hand and drawn from a seed: each is refused, or its bad rows are named. */
final class BadFilesTest extends StoreTestCase
{
    private const SEED = 20261126;
    private const FILES = 60;
    private const BAD = [
        "\xff\xfe", "a\0b", '-1', '1e9', 'NaN', '9999999999999999999', '1,5,5', '2026-02-31', '31/31/2026',
        '=HYPERLINK("x")', '🐝', "line\nline", '"', ' ', '٣', "\u{202e}abc",
    ];

    private string $file;

    protected function setUp(): void
    {
        $this->file = (string) tempnam(sys_get_temp_dir(), 'bad');
    }

    protected function tearDown(): void
    {
        unlink($this->file);
        parent::tearDown();
    }

    private function check(string $kind, string $content): ?ImportRun
    {
        file_put_contents($this->file, $content);
        try {
            return self::get(Imports::class)->check($kind, $this->file, 'theirs.csv', self::person('mara'));
        } catch (InvalidValue) {
            return null;
        }
    }

    private static function bad(): string
    {
        $bad = [...self::BAD, str_repeat('x', 10_001), str_repeat('9', 40)];

        return $bad[mt_rand(0, count($bad) - 1)];
    }

    public function testDrawnRubbishIsRefusedOrNamedAndNothingIsAppliedByLooking(): void
    {
        mt_srand(self::SEED);
        $written = static fn (): array => self::connection()->fetchAllKeyValue(
            "SELECT 'items', COUNT(*) FROM item UNION SELECT 'offers', COUNT(*) FROM offer
             UNION SELECT 'moved', MAX(id) FROM stock_movement UNION SELECT 'sold', COUNT(*) FROM sales_day
             UNION SELECT 'suppliers', COUNT(*) FROM supplier UNION SELECT 'rates', COUNT(*) FROM exchange_rate",
        );
        $before = $written();
        $named = 0;
        foreach (self::get(Imports::class)->forms() as $kind => $form) {
            for ($file = 0; $file < self::FILES; ++$file) {
                $rows = [array_keys($form->columns), ...$form->sample];
                for ($cell = mt_rand(1, 4); $cell > 0; --$cell) {
                    $row = mt_rand(0 === $file % 5 ? 0 : 1, count($rows) - 1);
                    $rows[$row][mt_rand(0, count($form->columns) - 1)] = self::bad();
                }
                $run = $this->check($kind, self::get(TableFile::class)->write(array_map(array_values(...), $rows)));
                foreach ($run?->problems() ?? [] as [$line, , , $why]) {
                    self::assertGreaterThan(0, $line, $kind);
                    self::assertNotSame('', $why, $kind);
                    ++$named;
                }
                if (null !== $run) {
                    self::assertSame($run->rows() - $run->badRows(), $run->goodRows(), $kind);
                }
            }
        }
        self::assertGreaterThan(300, $named);
        self::assertSame($before, $written());
    }

    public function testAFileThatIsTooWideOrNoTableIsRefusedAtOnce(): void
    {
        $wide = implode(',', array_fill(0, 60_000, 'a'))."\n";
        self::assertNull($this->check('items', $wide.$wide));
        $zip = "PK\x03\x04 not a workbook";
        foreach (['', "\0\0\0\0", random_bytes(5000), $zip, '%PDF-1.7', '<html></html>'] as $what) {
            self::assertNull($this->check('items', $what), substr($what, 0, 8));
        }
    }

    /** The file that stopped the desk once: 60,000 columns by a supplier's link. */
    public function testAWideAnswerToAQuoteIsRefused(): void
    {
        $quote = self::entities()->getRepository(Quote::class)->findOneBy([]);
        self::assertNotNull($quote);
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('at most 200 are read');
        self::get(QuoteSheet::class)->read($quote, str_repeat('a,', 60_000)."\n");
    }

    public function testOfAHundredThousandRowsEveryBadOneIsCounted(): void
    {
        $file = fopen($this->file, 'w');
        self::assertNotFalse($file);
        $codes = self::connection()->fetchFirstColumn('SELECT code FROM item ORDER BY code LIMIT 100');
        $first = new \DateTimeImmutable('2024-01-01');
        fwrite($file, "item,site,day,quantity\n");
        for ($row = 0; $row < 100_000; ++$row) {
            $code = $codes[intdiv($row, 1000)];
            self::assertIsString($code);
            fwrite($file, sprintf(
                "%s,DEPOT,%s,%s\n",
                $code,
                $first->modify(sprintf('+%d days', $row % 1000))->format('Y-m-d'),
                9 === $row % 10 ? 'many' : '5',
            ));
        }
        fclose($file);
        memory_reset_peak_usage();
        $run = self::get(Imports::class)->check('sales', $this->file, 'year.csv', self::person('mara'));
        self::assertLessThan(256 * 1024 * 1024, memory_get_peak_usage());
        self::assertSame(10_000, $run->badRows());
        self::assertSame(100_000, $run->rows());
        $named = 0;
        foreach (self::get(Imports::class)->badRows($run) as $row) {
            $named += str_contains((string) end($row), 'many') || str_contains((string) end($row), 'number') ? 1 : 0;
        }
        self::assertSame(10_000, $named);
    }
}
