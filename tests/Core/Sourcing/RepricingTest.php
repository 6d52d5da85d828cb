<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Repricing;

/** How far a listed price moves from the one that stands. Arithmetic is worked out beside each figure. */
final class RepricingTest extends TestCase
{
    #[DataProvider('moves')]
    public function testTheLargestRiseIsSaidAndOnlyWithoutOneTheLargestFall(
        string $old,
        int $oldContent,
        string $new,
        int $newContent,
        ?float $percent,
    ): void {
        $change = Repricing::between(
            PriceBreaks::read($old),
            BigDecimal::of($oldContent),
            PriceBreaks::read($new),
            BigDecimal::of($newContent),
        );
        self::assertSame($percent, $change->percent());
    }

    /** @return iterable<string, array{string, int, string, int, float|null}> */
    public static function moves(): iterable
    {
        yield 'a plain rise: 10.30 / 10' => ['10', 12, '10.30', 12, 3.0];
        yield 'a plain fall: 9 / 12' => ['12', 1, '9', 1, -25.0];
        yield 'nothing moves' => ['1=9.30 40=8.97', 12, '1=9.3 40=8.97', 12, 0.0];
        yield 'a smaller pack at the same price: (9 / 10) / (9 / 12) = 1.2' => ['9', 12, '9', 10, 20.0];
        yield 'a break that is gone shows where it was: 10 / 9 from 40' => ['1=10 40=9', 1, '10', 1, 11.11];
        yield 'a break that is new is a fall: 9 / 10 from 40' => ['10', 1, '1=10 40=9', 1, -10.0];
        yield 'a break that begins later: at 20, 10 against 9' => ['1=10 20=9', 1, '1=10 40=8', 1, 11.11];
        yield 'dearer for few and cheaper for many counts as dearer: 11 / 10' => ['1=10 40=9', 1, '1=11 40=8', 1, 10.0];
        yield 'a rise too small to be said hides no fall: 24.30 / 27' => [
            '1=30 40=27',
            1,
            '1=30.001 40=24.30',
            1,
            -10.0,
        ];
        yield 'what was free has no percentage' => ['0', 1, '5', 1, null];
    }

    public function testBreaksForWhatGoesBeyondAndByValueAreSetSideBySideAtTheSameQuantity(): void
    {
        // 40 packs: 20 × 10 + 20 × 8 = 360 before, 40 × 10 = 400 after; at 20 both ask 10 a pack.
        $old = PriceBreaks::read('1=10 20=8', BreakKind::Incremental);
        $new = PriceBreaks::read('1=10 1000=9', BreakKind::AllUnits, BreakBasis::Value);
        $change = Repricing::between($old, BigDecimal::one(), $new, BigDecimal::one());
        self::assertTrue(
            $change->ofUnit(BigDecimal::of(40))->isEqualTo(1),
            (string) $change->ofUnit(BigDecimal::of(40)),
        );
        // From 1000 / 10 = 100 packs: 900 / (200 + 80 × 8 = 840) = 1.0714…
        self::assertSame(7.14, $change->percent());
    }
}
