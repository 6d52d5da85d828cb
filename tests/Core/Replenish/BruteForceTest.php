<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use TallBarrel\Core\Replenish\BudgetCut;
use TallBarrel\Core\Replenish\BudgetLimit;
use TallBarrel\Core\Replenish\BudgetLine;
use TallBarrel\Core\Replenish\DynamicLots;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\Reason;

/** Lots, order quantities and budgets beside a search over everything there is to choose from. */
final class BruteForceTest extends TestCase
{
    private Randomizer $drawn;

    protected function setUp(): void
    {
        $this->drawn = new Randomizer(new Mt19937(1958));
    }

    /**
     * The least cost over all ways to choose periods to order in.
     *
     * @param list<float> $demand
     * @param list<float> $orders
     */
    private static function leastOverAll(array $demand, array $orders, float $holding): float
    {
        $count = count($demand);
        $least = INF;
        for ($chosen = 0; $chosen < 2 ** $count; ++$chosen) {
            $cost = 0.0;
            $last = null;
            for ($t = 0; $t < $count && $cost < INF; ++$t) {
                if (0 !== ($chosen & (1 << $t))) {
                    $last = $t;
                    $cost += $orders[$t];
                }
                if ($demand[$t] > 0) {
                    $cost = null === $last ? INF : $cost + $holding * ($t - $last) * $demand[$t];
                }
            }
            $least = min($least, $cost);
        }

        return $least;
    }

    public function testNoPlanOfLotsIsCheaperThanTheDynamicOne(): void
    {
        for ($round = 0; $round < 60; ++$round) {
            $count = $this->drawn->getInt(1, 8);
            $demand = $orders = [];
            for ($t = 0; $t < $count; ++$t) {
                $demand[] = 0 === $this->drawn->getInt(0, 3) ? 0.0 : (float) $this->drawn->getInt(1, 90);
                $orders[] = (float) $this->drawn->getInt(20, 140);
            }
            $holding = $this->drawn->getInt(1, 20) / 10;
            $plan = DynamicLots::wagnerWhitin($demand, $orders, $holding);
            self::assertEqualsWithDelta(self::leastOverAll($demand, $orders, $holding), $plan->cost, 1e-9);
            self::assertEqualsWithDelta(array_sum($demand), array_sum($plan->lots), 1e-9);
            self::assertCount($count, $plan->lots);
            // What it says it costs is what its lots cost.
            $cost = $stock = 0.0;
            foreach ($plan->lots as $t => $lot) {
                $cost += $lot > 0 ? $orders[$t] : 0.0;
                $stock += $lot - $demand[$t];
                self::assertGreaterThanOrEqual(-1e-9, $stock, 'nothing is short');
                $cost += $holding * $stock;
            }
            self::assertEqualsWithDelta($plan->cost, $cost, 1e-9);
        }
    }

    public function testOneCostOfOrderingIsThatOfEveryPeriod(): void
    {
        $demand = [10.0, 0.0, 62.0, 12.0, 130.0];
        self::assertEquals(
            DynamicLots::wagnerWhitin($demand, array_fill(0, 5, 54.0), 0.4),
            DynamicLots::wagnerWhitin($demand, 54.0, 0.4),
        );
    }

    /**
     * Cost a year of ordering so many at a time, at incremental discounts (Hadley & Whitin 1963, 2-12).
     *
     * @param list<array{float, float}> $breaks
     */
    private static function yearly(float $quantity, float $demand, float $order, float $share, array $breaks): float
    {
        $goods = 0.0;
        foreach ($breaks as $i => [$from, $price]) {
            $until = min($quantity, $breaks[$i + 1][0] ?? INF);
            $goods += $price * max(0.0, $until - $from);
        }

        return ($demand / $quantity) * ($order + $goods) + ($share * $goods) / 2;
    }

    public function testNoOrderQuantityIsCheaperUnderIncrementalDiscounts(): void
    {
        for ($round = 0; $round < 40; ++$round) {
            $demand = (float) $this->drawn->getInt(200, 5000);
            $order = (float) $this->drawn->getInt(5, 120);
            $share = $this->drawn->getInt(10, 40) / 100;
            $price = $this->drawn->getInt(100, 900) / 100;
            $from = (float) $this->drawn->getInt(50, 400);
            $breaks = [[0.0, $price], [$from, 0.96 * $price], [3 * $from, 0.9 * $price]];
            [$quantity, $cost] = EconomicOrderQuantity::incremental($demand, $order, $share, $breaks);
            self::assertEqualsWithDelta(self::yearly($quantity, $demand, $order, $share, $breaks), $cost, 1e-6);
            $least = INF;
            for ($q = 1.0; $q <= 3 * $demand; $q *= 1.002) {
                $least = min($least, self::yearly($q, $demand, $order, $share, $breaks));
            }
            self::assertLessThanOrEqual($least + 1e-9, $cost);
            self::assertEqualsWithDelta($least, $cost, 1e-4 * $least, 'and the grid comes close to it');
        }
    }

    /**
     * @param array<int, BudgetLine> $lines
     * @param list<BudgetLimit>      $limits
     */
    private static function leastLost(array $lines, array $limits): float
    {
        $least = INF;
        $keys = array_keys($lines);
        for ($out = 0; $out < 2 ** count($keys); ++$out) {
            $lost = 0.0;
            $gone = [];
            foreach ($keys as $i => $key) {
                if (0 !== ($out & (1 << $i))) {
                    $lost += $lines[$key]->loss;
                    $gone[$key] = true;
                }
            }
            $fits = true;
            foreach ($limits as $limit) {
                $fits = $fits && array_sum(array_diff_key($limit->values, $gone)) <= $limit->left + 1e-9;
            }
            if ($fits) {
                $least = min($least, $lost);
            }
        }

        return $least;
    }

    /** @return array<int, BudgetLine> */
    private function lines(int $count): array
    {
        $lines = [];
        for ($i = 0; $i < $count; ++$i) {
            $lines[100 + $i] = new BudgetLine(
                (float) $this->drawn->getInt(5, 120),
                (float) $this->drawn->getInt(0, 60),
                Reason::BelowReorderPoint,
            );
        }

        return $lines;
    }

    public function testNoOtherChoiceWithinABudgetRisksLess(): void
    {
        for ($round = 0; $round < 50; ++$round) {
            $lines = $this->lines($this->drawn->getInt(1, 10));
            $values = array_map(static fn (BudgetLine $line): float => $line->value, $lines);
            $limit = new BudgetLimit(array_sum($values) * $this->drawn->getInt(0, 110) / 100, $values);
            $cut = BudgetCut::within($lines, [$limit]);
            $kept = array_sum(array_diff_key($values, array_flip($cut->out)));
            self::assertLessThanOrEqual($limit->left + 1e-6, $kept);
            $lost = array_sum(array_map(static fn (int $key): float => $lines[$key]->loss, $cut->out));
            $least = self::leastLost($lines, [$limit]);
            self::assertGreaterThanOrEqual($least - 1e-9, $lost);
            self::assertLessThanOrEqual($cut->gap + 1e-6, $lost - $least, 'no further from the best than it says');
        }
    }

    public function testSeveralBudgetsAreKeptAtOnceAndTheGapIsHonest(): void
    {
        for ($round = 0; $round < 50; ++$round) {
            $lines = $this->lines(9);
            $limits = [];
            foreach ([0, 3, 6] as $from) {
                $some = array_slice($lines, $from, 0 === $from ? null : 3, true);
                $values = array_map(static fn (BudgetLine $line): float => $line->value, $some);
                $limits[] = new BudgetLimit(array_sum($values) * $this->drawn->getInt(30, 100) / 100, $values);
            }
            $cut = BudgetCut::within($lines, $limits);
            foreach ($limits as $limit) {
                self::assertLessThanOrEqual(
                    $limit->left + 1e-6,
                    array_sum(array_diff_key($limit->values, array_flip($cut->out))),
                );
            }
            $lost = array_sum(array_map(static fn (int $key): float => $lines[$key]->loss, $cut->out));
            $least = self::leastLost($lines, $limits);
            self::assertGreaterThanOrEqual($least - 1e-9, $lost);
            self::assertLessThanOrEqual($cut->gap + 1e-6, $lost - $least);
        }
    }
}
