<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Sourcing\Award\Award;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\Bid;
use TallBarrel\Core\Sourcing\Award\Bidder;
use TallBarrel\Core\Sourcing\Award\PartsOfLines;
use TallBarrel\Core\Sourcing\Award\Share;
use TallBarrel\Core\Sourcing\Award\Split;
use TallBarrel\Core\Sourcing\Award\Splitting;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;

/**
 * Lines of a basket bought in two parts.
 *
 * @phpstan-type Asked array<int|string, array<int|string, array{string, int}>>
 */
final class SplittingTest extends TestCase
{
    /** 600 lids at 1.00, of which they can supply 500; the others ask 1.40 and 10 of freight. */
    public function testWhatIsBeyondACapacityComesFromAnother(): void
    {
        $award = self::split(
            ['lids' => 600],
            ['lids' => ['x' => ['1.00', 1], 'y' => ['1.40', 1]]],
            [
                'x' => new Bidder(FreightTariff::none(), OrderMinimum::none(), capacity: 500.0),
                'y' => new Bidder(FreightTariff::flat(10), OrderMinimum::none()),
            ],
        );
        self::assertEqualsWithDelta(500.0 + 140.0 + 10.0, $award->cost(), 1e-9);
        self::assertTrue($award->isAllowed());
        [$split] = $award->splits;
        self::assertSame(['y', 100.0, 'x', 500.0], [
            $split->first,
            $split->firstUnits,
            $split->second,
            $split->secondUnits,
        ]);
        self::assertEqualsWithDelta(850.0 - 650.0, $split->saves, 1e-9);
        self::assertSame(['lids' => 'y'], $award->chosen);
    }

    /** Drills of 60 and 40 reach the minimum of 100 with 20 of the screws; all 100 screws there would cost 5 more. */
    public function testAPartIsEnoughToReachAMinimum(): void
    {
        $award = self::split(
            ['drill' => 1, 'screws' => 100],
            ['drill' => ['x' => ['80', 1], 'y' => ['95', 1]], 'screws' => ['x' => ['1.05', 1], 'y' => ['1.00', 1]]],
            [
                'x' => new Bidder(FreightTariff::none(), OrderMinimum::of(100.0)),
                'y' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
            ],
        );
        // 20 screws at 1.05 take x to 101; 19 would leave it at 99.95.
        self::assertEqualsWithDelta(80 + 21 + 80, $award->cost(), 1e-9);
        self::assertSame(20.0, $award->splitOf('screws')->firstUnits ?? $award->splits[0]->secondUnits);
    }

    /** 110 needed: two hundreds at 10 are 20; one and ten at 0.15 are 11.50. */
    public function testTheRestBesideWholePacksComesSingly(): void
    {
        $award = self::split(
            ['jars' => 110],
            ['jars' => ['x' => ['10', 100], 'y' => ['0.19', 1]]],
            [
                'x' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
                'y' => new Bidder(FreightTariff::none(), OrderMinimum::none()),
            ],
        );
        self::assertEqualsWithDelta(10 + 1.9, $award->cost(), 1e-9);
        self::assertEqualsWithDelta(20 - 11.9, $award->savedBySplits(), 1e-9);
    }

    public function testASplitSavesMoreThanHandlingOneLineMoreCosts(): void
    {
        $asked = ['jars' => ['x' => ['10', 100], 'y' => ['0.19', 1]]];
        $free = ['x' => new Bidder(FreightTariff::none(), OrderMinimum::none())];
        $free['y'] = $free['x'];
        self::assertCount(1, self::split(['jars' => 110], $asked, $free, 8.0)->splits);
        self::assertSame([], self::split(['jars' => 110], $asked, $free, 8.2)->splits);
        self::assertSame([], self::split(['jars' => 100], $asked, $free)->splits, 'whole packs are best');
    }

    /** Second witness: every single split into whole units, on drawn baskets; none saves more than the first taken. */
    public function testNoSingleSplitSavesMore(): void
    {
        $draws = new Draws(12);
        $paid = 0;
        for ($case = 0; $case < 120; ++$case) {
            /** @var array<int|string, int> $units */
            $units = [];
            $asked = $bidders = [];
            foreach (['x', 'y', 'z'] as $supplier) {
                $bidders[$supplier] = new Bidder(
                    FreightTariff::flat($draws->below(12), 0 === $draws->below(2) ? 30.0 + $draws->below(60) : null),
                    OrderMinimum::of(0 === $draws->below(2) ? 20.0 + $draws->below(60) : null),
                    1.0,
                    (float) $draws->below(5),
                    1.0,
                    0 === $draws->below(3) ? 25.0 + $draws->below(60) : null,
                );
            }
            foreach (['a', 'b', 'c'] as $line) {
                $units[$line] = 5 + $draws->below(30);
                foreach (['x', 'y', 'z'] as $supplier) {
                    $price = 1 + $draws->below(200) / 100;
                    $break = 2 + $draws->below(25);
                    $asked[$line][$supplier] = [sprintf('1=%.2f %d=%.2f', $price, $break, 0.9 * $price), 1];
                }
            }
            $parts = self::parts($units, $asked);
            $basket = self::basket($units, $parts, $asked, $bidders);
            $award = $basket->best();
            $most = 0.0;
            foreach ($award->chosen as $line => $first) {
                foreach (['x', 'y', 'z'] as $second) {
                    for ($some = 1; $second !== $first && $some < $units[$line]; ++$some) {
                        $lines = $basket->lines;
                        $lines[$line] = [$first => $parts->part($line, $first, $units[$line] - $some)];
                        $lines['more'] = [$second => $parts->part($line, $second, $some)];
                        $chosen = ['more' => $second] + $award->chosen;
                        $one = (new Basket(array_map(array_filter(...), $lines), $bidders))->valued($chosen);
                        $most = max($most, self::worth($award) - self::worth($one));
                    }
                }
            }
            $taken = array_map(
                static fn (Split $split): float => $split->saves,
                Splitting::of($basket, $award, $parts, 0.0)->splits,
            );
            if ($most > 0.01 && $most < 1000) {
                ++$paid;
                self::assertEqualsWithDelta($most, $taken[0] ?? 0.0, 1e-6, 'case '.$case);
            }
        }
        self::assertGreaterThan(10, $paid, 'the draw holds cases where splitting pays');
    }

    private static function worth(Award $award): float
    {
        $short = array_filter($award->shares, static fn (Share $share): bool => null !== $share->short);

        return $award->cost() + 1e5 * count($short);
    }

    /**
     * @param array<int|string, int>    $units
     * @param Asked                 $asked prices and content of a pack
     * @param array<string, Bidder> $bidders
     */
    private static function split(array $units, array $asked, array $bidders, float $handling = 0.0): Award
    {
        $parts = self::parts($units, $asked);
        $basket = self::basket($units, $parts, $asked, $bidders);

        return Splitting::of($basket, $basket->best(), $parts, $handling);
    }

    /**
     * @param array<int|string, int>    $units
     * @param Asked                 $asked
     * @param array<string, Bidder> $bidders
     */
    private static function basket(array $units, PartsOfLines $parts, array $asked, array $bidders): Basket
    {
        $lines = [];
        foreach ($asked as $line => $suppliers) {
            foreach (array_keys($suppliers) as $supplier) {
                $bid = $parts->part($line, $supplier, $units[$line]);
                self::assertNotNull($bid);
                $lines[$line][$supplier] = $bid;
            }
        }

        return new Basket($lines, $bidders);
    }

    /**
     * @param array<int|string, int> $units
     * @param Asked              $asked
     */
    private static function parts(array $units, array $asked): PartsOfLines
    {
        return new class($units, $asked) implements PartsOfLines {
            /**
             * @param array<int|string, int>                                $units
             * @param array<int|string, array<int|string, array{string, int}>> $asked
             */
            public function __construct(private array $units, private array $asked)
            {
            }

            public function units(int|string $line): float
            {
                return (float) ($this->units[$line] ?? 0);
            }

            public function part(int|string $line, int|string $supplier, float $units): Bid
            {
                [$prices, $content] = $this->asked[$line][$supplier] ?? ['1', 1];
                $packs = ceil($units / $content);
                $value = PriceBreaks::read($prices)->costOf((string) $packs)->toFloat();

                return new Bid($value, $value, 0.0, $packs);
            }

            public function steps(int|string $line, int|string $supplier): array
            {
                [$prices, $content] = $this->asked[$line][$supplier] ?? ['1', 1];
                $steps = array_map(
                    static fn (array $step): float => $step['from']->toFloat() * $content,
                    PriceBreaks::read($prices)->byPacks(),
                );
                $steps[] = floor($this->units($line) / $content) * $content;

                $all = $this->units($line);

                return array_values(array_filter($steps, static fn (float $one): bool => $one > 0 && $one < $all));
            }
        };
    }
}
