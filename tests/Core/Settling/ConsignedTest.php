<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Settling\Consigned;

/** Worked by hand; the rule is common practice, no source. */
final class ConsignedTest extends TestCase
{
    /** @return iterable<string, array{array<string, string>, string, array<string, string>}> */
    public static function goods(): iterable
    {
        $left = ['first' => '30', 'then' => '20'];
        yield 'the oldest is used first' => [$left, '35', ['first' => '15']];
        yield 'and then the next' => [$left, '12', ['first' => '30', 'then' => '8']];
        yield 'all of it' => [$left, '0', ['first' => '30', 'then' => '20']];
        yield 'sold before it was booked in' => [$left, '-4', ['first' => '30', 'then' => '20']];
        yield 'as much is there as they left' => [$left, '50', []];
        yield 'ours go first' => [$left, '51.5', []];
        yield 'nobody left anything' => [[], '7', []];
    }

    /**
     * @param array<string, string> $theirs
     * @param array<string, string> $expected
     */
    #[DataProvider('goods')]
    public function testTheirsAreUsedAsFarAsThereIsLessThanTheyLeft(array $theirs, string $held, array $expected): void
    {
        $used = Consigned::used(array_map(BigDecimal::of(...), $theirs), BigDecimal::of($held));
        self::assertSame($expected, array_map(static fn (BigDecimal $one): string => (string) $one, $used));
    }
}
