<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Settling\StillHeld;

/** What of a cost is still in stock, by the moving average. */
final class StillHeldTest extends TestCase
{
    /** @param list<int> $moves */
    private static function part(int $held, array $moves): string
    {
        $left = StillHeld::of(BigDecimal::of($held));
        foreach ($moves as $units) {
            $left = $left->moves(BigDecimal::of($units));
        }

        return (string) $left->part->strippedOfTrailingZeros();
    }

    /** By hand: 100 received, 40 sold, freight of 50 later: 30 to stock, 20 to cost of sales (common practice). */
    public function testWhatWasSoldTakesItsShareAlong(): void
    {
        self::assertSame('0.6', self::part(100, [-40]));
        self::assertSame('0.75', self::part(200, [-50]), 'what was there before is in the same pool');
        self::assertSame('0.5', self::part(200, [-50, 150, -100]), 'what comes takes none away');
        self::assertSame('0', self::part(100, [-100]));
        self::assertSame('0', self::part(100, [-120, 50]), 'oversold, nothing is left of it');
        self::assertSame('0', self::part(0, [10]));
        self::assertSame('0.6', (string) StillHeld::of(BigDecimal::of(100))->moves(BigDecimal::of(-40))
            ->isCountedIn(BigDecimal::of(180))->part->strippedOfTrailingZeros(), 'in sets of four, 60 are 240');
    }

    /** Against the average worked out twice, with the receipt at its own cost and at that with the charge. */
    public function testItIsWhatTheMovingAverageWouldHaveKept(): void
    {
        mt_srand(2026);
        for ($case = 0; $case < 200; ++$case) {
            $held = BigDecimal::of(mt_rand(0, 50));
            $received = BigDecimal::of(mt_rand(1, 100));
            $charge = BigDecimal::of(mt_rand(1, 500));
            $cost = BigDecimal::of(mt_rand(100, 900))->dividedBy(100, 2, RoundingMode::HalfUp);
            $more = $charge->dividedBy($received, 12, RoundingMode::HalfUp);
            $plain = AverageCost::after($held, $cost, $received, $cost);
            $dear = AverageCost::after($held, $cost, $received, $cost->plus($more));
            $held = $held->plus($received);
            $left = StillHeld::of($held);
            for ($n = mt_rand(0, 8); $n > 0; --$n) {
                $units = BigDecimal::of(mt_rand(0, 2) > 0 ? -min(mt_rand(1, 40), $held->toInt() - 1) : mt_rand(1, 60));
                if ($units->isPositive()) {
                    $plain = AverageCost::after($held, $plain, $units, BigDecimal::of(4));
                    $dear = AverageCost::after($held, $dear, $units, BigDecimal::of(4));
                }
                $held = $held->plus($units);
                $left = $left->moves($units);
            }
            self::assertEqualsWithDelta(
                $dear->minus($plain)->multipliedBy($held)->toFloat(),
                $charge->multipliedBy($left->part)->toFloat(),
                0.01,
                'case '.$case,
            );
        }
    }
}
