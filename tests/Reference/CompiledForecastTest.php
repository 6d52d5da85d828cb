<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/**
 * Workers run compiled (build/php/compiled.ini): whatever the compiler makes of a forecast, it is the same to the last
 * digit as without it, whenever a worker's alarm rings. PHP 8.2's compiler fails both where it keeps values in
 * registers.
 */
final class CompiledForecastTest extends TestCase
{
    public function testACompiledForecastIsTheSameToTheLastDigit(): void
    {
        $compiled = self::forecasts(self::compiled());
        self::assertSame('compiled', $compiled[0]);
        self::assertCount(152, $compiled, '150 and a line on either side');
        $plain = self::forecasts(':');
        self::assertSame('not compiled', $plain[0]);
        self::assertSame(array_slice($plain, 1), array_slice($compiled, 1));
    }

    public function testAnAlarmThatRingsInBetweenChangesNoDigit(): void
    {
        $rung = self::forecasts(self::compiled(), 'alarms');
        self::assertSame('compiled', $rung[0]);
        self::assertGreaterThan(20, (int) $rung[151], 'so often it rang');
        self::assertSame(array_slice(self::forecasts(':'), 1, 150), array_slice($rung, 1, 150));
    }

    private static function compiled(): string
    {
        return ':'.dirname(__DIR__, 2).'/build/php';
    }

    /** @return list<string> */
    private static function forecasts(string $settings, string ...$how): array
    {
        $process = new Process(
            ['php', __DIR__.'/compiled/forecasts.php', ...$how],
            null,
            ['PHP_INI_SCAN_DIR' => $settings],
        );

        return explode("\n", $process->setTimeout(120)->mustRun()->getOutput());
    }
}
