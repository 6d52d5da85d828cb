<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Replenish\BestReorderLevels;
use TallBarrel\Core\Replenish\DynamicLots;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\FillRate;
use TallBarrel\Core\Replenish\LeadTimeDemand;
use TallBarrel\Core\Replenish\Simulation;
use TallBarrel\Core\Replenish\StockPolicy;
use TallBarrel\Core\Replenish\WayDown;

/** Lot sizes and reorder levels as published; each names its source. */
final class LotSizeAndLevelsTest extends TestCase
{
    /** Source: Wagner & Whitin 1958, the 12-period example. */
    public function testWagnerWhitinsOwnExample(): void
    {
        $plan = DynamicLots::wagnerWhitin(
            [69.0, 29, 36, 61, 61, 26, 34, 67, 45, 67, 79, 56],
            [85.0, 102, 102, 101, 98, 114, 105, 86, 119, 110, 98, 114],
            1.0,
        );
        self::assertEqualsWithDelta(864.0, $plan->cost, 1e-9);
        self::assertSame(
            [1, 3, 5, 8, 10, 11],
            array_map(
                static fn (int $period): int => $period + 1,
                array_keys(array_filter($plan->lots, static fn (float $lot): bool => $lot > 0)),
            ),
        );
    }

    /** Source: Silver, Pyke & Peterson, the 12-month example: A = 54, h = 0.4. */
    public function testSilverMealsExample(): void
    {
        $demand = [10.0, 62, 12, 130, 154, 129, 88, 52, 124, 160, 238, 41];
        $heuristic = DynamicLots::silverMeal($demand, 54.0, 0.4);
        self::assertEqualsWithDelta(501.2, $heuristic->cost, 1e-9);
        self::assertSame(
            [84.0, 130.0, 283.0, 140.0, 124.0, 160.0, 279.0],
            array_values(array_filter($heuristic->lots, static fn (float $lot): bool => $lot > 0)),
        );
        self::assertEqualsWithDelta(501.2, DynamicLots::wagnerWhitin($demand, 54.0, 0.4)->cost, 1e-9);
        self::assertSame(3, $heuristic->firstCovers());
    }

    /** Second witness: no other plan costs less, on small random cases tried in full. */
    public function testNoPlanIsCheaperThanWagnerWhitins(): void
    {
        $draws = new Draws(5);
        for ($case = 0; $case < 40; ++$case) {
            $demand = array_map(static fn (): float => (float) $draws->below(60), range(1, 7));
            $orders = array_map(static fn (): float => (float) (20 + $draws->below(80)), range(1, 7));
            $cheapest = INF;
            for ($plan = 0; $plan < 64; ++$plan) {
                $cost = 0.0;
                $last = 0;
                $units = array_fill(0, 7, 0.0);
                for ($t = 0; $t < 7; ++$t) {
                    $last = 0 === $t || 1 === (($plan >> ($t - 1)) & 1) ? $t : $last;
                    $units[$last] += $demand[$t];
                    $cost += $demand[$t] * ($t - $last);
                }
                foreach ($units as $t => $lot) {
                    $cost += $lot > 0 ? $orders[$t] : 0;
                }
                $cheapest = min($cheapest, $cost);
            }
            self::assertEqualsWithDelta($cheapest, DynamicLots::wagnerWhitin($demand, $orders, 1.0)->cost, 1e-9);
            self::assertGreaterThanOrEqual($cheapest - 1e-9, DynamicLots::silverMeal($demand, $orders, 1.0)->cost);
        }
    }

    /** Source: Heizer & Render (from memory): D = 5000, S = 49, I = 20 %. Second witness: every quantity tried. */
    public function testPriceBreaksForAllUnits(): void
    {
        $breaks = [[0.0, 5.0], [1000.0, 4.8], [2000.0, 4.75]];
        [$quantity, $cost] = EconomicOrderQuantity::allUnits(5000, 49, 0.2, $breaks);
        self::assertEqualsWithDelta(1000.0, $quantity, 1e-9);
        self::assertEqualsWithDelta(24725.0, $cost, 1e-6);
        foreach (range(100, 4000, 10) as $q) {
            $price = $q >= 2000 ? 4.75 : ($q >= 1000 ? 4.8 : 5.0);
            self::assertGreaterThanOrEqual($cost - 1e-6, 5000 * $price + (5000 / $q) * 49 + ($q / 2) * 0.2 * $price);
        }
    }

    /** Hadley & Whitin 1963, section 2-12; witnessed by every quantity tried. */
    public function testPriceBreaksForTheUnitsBeyond(): void
    {
        $breaks = [[0.0, 5.0], [400.0, 4.6], [900.0, 4.2]];
        [$quantity, $cost] = EconomicOrderQuantity::incremental(5000, 49, 0.2, $breaks);
        $best = [0, INF];
        foreach (range(50, 6000) as $q) {
            $goods = min($q, 400) * 5.0 + max(0, min($q, 900) - 400) * 4.6 + max(0, $q - 900) * 4.2;
            $total = (5000 * $goods) / $q + (5000 / $q) * 49 + (0.2 * $goods) / 2;
            $best = $total < $best[1] ? [$q, $total] : $best;
        }
        self::assertEqualsWithDelta($best[0], $quantity, 1.0);
        self::assertEqualsWithDelta($best[1], $cost, 0.01);
    }

    /** Source: Zheng & Federgruen 1991, table 1 (from memory): Poisson mean 10, K = 64, h = 1, p = 9, lead time 0. */
    public function testTheBestLevelsOfThePublishedTable(): void
    {
        $demand = Counts::poisson(10);
        $best = BestReorderLevels::of($demand, $demand, 64, 1, 9);
        self::assertSame([6, 40], [$best->reorderPoint, $best->orderUpTo]);
        self::assertEqualsWithDelta(35.02, $best->costPerPeriod, 0.005);
    }

    /** Second witness: every pair of levels tried, over the renewal cost. */
    public function testNoOtherLevelsCostLess(): void
    {
        foreach (
            [
                [Counts::poisson(4), 0, 20.0, 1.0, 6.0],
                [Counts::negativeBinomial(5, 15), 2, 30.0, 0.5, 8.0],
                [Counts::poisson(2), 1, 5.0, 1.0, 20.0],
            ] as [$demand, $lead, $order, $holding, $shortage]
        ) {
            $until = $demand->times($lead + 1);
            $best = BestReorderLevels::of($demand, $until, $order, $holding, $shortage);
            $cheapest = INF;
            for ($s = -5; $s < 40; ++$s) {
                for ($top = $s + 1; $top < 70; ++$top) {
                    $cheapest = min(
                        $cheapest,
                        BestReorderLevels::costOf($s, $top, $demand, $until, $order, $holding, $shortage),
                    );
                }
            }
            self::assertEqualsWithDelta($cheapest, $best->costPerPeriod, 1e-9);
        }
    }

    /** The cost found by theory is the cost of the play. */
    public function testTheSimulationCostsWhatTheTheorySays(): void
    {
        $demand = Counts::poisson(10);
        foreach ([0, 2] as $lead) {
            $best = BestReorderLevels::of($demand, $demand->times($lead + 1), 64, 1, 9);
            $draws = new Draws(11);
            $policy = StockPolicy::upTo($best->reorderPoint, $best->orderUpTo);
            $played = Simulation::run(
                40000,
                static fn (): StockPolicy => $policy,
                static fn (): float => $draws->of($demand),
                static fn (): int => $lead,
                1,
                64,
                1,
                9,
                true,
                500,
            );
            self::assertEqualsWithDelta(1.0, $played->costPerPeriod / $best->costPerPeriod, 0.01, 'lead time '.$lead);
        }
    }

    /** Newsvendor: with no order cost the best level is the quantile at p / (p + h) (Arrow, Harris & Marschak 1951). */
    public function testWithoutOrderCostTheBestLevelIsTheCriticalQuantile(): void
    {
        $demand = Counts::poisson(20);
        foreach ([[1.0, 9.0], [1.0, 3.0], [2.0, 38.0]] as [$holding, $shortage]) {
            self::assertSame(
                (int) $demand->quantile($shortage / ($shortage + $holding)),
                BestReorderLevels::of($demand, $demand, 0, $holding, $shortage)->orderUpTo,
            );
        }
    }

    /** @return iterable<string, array{Distribution, array<int, float>, float}> */
    public static function services(): iterable
    {
        foreach (
            [
                'Poisson' => Counts::poisson(20),
                'negative binomial' => Counts::negativeBinomial(20, 70),
                'normal' => new Normal(60, 15),
            ] as $name => $demand
        ) {
            foreach (['fixed' => [3 => 1.0], 'varying' => [2 => 0.25, 3 => 0.5, 5 => 0.25]] as $how => $leads) {
                foreach ([0.9, 0.95, 0.98, 0.99] as $share) {
                    yield sprintf('%s, lead time %s, %g', $name, $how, $share) => [$demand, $leads, $share];
                }
            }
        }
    }

    /**
     * The fill rate reached in play lies within one point of the one asked for.
     *
     * @param non-empty-array<int, float> $leads
     */
    #[DataProvider('services')]
    public function testTheFillRateAskedForIsReached(Distribution $demand, array $leads, float $share): void
    {
        $whole = Counts::rounding($demand);
        $over = new LeadTimeDemand($whole, $leads);
        $lot = ceil(5 * $demand->mean());
        $policies = [
            'up to a level, every period' => [StockPolicy::always($over->levelFor($share, 1)), 1],
            'up to a level, every fourth period' => [StockPolicy::always($over->levelFor($share, 4)), 4],
            'in lots' => [
                StockPolicy::inLots(FillRate::reorderPoint($share, $lot, $over->with(1), $over->with(0)), $lot),
                1,
            ],
        ];
        $point = FillRate::reorderPoint(
            $share,
            $lot,
            $over->with(2),
            $over->with(0),
            WayDown::of($whole->times(2), $lot),
        );
        $policies['up to a level from a reorder point'] = [StockPolicy::upTo($point, $point + $lot), 2];
        $leadDraw = Counts::of(array_values(array_replace(array_fill(0, max(array_keys($leads)) + 1, 0.0), $leads)));
        foreach ($policies as $name => [$policy, $review]) {
            $draws = new Draws(3);
            $leadDraws = new Draws(4);
            $played = Simulation::run(
                20000,
                static fn (): StockPolicy => $policy,
                static fn (): float => max(0.0, $draws->of($demand)),
                static fn (): int => (int) $leadDraws->of($leadDraw),
                $review,
                warmUp: 200,
            );
            self::assertEqualsWithDelta($share, $played->fillRate, 0.01, $name);
        }
    }

    /** @return iterable<string, array{float, float}> deviation of the demand of a review period of 10, and the lot */
    public static function waysDown(): iterable
    {
        foreach ([1.0, 2.0, 3.0, 5.0] as $deviation) {
            foreach ([8.0, 12.0, 15.0, 25.0, 60.0] as $lot) {
                yield sprintf('10 ± %g, %g at a time', $deviation, $lot) => [$deviation, $lot];
            }
        }
    }

    /**
     * Up to a level, with demand that is not whole: even demand comes down in few steps, so that the position stands at
     * few places, not anywhere above the reorder point. Played with a lead time and a review of one period each.
     */
    #[DataProvider('waysDown')]
    public function testTheFillRateUpToALevelIsReachedHoweverEvenDemandIs(float $deviation, float $lot): void
    {
        $demand = new Normal(10.0, $deviation);
        $point = FillRate::reorderPoint(
            0.95,
            $lot,
            new Normal(20.0, $deviation * sqrt(2)),
            $demand,
            WayDown::of($demand, $lot),
        );
        $draws = new Draws(11);
        $played = Simulation::run(
            20000,
            static fn (): StockPolicy => StockPolicy::upTo($point, $point + $lot),
            static fn (): float => max(0.0, $draws->of($demand)),
            static fn (): int => 1,
            1,
            warmUp: 200,
        );
        self::assertEqualsWithDelta(0.95, $played->fillRate, 0.01);
    }
}
