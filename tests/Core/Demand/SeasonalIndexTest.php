<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Method\Season;
use TallBarrel\Core\Demand\Method\SeasonalIndex;

/** Seasons that are known, found again: exactly where nothing but the season moves, less of them where chance does. */
final class SeasonalIndexTest extends TestCase
{
    /** @return list<float> so many values around 100, wave by wave */
    private static function wave(int $count, int $period = 24, float $height = 20.0, float $level = 100.0): array
    {
        return array_map(
            static fn (int $t): float => $level + $height * cos(2 * \M_PI * $t / $period),
            range(0, $count - 1),
        );
    }

    public function testAPureSeasonIsFoundAsItIs(): void
    {
        $terms = [-6.0, 2.0, 9.0, -5.0];
        $series = array_map(static fn (int $t): float => 100.0 + 0.5 * $t + $terms[$t % 4], range(0, 23));
        $found = SeasonalIndex::found($series, 4, Season::Additive);
        self::assertNotNull($found);
        self::assertEqualsWithDelta($terms, $found->terms, 1e-9, 'beside a straight trend');
        $factors = [0.8, 1.1, 1.3, 0.8];
        $series = array_map(static fn (int $t): float => 50.0 * $factors[$t % 4], range(0, 23));
        $found = SeasonalIndex::found($series, 4, Season::Multiplicative);
        self::assertNotNull($found);
        self::assertEqualsWithDelta($factors, $found->terms, 1e-9);
    }

    /** @return iterable<string, array{int}> */
    public static function lengths(): iterable
    {
        yield 'one period' => [24];
        yield 'a period and a quarter' => [30];
        yield 'a value short of two' => [47];
    }

    /**
     * Of one long period the mean stands for the trend, and each phase counts with its neighbours: by weights of 1, 2,
     * 3, 4, 3, 2, 1 a wave of 24 keeps g of its height. What it loses is chance, (1 − g)² a value, borne by four
     * times as many; the season itself is g² 12/23: so much is believed.
     */
    #[DataProvider('lengths')]
    public function testOfOneLongPeriodNeighboursBearEachOtherOut(int $count): void
    {
        $w = 2 * \M_PI / 24;
        $g = (4 + 6 * cos($w) + 4 * cos(2 * $w) + 2 * cos(3 * $w)) / 16;
        $belief = 1 - (12 * (1 - $g) ** 2 / 12 / 4) / (12 * $g ** 2 / 23);
        $expected = array_map(
            static fn (float $value): float => ($value - 100.0) * $g * $belief,
            self::wave(24),
        );
        $found = SeasonalIndex::found(self::wave($count), 24, Season::Additive);
        self::assertNotNull($found);
        self::assertEqualsWithDelta($expected, $found->terms, 1e-9);
        $shares = SeasonalIndex::found(self::wave($count), 24, Season::Multiplicative);
        self::assertNotNull($shares);
        self::assertEqualsWithDelta(
            array_map(static fn (float $term): float => 1 + $term / 100, $expected),
            $shares->terms,
            1e-9,
        );
        self::assertNull(SeasonalIndex::found(self::wave(23), 24, Season::Additive));
    }

    /**
     * Two phases, three periods, without a trend: +3 and +5 on the one, −5 and −3 on the other are 4 and −4 on average.
     * Chance is 4 in all over two values more than phases, two a phase: 1; the season 32 over one: 31 parts of 32 are
     * believed.
     */
    public function testChanceIsTakenOffTheSeason(): void
    {
        // Centred averages over two: at 1, (v0 + 2 v1 + v2) / 4, and so on; they come to 100 throughout.
        $series = [97.0, 103.0, 97.0, 103.0, 97.0, 103.0];
        $found = SeasonalIndex::found($series, 2, Season::Additive);
        self::assertNotNull($found);
        self::assertEqualsWithDelta([-3.0, 3.0], $found->terms, 1e-9, 'no chance in it');
        $noisy = SeasonalIndex::found([97.0, 103.0, 95.0, 104.0, 98.0, 102.0], 2, Season::Additive);
        self::assertNotNull($noisy);
        // By hand: averages at 1 to 4 are 99.5, 99.25, 100.25, 100.5; off them 3.5, −4.25, 3.75, −2.5; 3.625 and −3.375
        // on average, with a mean of 0.125. Chance: 0.03125 + 1.53125 over two, two a phase: 0.390625; season: 24.5.
        $belief = 1 - 0.390625 / 24.5;
        self::assertEqualsWithDelta([-3.5 * $belief, 3.5 * $belief], $noisy->terms, 1e-9);
    }

    public function testPureChanceIsNoSeason(): void
    {
        $found = SeasonalIndex::found([100.0, 104.0, 100.0, 96.0, 100.0, 104.0, 100.0, 96.0], 2, Season::Additive);
        self::assertNotNull($found);
        self::assertEqualsWithDelta([0.0, 0.0], $found->terms, 1e-9);
    }
}
