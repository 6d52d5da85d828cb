<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/**
 * Workers run compiled (build/php/compiled.ini): whatever the compiler makes of a forecast, it is the same to the last
 * digit as without it. PHP 8.2's tracing compiler fails this.
 */
final class CompiledForecastTest extends TestCase
{
    public function testACompiledForecastIsTheSameToTheLastDigit(): void
    {
        $root = dirname(__DIR__, 2);
        $compiled = self::forecasts(':'.$root.'/build/php');
        self::assertSame('compiled', $compiled[0]);
        self::assertCount(152, $compiled, '150 and a line on either side');
        $plain = self::forecasts(':');
        self::assertSame('not compiled', $plain[0]);
        self::assertSame(array_slice($plain, 1), array_slice($compiled, 1));
    }

    /** @return list<string> */
    private static function forecasts(string $settings): array
    {
        $process = new Process(['php', __DIR__.'/compiled/forecasts.php'], null, ['PHP_INI_SCAN_DIR' => $settings]);

        return explode("\n", $process->setTimeout(120)->mustRun()->getOutput());
    }
}
