<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use TallBarrel\Tests\AnotherConnection;

/** A copy of everything, taken while it goes on, and brought back onto a machine that has nothing. */
final class BackupTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';
    private const INSTANCE = 'restored';

    private static string $folder;

    public static function setUpBeforeClass(): void
    {
        self::$folder = sys_get_temp_dir().'/tallbarrel-backup-'.getmypid();
        mkdir(self::$folder);
    }

    public static function tearDownAfterClass(): void
    {
        self::execute(['bash', '-c', sprintf(
            'source build/setup.sh; database_down %1$s; rm -rf var/%1$s var/stamps/code-%1$s %2$s',
            self::INSTANCE,
            escapeshellarg(self::$folder),
        )]);
    }

    /**
     * @param list<string>          $command
     * @param array<string, string> $with
     *
     * @return array{int, string} its code, and all it said
     */
    private static function execute(array $command, array $with = []): array
    {
        $process = proc_open(
            ['bash', '-c', 'exec "$@" 2>&1', 'it', ...$command],
            [1 => ['pipe', 'w']],
            $pipes,
            self::ROOT,
            $with + array_filter(getenv(), static fn (string $name): bool => !str_starts_with($name, 'APP_')
                && !in_array($name, ['DATABASE_URL', 'MAILER_DSN', 'TALLBARREL_URL'], true), \ARRAY_FILTER_USE_KEY),
        );
        self::assertIsResource($process);
        $said = (string) stream_get_contents($pipes[1]);

        return [proc_close($process), $said];
    }

    private static function database(string $instance): \PDO
    {
        $written = parse_ini_file(self::ROOT."/var/$instance/environment", false, \INI_SCANNER_RAW);
        self::assertIsArray($written);

        return AnotherConnection::to($written['DATABASE_URL']);
    }

    /** @return array<string, string> rows and sums that must be the same */
    private static function figures(string $instance): array
    {
        $database = self::database($instance);
        $figures = [];
        foreach (
            [
                'movements' => 'SELECT COUNT(*), SUM(quantity), SUM(quantity * unit_cost) FROM stock_movement',
                'orders' => 'SELECT COUNT(*), SUM(packs * price) FROM order_line',
                'invoices' => 'SELECT COUNT(*), SUM(owed_packs * owed_price) FROM invoice_line',
                'people' => 'SELECT COUNT(*), MAX(email) FROM person',
                'audit' => 'SELECT COUNT(*), MD5(MAX(words)) FROM audit_entry',
                'pictures' => 'SELECT COUNT(*), SUM(LENGTH(content)) FROM picture',
                'tables' => "SELECT COUNT(*) FROM information_schema.tables WHERE table_schema = 'tallbarrel'",
            ] as $name => $query
        ) {
            $row = $database->query($query);
            self::assertNotFalse($row, $name);
            $figures[$name] = (string) json_encode($row->fetch(\PDO::FETCH_NUM));
        }

        return $figures;
    }

    public function testWhatIsCopiedComesBackWholeAndOnlyWithItsKey(): void
    {
        file_put_contents(self::$folder.'/key', 'honey and wax');
        file_put_contents(self::$folder.'/wrong', 'water');
        [$code, $said] = self::execute(
            ['bin/backup', '--to', self::$folder, '--key', self::$folder.'/key'],
            ['TALLBARREL_INSTANCE' => 'test'],
        );
        self::assertSame(0, $code, $said);
        $copy = trim($said);
        self::assertFileExists($copy);
        self::assertStringNotContainsString('Larkmoor', (string) file_get_contents($copy));

        $restore = static fn (string ...$with): array => self::execute(['bin/restore', $copy, ...array_values($with)], [
            'TALLBARREL_INSTANCE' => self::INSTANCE, 'TALLBARREL_ENV' => 'prod',
            'TALLBARREL_DB_PORT' => '13487', 'TALLBARREL_PORT' => '8487',
        ]);
        self::assertStringContainsString('is locked', $restore()[1]);
        self::assertStringContainsString('does not open it', $restore('--key', self::$folder.'/wrong')[1]);
        [$code, $said] = $restore('--key', self::$folder.'/key');
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('average costs are proven', $said);
        self::assertSame(self::figures('test'), self::figures(self::INSTANCE));

        [$code, $said] = $restore('--key', self::$folder.'/key');
        self::assertNotSame(0, $code);
        self::assertStringContainsString('There is a database already', $said);
        file_put_contents($copy, 'x', \FILE_APPEND);
        $said = $restore('--key', self::$folder.'/key', '--over')[1];
        self::assertStringContainsString('damaged, or was changed', $said);
    }

    public function testCopiesAreKeptForSevenDaysAndFourWeeks(): void
    {
        $folder = self::$folder.'/kept';
        mkdir($folder);
        $day = new \DateTimeImmutable('2026-11-26');
        for ($n = 0; $n < 60; ++$n) {
            foreach (['080000', '200000'] as $time) {
                touch(sprintf('%s/tallbarrel-%s-%s.tar.gz', $folder, $day->modify("-$n days")->format('Ymd'), $time));
            }
        }
        self::execute(['bash', '-c', 'source build/setup.sh; kept_by_rule '.escapeshellarg($folder)]);
        $kept = array_map(
            static fn (string $file): string => substr(basename($file), 11, 15),
            glob($folder.'/*') ?: [],
        );
        // Seven days to Friday the 20th; Sundays the 15th and 8th end the third and the fourth week.
        self::assertSame([
            '20261108-200000', '20261115-200000', '20261120-200000', '20261121-200000', '20261122-200000',
            '20261123-200000', '20261124-200000', '20261125-200000', '20261126-200000',
        ], $kept);
    }
}
