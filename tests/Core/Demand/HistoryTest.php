<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Mark;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\Stage;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;

/** What is read out of a history before anything is forecast. */
final class HistoryTest extends TestCase
{
    /** @param array<int, float> $odd */
    private static function steady(int $weeks, array $odd = []): WeeklyHistory
    {
        $sold = array_map(
            static fn (int $week): float => $odd[$week] ?? 40.0 + 7 * sin($week * 1.7),
            range(0, $weeks - 1),
        );

        return WeeklyHistory::of($sold, array_fill(0, $weeks, 0));
    }

    public function testAOneOffBulkSaleIsTakenForItsNeighbours(): void
    {
        $cleaning = Cleaning::of(self::steady(80, [50 => 300.0]));
        self::assertCount(1, $cleaning->marks);
        self::assertSame(
            [50, Mark::BULK, 300.0, false],
            [
                $cleaning->marks[0]->week,
                $cleaning->marks[0]->kind,
                $cleaning->marks[0]->demand,
                $cleaning->marks[0]->kept,
            ],
        );
        self::assertEqualsWithDelta(40.0, (float) $cleaning->history->demand[50], 8.0);
        self::assertSame(300.0, $cleaning->history->sold[50], 'what was sold stays what was sold');
    }

    public function testWhatComesBackEveryYearIsASeason(): void
    {
        self::assertSame([], Cleaning::of(self::steady(120, [20 => 300.0, 72 => 280.0]))->marks);
    }

    public function testAWeekWithoutAnySaleOfABusyItemIsASlip(): void
    {
        $cleaning = Cleaning::of(self::steady(80, [50 => 0.0]));
        self::assertSame(Mark::GAP, $cleaning->marks[0]->kind);
        self::assertNull($cleaning->history->demand[50]);
    }

    public function testOrdinaryUnevennessAndSlowItemsAreLeftAlone(): void
    {
        self::assertSame([], Cleaning::of(self::steady(80, [50 => 85.0]))->marks);
        $slow = WeeklyHistory::of(
            array_map(static fn (int $week): int => 0 === $week % 4 ? 3 : 0, range(0, 79)),
            array_fill(0, 80, 0),
        );
        self::assertSame([], Cleaning::of($slow)->marks);
    }

    public function testAPersonsWordGoesBeforeTheTests(): void
    {
        $kept = Cleaning::of(self::steady(80, [50 => 300.0]), [50 => true]);
        self::assertSame(300.0, $kept->history->demand[50]);
        self::assertTrue($kept->marks[0]->kept, 'it stays marked');
        $out = Cleaning::of(self::steady(80), [12 => false]);
        self::assertNull($out->history->demand[12]);
        self::assertSame(Mark::LEFT_OUT, $out->marks[0]->kind);
    }

    public function testReturnsLowerTheWeeksBeforeThem(): void
    {
        self::assertSame([10.0, 0.0, 0.0, 6.0], WeeklyHistory::of([10, 4, -4, 6], [0, 0, 0, 0])->sold);
        self::assertSame([7.0, 0.0, 0.0], WeeklyHistory::of([10, 4, -7], [0, 0, 0])->sold);
    }

    public function testPartsOfAHistory(): void
    {
        $history = WeeklyHistory::of([1, 2, 3, 4, 5], [0, 0, 0, 0, 0]);
        self::assertSame([4.0, 5.0], $history->last(2)->demand);
        self::assertSame([2.0, 3.0], $history->between(3, 2)->demand);
        self::assertSame([2.0, 4.0, 6.0, 8.0, 10.0], $history->times(2)->demand);
        self::assertEqualsWithDelta(3.0, (float) $history->meanDemand(), 1e-12);
    }

    /** Source: Syntetos, Boylan & Croston 2005: 1.32 periods, CV² 0.49. */
    public function testPatternsOfDemand(): void
    {
        self::assertSame(Pattern::Smooth, Pattern::of([5, 6, 5, 7, 6, 5, 6]));
        self::assertSame(Pattern::Erratic, Pattern::of([1, 20, 2, 30, 1, 2, 25]));
        self::assertSame(Pattern::Intermittent, Pattern::of([5, 0, 0, 6, 0, 5, 0]));
        self::assertSame(Pattern::Lumpy, Pattern::of([1, 0, 0, 40, 0, 2, 0]));
        [$interval, $variation] = Pattern::figures([4.0, 0.0, 8.0, null, 0.0]);
        self::assertEqualsWithDelta(2.0, $interval, 1e-12, 'four known weeks, two with demand');
        self::assertEqualsWithDelta(4 / 36, $variation, 1e-12);
    }

    public function testStagesOfAnItemsLife(): void
    {
        $weeks = static fn (float ...$sold): WeeklyHistory => WeeklyHistory::of(
            array_values($sold),
            array_fill(0, count($sold), 0),
        );
        self::assertSame(Stage::New, Stage::of($weeks(...array_fill(0, 12, 5.0))));
        self::assertSame(Stage::Steady, Stage::of($weeks(...array_fill(0, 90, 5.0))));
        self::assertSame(Stage::Fading, Stage::of($weeks(...array_fill(0, 70, 5.0), ...array_fill(0, 13, 1.0))));
        self::assertSame(Stage::Dead, Stage::of($weeks(...array_fill(0, 70, 5.0), ...array_fill(0, 30, 0.0))));
        $summer = array_map(
            static fn (int $week): float => max(0.5, 20 * sin(($week / 52) * 2 * \M_PI)),
            range(0, 103),
        );
        self::assertSame(Stage::Steady, Stage::of($weeks(...$summer)), 'out of season is not fading');
    }

    public function testValueClassesByShareOfTheWhole(): void
    {
        $classes = ValueClass::of([1 => 500.0, 2 => 310.0, 3 => 110.0, 4 => 50.0, 5 => 30.0, 6 => 0.0]);
        self::assertSame(
            ['A', 'A', 'B', 'B', 'C', 'C'],
            array_map(static fn (int $item): string => $classes[$item]->value, range(1, 6)),
        );
        self::assertSame('C', ValueClass::of([1 => 0.0])[1]->value);
    }

    /** Two, three and a fair's forty in the first four weeks: the forty is not what it will sell. */
    public function testAOneOffIsFoundInTheFirstWeeksToo(): void
    {
        $clean = static fn (float ...$weeks): array => Cleaning::of(
            WeeklyHistory::of(array_values($weeks), array_fill(0, count($weeks), 0)),
        )->history->demand;
        self::assertSame([2.0, 3.0, 2.0, 2.0], $clean(2.0, 3.0, 40.0, 2.0));
        self::assertSame([2.0, 3.0, 40.0], $clean(2.0, 3.0, 40.0), 'three tell nothing');
        self::assertSame([40.0, 38.0, 44.0, 41.0], $clean(40.0, 38.0, 44.0, 41.0));
    }
}
