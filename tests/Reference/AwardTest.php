<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Sourcing\Award\Award;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\Award\Share;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;

/** The best award against every possible one, on many small drawn baskets, and against GLPK on larger ones. */
final class AwardTest extends TestCase
{
    private const CENT = 0.0051;
    /** Lines, suppliers, first seed and how many, of the baskets GLPK solved. */
    public const SIZES = ['25x5' => [25, 5, 201, 8], '60x8' => [60, 8, 401, 6]];

    /** Source: brute force over all assignments. */
    public function testItIsTheBestOfAllAssignments(): void
    {
        $missed = static fn (Award $award): int => count(
            array_filter($award->shares, static fn (Share $share): bool => null !== $share->short),
        );
        for ($seed = 1; $seed <= 120; ++$seed) {
            $basket = self::drawn($seed, 5, 4);
            $least = \INF;
            foreach (self::assignments($basket) as $chosen) {
                $award = $basket->valued($chosen);
                $least = min($least, $award->cost() + 1e6 * $missed($award));
            }
            $best = $basket->best();
            self::assertEqualsWithDelta($least, $best->cost() + 1e6 * $missed($best), self::CENT, 'basket '.$seed);
            self::assertTrue(!$best->isAllowed() || $best->isProvenBest(), 'basket '.$seed);
        }
    }

    /**
     * Source: GLPK 5.0, glpsol on the models in tests/Reference/glpk, made by make.php there; its optima are recorded
     * beside them.
     */
    public function testItAgreesWithGlpk(): void
    {
        /** @var array<string, array<int, float>> $optima */
        $optima = json_decode(
            (string) file_get_contents(__DIR__.'/glpk/optima.json'),
            true,
            flags: \JSON_THROW_ON_ERROR,
        );
        foreach (self::SIZES as $size => [$lines, $suppliers, , $count]) {
            self::assertCount($count, $optima[$size]);
            foreach ($optima[$size] as $seed => $optimum) {
                $award = self::drawn($seed, $lines, $suppliers)->best();
                self::assertTrue($award->isProvenBest(), 'basket '.$seed);
                self::assertEqualsWithDelta($optimum, $award->cost(), 0.011, 'basket '.$seed);
                // Stopped before the proof was finished, the optimum lies within the gap that is stated.
                $stopped = self::drawn($seed, $lines, $suppliers)->best(2);
                self::assertGreaterThanOrEqual($optimum - 0.011, $stopped->cost(), 'basket '.$seed);
                self::assertLessThanOrEqual($optimum + $stopped->gap + 0.011, $stopped->cost(), 'basket '.$seed);
            }
        }
    }

    public function testAWishCostsSomethingOrNothingAndNeverSaves(): void
    {
        for ($seed = 1; $seed <= 20; ++$seed) {
            $basket = self::drawn($seed, 8, 4);
            $free = $basket->best();
            $line = (string) array_key_first($basket->lines);
            foreach (array_keys($basket->lines[$line]) as $supplier) {
                $wished = $basket->wished([$line => (string) $supplier], [])->best();
                self::assertSame((string) $supplier, $wished->chosen[$line]);
                if ($free->isAllowed() && $wished->isAllowed()) {
                    self::assertGreaterThanOrEqual($free->cost() - self::CENT, $wished->cost());
                }
            }
        }
    }

    public function testAMinimumOutOfReachIsSaidAndALineNobodySuppliesToo(): void
    {
        $basket = new Basket(
            ['a' => ['s' => new Bid(10, 10)], 'b' => []],
            ['s' => new Bidder(FreightTariff::none(), OrderMinimum::of(50.0))],
        );
        $award = $basket->best();
        self::assertSame(
            [['a' => 's'], ['b'], '40 short of their minimum of 50 in goods'],
            [$award->chosen, $award->unmet, $award->shares['s']->short],
        );
    }

    public function testFillingUpToFreeFreightCanBeatTheCheapestLine(): void
    {
        // Apart, each line's cheapest costs 60 + 20 + 38 and two freights of 10; one line more at the first saves its
        // freight and the other's.
        $basket = new Basket(
            [
                'a' => ['x' => new Bid(60, 60), 'y' => new Bid(70, 70)],
                'b' => ['x' => new Bid(42, 42), 'y' => new Bid(38, 38)],
            ],
            [
                'x' => new Bidder(FreightTariff::flat(10, 100), OrderMinimum::none()),
                'y' => new Bidder(FreightTariff::flat(10), OrderMinimum::none()),
            ],
        );
        $best = $basket->best();
        self::assertSame(['a' => 'x', 'b' => 'x'], $best->chosen);
        self::assertEqualsWithDelta(102.0, $best->cost(), 1e-9);
        self::assertEqualsWithDelta(118.0, $basket->cheapestLineByLine()->cost(), 1e-9);
        self::assertEqualsWithDelta(118.0, $basket->allFrom('y')->cost(), 1e-9);
    }

    /** @return iterable<array<int|string, string>> */
    private static function assignments(Basket $basket): iterable
    {
        $lines = array_keys($basket->lines);
        $counts = array_map(static fn (int|string $line): int => count($basket->lines[$line]), $lines);
        for ($n = 0; $n < array_product($counts); ++$n) {
            $chosen = [];
            $rest = $n;
            foreach ($lines as $i => $line) {
                $chosen[$line] = (string) array_keys($basket->lines[$line])[$rest % $counts[$i]];
                $rest = intdiv($rest, $counts[$i]);
            }
            yield $chosen;
        }
    }

    public static function drawn(int $seed, int $lines, int $suppliers): Basket
    {
        mt_srand($seed);
        $share = static fn (): float => mt_rand() / mt_getrandmax();
        $bidders = $bids = [];
        for ($s = 0; $s < $suppliers; ++$s) {
            $free = $share() < 0.6 ? 150 + $share() * $lines * 12 : null;
            $tariff = match (mt_rand(0, 3)) {
                0 => FreightTariff::flat(10 + $share() * 40, $free),
                1 => FreightTariff::byWeight(
                    [[0.0, 8 + $share() * 10], [30.0, 25 + $share() * 10], [100.0, 45 + $share() * 20], [300.0, 90.0]],
                    $free,
                ),
                2 => FreightTariff::byPallet(30 + $share() * 20, 200, $free),
                default => FreightTariff::none(),
            };
            $bidders['s'.$s] = new Bidder(
                $tariff,
                OrderMinimum::of(
                    $share() < 0.6 ? 50 + $share() * $lines * 6 : null,
                    $share() < 0.2 ? 40.0 : null,
                    $share() < 0.2 ? 10.0 : null,
                ),
                $share() < 0.3 ? 0.25 : 1.0,
                3 + $share() * 15,
                1.0,
                $share() < 0.25 ? $lines * 15 + $share() * 300 : null,
            );
        }
        for ($i = 0; $i < $lines; ++$i) {
            $base = 5 + $share() * 95;
            $kilograms = $share() * 20;
            $bids['l'.$i] = [];
            foreach ($bidders as $name => $bidder) {
                if ($share() < 0.7) {
                    $cost = $base * (0.85 + 0.4 * $share());
                    $bids['l'.$i][$name] = new Bid(
                        $cost,
                        ($cost / $bidder->homeForOne) * (0.95 + 0.1 * $share()),
                        $kilograms * (0.9 + 0.2 * $share()),
                        (float) mt_rand(1, 5),
                    );
                }
            }
            if ([] === $bids['l'.$i]) {
                $bids['l'.$i]['s0'] = new Bid($base, $base, $kilograms);
            }
        }
        mt_srand();

        return new Basket($bids, $bidders);
    }
}
