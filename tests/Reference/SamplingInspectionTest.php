<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\InspectedLot;
use TallBarrel\Core\Receiving\InspectionLevel;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Core\Receiving\Severity;
use TallBarrel\Core\Receiving\SwitchingRules;

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
     * Whole columns of table 2-A and one each of 2-B and 2-C, by the letters from A to R (memory): sample, how many bad
     * are accepted, and from how many it is refused where that is not one more; where an arrow stands, what it points
     * to.
     *
     * @return iterable<string, array{string, Severity, list<array{0: int, 1: int, 2?: int}>}>
     */
    public static function columns(): iterable
    {
        yield '1.0' => ['1.0', Severity::Normal, [
            [13, 0], [13, 0], [13, 0], [13, 0], [13, 0], [13, 0], [50, 1], [50, 1], [80, 2], [125, 3], [200, 5],
            [315, 7], [500, 10], [800, 14], [1250, 21],
        ]];
        yield '2.5' => ['2.5', Severity::Normal, [
            [5, 0], [5, 0], [5, 0], [5, 0], [20, 1], [20, 1], [32, 2], [50, 3], [80, 5], [125, 7], [200, 10],
            [315, 14], [500, 21], [500, 21], [500, 21],
        ]];
        yield '6.5' => ['6.5', Severity::Normal, [
            [2, 0], [2, 0], [8, 1], [8, 1], [13, 2], [20, 3], [32, 5], [50, 7], [80, 10], [125, 14], [200, 21],
            [200, 21], [200, 21], [200, 21], [200, 21],
        ]];
        yield '1.0, tightened' => ['1.0', Severity::Tightened, [
            [20, 0], [20, 0], [20, 0], [20, 0], [20, 0], [20, 0], [80, 1], [80, 1], [80, 1], [125, 2], [200, 3],
            [315, 5], [500, 8], [800, 12], [1250, 18],
        ]];
        yield '1.0, reduced' => ['1.0', Severity::Reduced, [
            [5, 0], [5, 0], [5, 0], [5, 0], [5, 0], [5, 0], [20, 0, 2], [20, 0, 2], [32, 1, 3], [50, 1, 4],
            [80, 2, 5], [125, 3, 6], [200, 5, 8], [315, 7, 10], [500, 10, 13],
        ]];
    }

    /**
     * The sizes of lots of table 1, each from its least to its most, at level II.
     *
     * @param list<array{0: int, 1: int, 2?: int}> $column
     */
    #[DataProvider('columns')]
    public function testWholeColumnsAreThoseOfTheTables(string $limit, Severity $severity, array $column): void
    {
        $most = [8, 15, 25, 50, 90, 150, 280, 500, 1200, 3200, 10_000, 35_000, 150_000, 500_000, 9_000_000];
        foreach ($most as $size => $lot) {
            [$sample, $accepted, $refused] = [...$column[$size], $column[$size][1] + 1];
            foreach ([1 + ($most[$size - 1] ?? 1), $lot] as $of) {
                $plan = SamplingPlan::of($of, $limit, $severity);
                // Of fewer than the sample all are looked at.
                self::assertSame(
                    [min($of, $sample), $accepted, $refused],
                    [$plan->sample, $plan->accepted, $plan->refused],
                    "lot $of at $limit",
                );
            }
        }
    }

    /** Table 1 (memory): the letters of levels I, II and III by the size of the lot. */
    public function testLettersByTheSizeOfTheLot(): void
    {
        $table = ['AAB', 'ABC', 'BCD', 'CDE', 'CEF', 'DFG', 'EGH', 'FHJ', 'GJK', 'HKL', 'JLM', 'KMN', 'LNP', 'MPQ',
            'NQR'];
        foreach ($table as $size => $letters) {
            foreach ([InspectionLevel::One, InspectionLevel::Two, InspectionLevel::Three] as $n => $level) {
                self::assertSame($letters[$n], 'ABCDEFGHJKLMNPQR'[$level->letter($size)], "$level->value, size $size");
            }
        }
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

    /**
     * @return iterable<string, array{int, string, Severity, int, int, int}> lot, limit; sample, accepted, refused.
     *                                                                       MIL-STD-105E, tables II-B and II-C; the
     *                                                                       ones of K at 0.65 also in D. C. Montgomery,
     *                                                                       Introduction to Statistical Quality
     *                                                                       Control, chapter on acceptance sampling
     *                                                                       (memory)
     */
    public static function stricter(): iterable
    {
        yield 'K at 0.65, tightened' => [2000, '0.65', Severity::Tightened, 125, 1, 2];
        yield 'K at 0.65, reduced' => [2000, '0.65', Severity::Reduced, 50, 1, 3];
        yield 'J at 1.0, tightened' => [1000, '1.0', Severity::Tightened, 80, 1, 2];
        yield 'F accepts none at 1.0, tightened' => [150, '1.0', Severity::Tightened, 20, 0, 1];
        yield 'G points on to J, tightened' => [280, '1.0', Severity::Tightened, 80, 1, 2];
        yield 'L at 4.0, tightened' => [5000, '4.0', Severity::Tightened, 200, 12, 13];
        yield 'the largest, tightened' => [1_000_000, '10', Severity::Tightened, 125, 18, 19];
        yield 'J at 1.0, reduced' => [1000, '1.0', Severity::Reduced, 32, 1, 3];
        yield 'H at 1.0, reduced' => [400, '1.0', Severity::Reduced, 20, 0, 2];
        yield 'A at 6.5, reduced' => [8, '6.5', Severity::Reduced, 2, 0, 1];
        yield 'L at 1.0, reduced' => [5000, '1.0', Severity::Reduced, 80, 2, 5];
    }

    #[DataProvider('stricter')]
    public function testTightenedAndReducedPlansAreThoseOfTheTables(
        int $lot,
        string $limit,
        Severity $severity,
        int $sample,
        int $accepted,
        int $refused,
    ): void {
        $plan = SamplingPlan::of($lot, $limit, $severity);

        self::assertSame([$sample, $accepted, $refused], [$plan->sample, $plan->accepted, $plan->refused]);
        self::assertTrue($plan->accepts($refused - 1));
        self::assertFalse($plan->accepts($refused));
        self::assertTrue($plan->endsReduced($accepted + 1));
        self::assertFalse($plan->endsReduced($accepted));
    }

    /** MIL-STD-105E, table I, and II-A (memory): 1,000 have letter G at level I, J at II, K at III. */
    public function testTheLevelSaysHowManyAreLookedAt(): void
    {
        $of = static fn (int $lot, InspectionLevel $level): array => [
            ($plan = SamplingPlan::of($lot, '1.0', Severity::Normal, $level))->sample, $plan->accepted,
        ];
        self::assertSame([50, 1], $of(1000, InspectionLevel::One), 'G points on to H');
        self::assertSame([13, 0], $of(300, InspectionLevel::One), 'F points back to E');
        self::assertSame([80, 2], $of(1000, InspectionLevel::Two));
        self::assertSame([125, 3], $of(1000, InspectionLevel::Three));
        self::assertSame(
            2000,
            SamplingPlan::of(1_000_000, '0.10', Severity::Normal, InspectionLevel::Three)->sample,
            'letter R',
        );
    }

    public function testTightenedTakesLessOftenThanNormalWhateverTheLot(): void
    {
        foreach (array_slice(SamplingPlan::LIMITS, 3, -1) as $limit) {
            foreach ([51, 91, 200, 400, 1000, 3000, 9000, 30_000] as $lot) {
                foreach ([1.0, 2.0, 4.0] as $times) {
                    $bad = min(0.5, $times * (float) $limit / 100);
                    self::assertLessThanOrEqual(
                        self::taken(SamplingPlan::of($lot, $limit), $bad) + 1e-12,
                        self::taken(SamplingPlan::of($lot, $limit, Severity::Tightened), $bad),
                        "lot $lot at $limit",
                    );
                }
            }
        }
        // Exact binomial, by Python's integers: 125 looked at, one bad taken, of 0.65 % bad.
        self::assertEqualsWithDelta(
            0.804514369,
            self::taken(SamplingPlan::of(2000, '0.65', Severity::Tightened), 0.0065),
            1e-9,
        );
    }

    /** @return iterable<string, array{string, bool, Severity, bool}> g good, b bad but taken, r refused; then what */
    public static function histories(): iterable
    {
        yield 'nothing yet' => ['', false, Severity::Normal, false];
        yield 'one refused' => ['gr', false, Severity::Normal, false];
        yield 'two of five' => ['rgggr', false, Severity::Tightened, false];
        yield 'two of six' => ['rggggr', false, Severity::Normal, false];
        yield 'four taken since' => ['rrgggg', false, Severity::Tightened, false];
        yield 'five taken since' => ['rrggggg', false, Severity::Normal, false];
        yield 'the count begins anew' => ['rrggrgggg', false, Severity::Tightened, false];
        yield 'refused before is forgotten' => ['rrgggggr', false, Severity::Normal, false];
        yield 'four refused while tightened' => ['rrrrrr', false, Severity::Tightened, false];
        yield 'five refused while tightened' => ['rrrrrrr', false, Severity::Tightened, true];
        yield 'good for long, not wanted' => [str_repeat('g', 30), false, Severity::Normal, false];
        yield 'nine good ones' => [str_repeat('g', 9), true, Severity::Normal, false];
        yield 'ten good ones, three each' => [str_repeat('g', 10), true, Severity::Reduced, false];
        yield 'one that a stricter limit would refuse' => ['ggggbgggggg', true, Severity::Normal, false];
        yield 'refused when reduced' => [str_repeat('g', 10).'r', true, Severity::Normal, false];
        yield 'taken when reduced, but for the last time' => [str_repeat('g', 10).'b', true, Severity::Normal, false];
    }

    /** Lots of 1,000 at 1.0 %: 80 looked at, 2 accepted; at 0.65 % 1; reduced 32, 1, refused from 3. */
    #[DataProvider('histories')]
    public function testHowStrictlyTheNextLotIsJudgedFollowsFromThoseBefore(
        string $lots,
        bool $reduces,
        Severity $severity,
        bool $stopped,
    ): void {
        $found = array_map(static fn (string $one): InspectedLot => match ($one) {
            'g' => new InspectedLot(1000, 0, true),
            'b' => new InspectedLot(1000, 2, true),
            default => new InspectedLot(1000, 5, false),
        }, '' === $lots ? [] : str_split($lots));
        $next = SwitchingRules::after($found, '1.0', $reduces);

        self::assertSame([$severity, $stopped], [$next->severity, $next->isStopped]);
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
