<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Exchange;

use PHPUnit\Framework\TestCase;

/**
 * A database that the first release filled (its demo, without the older sales) follows the code to today with nothing
 * lost, also where that broke off half-way.
 */
final class UpgradeTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';
    private const INSTANCE = 'upgraded';
    private const SAME = [
        'SELECT COUNT(*), SUM(quantity) FROM stock_movement',
        'SELECT COUNT(*), SUM(quantity) FROM sales_day',
        'SELECT COUNT(*), SUM(packs), ROUND(SUM(packs * price), 4) FROM order_line',
        'SELECT COUNT(*), SUM(packs) FROM receipt_line',
        'SELECT COUNT(*), MAX(code) FROM item',
        'SELECT COUNT(*), MAX(email) FROM person',
        'SELECT COUNT(*), SUM(on_hand_quantity) FROM (SELECT SUM(quantity) on_hand_quantity FROM stock_balance
            GROUP BY item_id) b',
    ];

    /** @return array{int, string} code, and all that was said */
    private static function bash(string $script): array
    {
        $process = proc_open(
            ['bash', '-c', 'source build/setup.sh; set +e; exec 2>&1; '.$script],
            [1 => ['pipe', 'w']],
            $pipes,
            self::ROOT,
            ['TALLBARREL_INSTANCE' => self::INSTANCE] + array_filter(
                getenv(),
                static fn (string $name): bool => !str_starts_with($name, 'APP_') && 'DATABASE_URL' !== $name,
                \ARRAY_FILTER_USE_KEY,
            ),
        );
        self::assertIsResource($process);
        $said = (string) stream_get_contents($pipes[1]);

        return [proc_close($process), $said];
    }

    protected function setUp(): void
    {
        [$code, $said] = self::bash(sprintf(
            'environment %1$s prod 13488; database_up %1$s 13488 X; database_login %1$s > var/%1$s/login;
             gunzip -c tests/Exchange/first-release.sql.gz |
                 mariadb --defaults-extra-file=var/%1$s/login tallbarrel',
            self::INSTANCE,
        ));
        self::assertSame(0, $code, $said);
    }

    protected function tearDown(): void
    {
        self::bash(sprintf('database_down %1$s; rm -rf var/%1$s var/stamps/code-%1$s', self::INSTANCE));
    }

    private static function ask(string $query): string
    {
        [$code, $said] = self::bash(sprintf(
            'mariadb --defaults-extra-file=var/%s/login -N tallbarrel -e %s',
            self::INSTANCE,
            escapeshellarg($query),
        ));
        self::assertSame(0, $code, $said);

        return trim($said);
    }

    public function testNothingOfTheFirstReleaseIsLostThoughItBreaksOffHalfWay(): void
    {
        $before = array_map(self::ask(...), self::SAME);
        $steps = (int) self::ask('SELECT COUNT(*) FROM doctrine_migration_versions');
        self::assertSame(1, $steps);
        self::bash(sprintf(
            '(migrate_up %1$s) & work=$!
             for i in $(seq 600); do
                 n=$(mariadb --defaults-extra-file=var/%1$s/login -N tallbarrel \\
                     -e "SELECT COUNT(*) FROM doctrine_migration_versions"); [ "$n" -gt 4 ] && break; sleep 0.02
             done
             pkill -9 -f doctrine:migrations:migrate; kill -9 $work',
            self::INSTANCE,
        ));
        self::assertFileExists(self::ROOT.'/var/'.self::INSTANCE.'/before-migrating.sql');
        $halfWay = (int) self::ask('SELECT COUNT(*) FROM doctrine_migration_versions');
        self::assertGreaterThan(1, $halfWay);

        [$code, $said] = self::bash('migrate_up '.self::INSTANCE);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('brought back as they were before', $said);
        self::assertFileDoesNotExist(self::ROOT.'/var/'.self::INSTANCE.'/before-migrating.sql');
        self::assertSame(
            count(glob(self::ROOT.'/migrations/Version*.php') ?: []),
            (int) self::ask('SELECT COUNT(*) FROM doctrine_migration_versions'),
        );
        self::assertGreaterThan($halfWay, (int) self::ask('SELECT COUNT(*) FROM doctrine_migration_versions'));
        self::assertSame($before, array_map(self::ask(...), self::SAME));

        // The demo of that release set its averages by a rule of its own; all else proves.
        self::bash('php bin/console stock:costs --if-none');
        $said = self::bash('php bin/console stock:verify')[1];
        self::assertSame([], array_values(array_filter(
            explode("\n", trim($said)),
            static fn (string $line): bool => !str_starts_with($line, 'average cost against receipts: ')
                && 1 !== preg_match('/^\d+ differences/', $line),
        )), $said);
        [$code, $said] = self::bash('php bin/console planning:run');
        self::assertSame(0, $code, $said);
        self::assertGreaterThan(50, (int) self::ask('SELECT COUNT(*) FROM proposal'));
    }
}
