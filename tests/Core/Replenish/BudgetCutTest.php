<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Replenish\BudgetCut;
use TallBarrel\Core\Replenish\BudgetLimit;
use TallBarrel\Core\Replenish\BudgetLine;
use TallBarrel\Core\Replenish\Reason;

final class BudgetCutTest extends TestCase
{
    public function testWhatCostsLeastToLeaveOutGoes(): void
    {
        $lines = [
            1 => self::line(100.0, 50.0),
            2 => self::line(100.0, 5.0),
            3 => self::line(300.0, 90.0),
            4 => self::line(80.0, 0.0, Reason::Rush),
        ];
        self::assertSame([], BudgetCut::of($lines, 580)->out, 'to the last cent');
        self::assertSame([2], BudgetCut::of($lines, 579.99)->out);
        self::assertSame([2], BudgetCut::of($lines, 500)->out);
        self::assertSame([1, 2], BudgetCut::of($lines, 380)->out, '90 saved with 300 is more than 55 with 200');
        self::assertSame([1, 2, 3], BudgetCut::of($lines, 20)->out, 'a waiting customer is kept, whatever the budget');
    }

    public function testTheChoiceIsTheBestAndNotTheGreedyOne(): void
    {
        // By loss for the money the first is taken, and then nothing fits any more.
        $lines = [1 => self::line(60.0, 61.0), 2 => self::line(50.0, 50.0), 3 => self::line(50.0, 50.0)];
        self::assertSame([1], BudgetCut::of($lines, 100)->out);
        self::assertSame(0.0, BudgetCut::of($lines, 100)->gap);
    }

    public function testAnEmptyShelfIsFilledBeforeAnythingBoughtAhead(): void
    {
        $lines = [
            1 => self::line(100.0, 40.0, Reason::PriceRise),
            2 => self::line(100.0, 1.0, Reason::Out),
            3 => self::line(100.0, 2.0, Reason::BelowReorderPoint),
        ];
        self::assertSame([1, 3], BudgetCut::of($lines, 100)->out);
        self::assertSame([3], BudgetCut::of($lines, 200)->out, 'a saving counts like a margin');
    }

    public function testEqualsAreDecidedByMoney(): void
    {
        $lines = [1 => self::line(70.0, 0.0), 2 => self::line(20.0, 0.0), 3 => self::line(30.0, 0.0)];
        self::assertSame([1], BudgetCut::of($lines, 100)->out, 'the dearest is left out');
        self::assertSame([], BudgetCut::of([1 => self::line(0.0, 0.0)], -10.0)->out, 'what costs nothing is never cut');
    }

    /** Against trying every choice. */
    public function testItIsTheBestOfAllChoices(): void
    {
        mt_srand(11);
        for ($round = 0; $round < 200; ++$round) {
            $lines = [];
            $count = mt_rand(1, 9);
            for ($key = 0; $key < $count; ++$key) {
                $lines[$key] = self::line(mt_rand(100, 90000) / 100, mt_rand(0, 5000) / 100);
            }
            $budget = mt_rand(0, 200000) / 100;
            $least = INF;
            for ($choice = 0; $choice < 1 << $count; ++$choice) {
                $value = $loss = 0.0;
                foreach ($lines as $key => $line) {
                    $value += 0 === ($choice >> $key & 1) ? 0.0 : $line->value;
                    $loss += 0 === ($choice >> $key & 1) ? $line->loss : 0.0;
                }
                $least = $value <= $budget + 1e-9 ? min($least, $loss) : $least;
            }
            $cut = BudgetCut::of($lines, $budget);
            $out = array_flip($cut->out);
            $kept = array_sum(
                array_map(static fn (BudgetLine $line): float => $line->value, array_diff_key($lines, $out)),
            );
            $lost = array_sum(
                array_map(static fn (BudgetLine $line): float => $line->loss, array_intersect_key($lines, $out)),
            );
            self::assertLessThanOrEqual($budget + 1e-6, $kept);
            self::assertEqualsWithDelta($least, $lost, 0.006, 'round '.$round);
            self::assertSame(0.0, $cut->gap);
        }
    }

    /** Many lines of like worth are hard to prove; what is found is then within the gap that is told. */
    public function testAGapIsToldWhereTheBestIsNotProven(): void
    {
        mt_srand(3);
        $lines = [];
        for ($key = 0; $key < 400; ++$key) {
            $value = 1000 + mt_rand(0, 99999) / 100;
            $lines[$key] = self::line($value, $value / 10 + 1);
        }
        $cut = BudgetCut::of($lines, 200000.0);
        $lost = array_sum(array_map(static fn (int $key): float => $lines[$key]->loss, $cut->out));
        $all = array_sum(array_map(static fn (BudgetLine $line): float => $line->loss, $lines));
        // A unit of money saves a tenth, and a line one more: with 200,000 at most 20,000 and 200 (no line is below
        // 1,000).
        self::assertLessThanOrEqual(20200.0, $all - $lost);
        self::assertGreaterThan(20100.0, $all - $lost);
        self::assertLessThan(2.0, $cut->gap);
    }

    /** Months and categories together, against every choice: all kept, and no worse than the gap that is told. */
    public function testSeveralBudgetsAreKeptAndTheGapTellsHowFarOff(): void
    {
        mt_srand(12);
        $exact = 0;
        for ($round = 0; $round < 200; ++$round) {
            $lines = $hives = $january = [];
            $count = mt_rand(2, 9);
            for ($key = 0; $key < $count; ++$key) {
                $lines[$key] = self::line(mt_rand(100, 90000) / 100, mt_rand(0, 5000) / 100);
                if (mt_rand(0, 1) > 0) {
                    $hives[$key] = $lines[$key]->value;
                }
                $january[$key] = $lines[$key]->value / mt_rand(1, 3);
            }
            $limits = [
                new BudgetLimit(
                    mt_rand(0, 250000) / 100,
                    array_map(static fn (BudgetLine $one): float => $one->value, $lines),
                ),
                new BudgetLimit(mt_rand(0, 90000) / 100, $hives),
                new BudgetLimit(mt_rand(0, 150000) / 100, $january),
            ];
            $least = INF;
            for ($choice = 0; $choice < 1 << $count; ++$choice) {
                $kept = array_filter(
                    $lines,
                    static fn (int $key): bool => 1 === ($choice >> $key & 1),
                    \ARRAY_FILTER_USE_KEY,
                );
                if (self::keeps($kept, $limits)) {
                    $least = min($least, self::lost(array_diff_key($lines, $kept)));
                }
            }
            $cut = BudgetCut::within($lines, $limits);
            $out = array_intersect_key($lines, array_flip($cut->out));
            self::assertTrue(self::keeps(array_diff_key($lines, $out), $limits), 'round '.$round);
            self::assertLessThanOrEqual($least + $cut->gap + 0.006, self::lost($out), 'round '.$round);
            $exact += self::lost($out) < $least + 0.006 ? 1 : 0;
        }
        self::assertGreaterThan(170, $exact, 'nearly always it is the best');
    }

    /**
     * @param array<int, BudgetLine> $kept
     * @param list<BudgetLimit>      $limits
     */
    private static function keeps(array $kept, array $limits): bool
    {
        foreach ($limits as $limit) {
            if (array_sum(array_intersect_key($limit->values, $kept)) > $limit->left + 1e-6) {
                return false;
            }
        }

        return true;
    }

    /** @param array<int, BudgetLine> $out */
    private static function lost(array $out): float
    {
        return array_sum(array_map(static fn (BudgetLine $line): float => $line->loss, $out));
    }

    private static function line(float $value, float $loss, Reason $reason = Reason::BelowReorderPoint): BudgetLine
    {
        return new BudgetLine($value, $loss, $reason);
    }
}
