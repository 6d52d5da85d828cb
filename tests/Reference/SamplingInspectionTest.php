<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\SamplingPlan;

/**
 * Against ISO 2859-1:1999, tables 1 (level II) and 2-A, single sampling, normal inspection; the same as MIL-STD-105E,
 * tables I and II-A. The values are from memory; their second witness is the operating curve below.
 */
final class SamplingInspectionTest extends TestCase
{
    /** @return iterable<string, array{int, string, int, int}> lot, limit, sample, accepted */
    public static function plans(): iterable
    {
        yield 'D, none' => [26, '1.5', 8, 0];
        yield 'D to its end' => [50, '1.5', 8, 0];
        yield 'E points back to D' => [51, '1.5', 8, 0];
        yield 'F points on to G' => [91, '1.5', 32, 1];
        yield 'G' => [280, '1.5', 32, 1];
        yield 'H' => [281, '1.5', 50, 2];
        yield 'J at 1.0' => [1000, '1.0', 80, 2];
        yield 'K at 1.0' => [1201, '1.0', 125, 3];
        yield 'L at 1.0' => [3201, '1.0', 200, 5];
        yield 'C points back to B' => [16, '4.0', 3, 0];
        yield 'D points on to E' => [26, '4.0', 13, 1];
        yield 'B at 4.0' => [10, '4.0', 3, 0];
        yield 'A at 6.5' => [2, '6.5', 2, 0];
        yield 'C at 10' => [5, '10', 5, 1];
        yield 'J at 10' => [600, '10', 80, 14];
        yield 'the largest number there is' => [1_000_000, '10', 125, 21];
        yield 'never more than there are' => [30, '0.10', 30, 0];
    }

    #[DataProvider('plans')]
    public function testPlansAreThoseOfTheTables(int $lot, string $limit, int $sample, int $accepted): void
    {
        $plan = SamplingPlan::of($lot, $limit);

        self::assertSame([$sample, $accepted], [$plan->sample, $plan->accepted]);
        self::assertTrue($plan->accepts($accepted));
        self::assertFalse($plan->accepts($accepted + 1));
    }

    /**
     * What the standard promises of its plans: a lot as good as the limit is taken nearly always (the curves of table
     * 10 begin between 0.86 and 0.99 at the limit), one ten times as bad hardly ever. Exact binomial probabilities.
     */
    public function testAGoodLotIsTakenNearlyAlwaysAndABadOneHardlyEver(): void
    {
        foreach (['0.40', '0.65', '1.0', '1.5', '2.5', '4.0'] as $limit) {
            foreach ([200, 400, 1000, 3000, 9000, 30_000] as $lot) {
                $plan = SamplingPlan::of($lot, $limit);
                $good = self::taken($plan, (float) $limit / 100);
                $bad = self::taken($plan, min(0.9, (float) $limit / 10));

                self::assertGreaterThan(0.86, $good, "lot $lot at $limit");
                self::assertLessThan(0.3, $bad, "lot $lot at $limit");
            }
        }
        self::assertEqualsWithDelta(0.9165, self::taken(SamplingPlan::of(200, '1.5'), 0.015), 5e-4);
    }

    private static function taken(SamplingPlan $plan, float $bad): float
    {
        $chance = $term = (1 - $bad) ** $plan->sample;
        for ($k = 1; $k <= $plan->accepted; ++$k) {
            $term *= ($plan->sample - $k + 1) / $k * $bad / (1 - $bad);
            $chance += $term;
        }

        return $chance;
    }

    public function testWhatIsNoLotOrNoLimitIsRefused(): void
    {
        foreach ([[0, '1.5', 'nothing to inspect'], [10, '1.4', '“1.4” is no limit']] as [$lot, $limit, $words]) {
            try {
                SamplingPlan::of($lot, $limit);
                self::fail('not refused');
            } catch (InvalidValue $invalid) {
                self::assertStringContainsString($words, $invalid->getMessage());
            }
        }
    }
}
