<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Faults;

use PHPUnit\Framework\TestCase;

/** A short turn of what "bin/bench faults" does for long: people work while those who serve them are killed. */
final class KilledWorkersTest extends TestCase
{
    private const KILLS = 20;

    public function testNothingIsLostDoubledOrWronglyToldAndNobodyIsInAnothersWay(): void
    {
        exec(sprintf(
            'php %s %s %d test workers 2>&1',
            escapeshellarg(dirname(__DIR__, 2).'/build/faults.php'),
            escapeshellarg((string) getenv('TALLBARREL_TEST_URL')),
            self::KILLS,
        ), $lines, $code);
        $said = implode("\n", $lines);
        self::assertSame(0, $code, $said);
        foreach (['lost', 'doubled', 'wrongly told', 'stuck', 'refused'] as $what) {
            self::assertMatchesRegularExpression('/^'.$what.' +0$/m', $said);
        }
        self::assertMatchesRegularExpression('/^Said to be done: [1-9].* [1-9]\d* book/m', $said, 'they came through');
    }
}
