<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Replenish\CycleService;
use TallBarrel\Core\Replenish\FillRate;
use TallBarrel\Core\Replenish\LeadTimeDemand;
use TallBarrel\Core\Replenish\Undershoot;
use TallBarrel\Core\Replenish\WayDown;

/**
 * The cycle service asked for, played by a simulation of its own that shares nothing with the one the planner uses:
 * orders are kept in a list, demand is drawn by mt_rand from the inverse of a table made here.
 */
final class CycleServiceTest extends TestCase
{
    /** @return iterable<string, array{list<float>, array<int, float>, float}> demand's probabilities by units */
    public static function asked(): iterable
    {
        $lumpy = array_fill(0, 41, 0.0);
        [$lumpy[0], $lumpy[1], $lumpy[5], $lumpy[12], $lumpy[40]] = [0.75, 0.05, 0.1, 0.07, 0.03];
        $empirical = array_fill(0, 31, 0.0);
        foreach ([4, 7, 7, 8, 9, 10, 10, 11, 14, 30] as $seen) {
            $empirical[$seen] += 0.1;
        }
        foreach (
            [
                'Poisson' => self::poisson(12),
                'negative binomial' => self::geometric(9),
                'normal' => self::bell(60, 12),
                'lumpy' => $lumpy,
                'empirical' => $empirical,
            ] as $name => $demand
        ) {
            $lumps = 'lumpy' === $name;
            yield sprintf('%s, lead time fixed', $name) => [$demand, [4 => 1.0], $lumps ? 0.85 : 0.95];
            yield sprintf('%s, lead time varying', $name) => [
                $demand,
                [2 => 0.25, 3 => 0.5, 5 => 0.25],
                $lumps ? 0.95 : 0.85,
            ];
        }
    }

    /**
     * @param list<float>                 $demand
     * @param non-empty-array<int, float> $leads
     */
    #[DataProvider('asked')]
    public function testWhatIsAskedIsPlayed(array $demand, array $leads, float $share): void
    {
        $counts = Counts::of($demand);
        $over = new LeadTimeDemand($counts, $leads);
        $lot = (int) ceil(6 * $counts->mean());
        $point = static fn (int $review, bool $toLevel): int => (int) CycleService::reorderPoint(
            $share,
            $lot,
            $over->with($review),
            $over->with(0),
            $counts->times($review),
            $toLevel,
        );
        $level = static fn (int $review): int => $over->levelForCycles($share, $review);
        $policies = [
            'up to a level, every period' => [null, $level(1), 0, 1],
            'up to a level, every third period' => [null, $level(3), 0, 3],
            'in lots' => [$point(1, false), 0, $lot, 1],
            'in lots, looked at every second period' => [$point(2, false), 0, $lot, 2],
            'up to a level from a point' => [$point(1, true), $point(1, true) + $lot, 0, 1],
            'the same, every second period' => [$point(2, true), $point(2, true) + $lot, 0, 2],
        ];
        foreach ($policies as $name => [$at, $upTo, $fixed, $review]) {
            $play = static fn (int $more): float => self::play(
                self::table($demand),
                $leads,
                null === $at ? null : $at + $more,
                $upTo + $more,
                $fixed,
                $review,
            );
            $off = abs($play(0) - $share);
            if ($off > 0.01) {
                // In whole units there may be no level so near: then none beside it comes nearer.
                self::assertLessThan(min(abs($play(1) - $share), abs($play(-1) - $share)) + 0.004, $off, $name);
            }
            self::assertLessThan(0.05, $off, $name);
        }
    }

    /** Demand that is not in whole units, worked out in steps: normal, mean 10, deviation 3 a period. */
    public function testWhatIsAskedIsPlayedWhereUnitsAreNotWhole(): void
    {
        $over = static fn (int $periods): Distribution => new Normal(10 * $periods, 3 * sqrt($periods));
        foreach ([0.8, 0.955, 0.98] as $share) {
            foreach ([[4, 2, 70.0, true], [4, 7, 40.0, true], [9, 3, 55.0, false], [3, 5, 0.0, true]] as $case) {
                [$lead, $review, $lot, $toLevel] = $case;
                $point = CycleService::reorderPoint(
                    $share,
                    $lot,
                    $over($lead + $review),
                    $over($lead),
                    $over($review),
                    $toLevel,
                );
                $played = self::play(
                    static fn (float $u, float $v): float => max(0.0, 10 + 3 * self::bellDrawn($u, $v)),
                    [$lead => 1.0],
                    $lot > 0 ? $point : null,
                    $point + ($toLevel ? $lot : 0.0),
                    $toLevel ? 0.0 : $lot,
                    $review,
                );
                self::assertEqualsWithDelta($share, $played, 0.01, implode(' ', array_map(strval(...), $case)));
            }
        }
    }

    /** Between the level and the point lies one period's demand of 3: the position is left at the point itself. */
    public function testHowFarBelowThePointItIsOrdered(): void
    {
        $always3 = Counts::of([0.0, 0.0, 0.0, 1.0]);
        self::assertEqualsWithDelta(0.0, Undershoot::of($always3, 6, true)->mean(), 1e-12);
        self::assertEqualsWithDelta(2.0, Undershoot::of($always3, 7, true)->mean(), 1e-12);
        // In lots positions are spread evenly over one to six above the point: 0, 1 or 2 below it, as often.
        self::assertEqualsWithDelta(1.0, Undershoot::of($always3, 6, false)->mean(), 1e-12);
        // Source: Karlin 1958: far from the level the mean is (μ² + σ²)/2μ, less half a unit in whole units.
        $poisson = Counts::poisson(5);
        self::assertEqualsWithDelta((25 + 5) / 10 - 0.5, Undershoot::of($poisson, 200, true)->mean(), 1e-6);
        self::assertEqualsWithDelta((25 + 5) / 10 - 0.5, Undershoot::of($poisson, 200, false)->mean(), 1e-6);
        $normal = new Normal(50, 10);
        self::assertEqualsWithDelta((2500 + 100) / 100, Undershoot::of($normal, 2000, true)->mean(), 1.0);
    }

    /** What fell below the point is what the fill rate of the same levels does not ask for. */
    public function testCyclesAreNotUnits(): void
    {
        $over = static fn (int $periods): Counts => Counts::poisson(10 * $periods);
        $cycles = CycleService::reorderPoint(0.95, 60, $over(5), $over(4), $over(1), true);
        $way = WayDown::of($over(1), 60);
        self::assertGreaterThan(FillRate::reorderPoint(0.95, 60, $over(5), $over(4), $way), $cycles);
    }

    /**
     * The share of arrivals before which nothing was short.
     *
     * @param callable(float, float): float $demand of two numbers drawn above 0 and below 1
     * @param array<int, float>             $leads
     */
    private static function play(
        callable $demand,
        array $leads,
        ?float $point,
        float $upTo,
        float $lot,
        int $review,
        int $periods = 120000,
    ): float {
        mt_srand(20261125);
        $drawn = static fn (): float => (mt_rand() + 0.5) / (mt_getrandmax() + 1);
        $stock = $upTo + $lot + max(0.0, $point ?? 0.0);
        $out = [];
        $ended = $covered = 0;
        $short = false;
        for ($now = 0; $now < $periods; ++$now) {
            $position = $stock + array_sum(array_column($out, 1));
            if (0 === $now % $review && $position <= ($point ?? INF)) {
                $size = $lot > 0 ? $lot * (floor(((float) $point - $position) / $lot) + 1) : $upTo - $position;
                if ($size > 0) {
                    $out[] = [$now + self::oneOf($leads, $drawn()), $size];
                }
            }
            $arrived = array_filter($out, static fn (array $one): bool => $one[0] === $now);
            if ([] !== $arrived) {
                $stock += array_sum(array_column($arrived, 1));
                $out = array_filter($out, static fn (array $one): bool => $one[0] > $now);
                if ($now > 200) {
                    ++$ended;
                    $covered += $short ? 0 : 1;
                }
                $short = false;
            }
            $wanted = $demand($drawn(), $drawn());
            $stock -= $wanted;
            $short = $short || $stock < -1e-9;
        }

        return $covered / $ended;
    }

    /** @param array<int, float> $probabilities by value */
    private static function oneOf(array $probabilities, float $drawn): int
    {
        foreach ($probabilities as $value => $probability) {
            if (($drawn -= $probability) < 0) {
                break;
            }
        }

        return $value ?? 0;
    }

    /** Source: Box & Muller 1958. */
    private static function bellDrawn(float $u, float $v): float
    {
        return sqrt(-2 * log($u)) * cos(2 * \M_PI * $v);
    }

    /**
     * @param list<float> $probabilities
     *
     * @return callable(float, float): float
     */
    private static function table(array $probabilities): callable
    {
        $until = [];
        $sum = 0.0;
        foreach ($probabilities as $probability) {
            $until[] = $sum += $probability;
        }

        return static function (float $u) use ($until, $sum): float {
            [$low, $high] = [0, count($until) - 1];
            while ($low < $high) {
                $middle = intdiv($low + $high, 2);
                [$low, $high] = $until[$middle] < $u * $sum ? [$middle + 1, $high] : [$low, $middle];
            }

            return (float) $low;
        };
    }

    /** @return list<float> */
    private static function poisson(float $mean): array
    {
        $p = [exp(-$mean)];
        for ($k = 1; $k < 4 * $mean + 20; ++$k) {
            $p[] = $p[$k - 1] * $mean / $k;
        }

        return $p;
    }

    /** @return list<float> geometric: negative binomial of size 1 */
    private static function geometric(float $mean): array
    {
        return array_map(static fn (int $k): float => (1 / ($mean + 1)) * ($mean / ($mean + 1)) ** $k, range(0, 160));
    }

    /** @return list<float> */
    private static function bell(float $mean, float $deviation): array
    {
        return array_map(
            static fn (int $k): float => exp(-(($k - $mean) / $deviation) ** 2 / 2),
            range(0, (int) ($mean + 6 * $deviation)),
        );
    }
}
