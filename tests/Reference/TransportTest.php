<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\Transport;

/**
 * Which site gives how much to which.
 *
 * @phpstan-type Pieces array<int, list<array{float, float}>>
 * @phpstan-type Roads array<int, array<int, array{float, float}>>
 */
final class TransportTest extends TestCase
{
    /** Common practice, no source: 12 needed; others can spare 7, 5 and 14: from the one with 14. */
    public function testTakesItFromTheOneThatCanGiveAll(): void
    {
        $ways = array_fill(1, 3, [9 => [1.0, 0.0]]);
        $spare = [1 => [[7.0, 0.0]], 2 => [[5.0, 0.0]], 3 => [[14.0, 0.0]]];
        self::assertSame([3 => [9 => 12.0]], Transport::best($spare, [9 => [[12.0, 4.0]]], $ways));
        self::assertEquals([3 => [9 => 14.0], 1 => [9 => 6.0]], Transport::best($spare, [9 => [[20.0, 4.0]]], $ways));
        self::assertSame([], Transport::best($spare, [9 => [[12.0, 0.05]]], $ways), 'not worth the way');
    }

    /**
     * Source: GLPK 5.0 on the same instance (glpsol --lp glpk/transport.lp): three sites that can spare 25, 40 and 15,
     * four that need 20, 15, 10 and 22; ways from 1.2 to 9.1 a unit.
     */
    public function testTheCheapestWayIsThatOfGlpk(): void
    {
        $each = [[4.5, 2.1, 7.3, 3.3], [3.9, 6.2, 1.2, 9.1], [5.5, 3.0, 2.8, 1.9]];
        /** @var Roads $ways */
        $ways = [];
        foreach ($each as $i => $row) {
            foreach ($row as $j => $cost) {
                $ways[$i + 1][$j + 11] = [0.0, $cost];
            }
        }
        $moved = Transport::cheapest(
            [1 => 25.0, 2 => 40.0, 3 => 15.0],
            [11 => 20.0, 12 => 15.0, 13 => 10.0, 14 => 22.0],
            $ways,
            [],
        );
        $cost = 0.0;
        foreach ($moved as $from => $to) {
            foreach ($to as $site => $units) {
                $cost += $units * $ways[$from][$site][1];
            }
        }
        self::assertEqualsWithDelta(173.1, $cost, 1e-9);
    }

    /** Second witness: every other plan in whole units tried, on small cases drawn. */
    public function testNoOtherPlanIsBetter(): void
    {
        $draws = new Draws(8);
        for ($case = 0; $case < 150; ++$case) {
            $gives = $takes = $ways = [];
            for ($i = 1, $many = 1 + $draws->below(3); $i <= $many; ++$i) {
                $cost = $draws->below(7) - 2.0;
                $gives[$i] = [[1.0 + $draws->below(2), $cost], [(float) $draws->below(3), $cost + $draws->below(4)]];
            }
            for ($j = 11, $many = 11 + $draws->below(2); $j <= $many; ++$j) {
                $worth = 3.0 + $draws->below(7);
                $takes[$j] = [[1.0 + $draws->below(3), $worth], [(float) $draws->below(3), $worth - $draws->below(5)]];
                foreach (array_keys($gives) as $i) {
                    if ($draws->below(6) > 0) {
                        $ways[$i][$j] = [(float) $draws->below(9), (float) $draws->below(3)];
                    }
                }
            }
            self::assertEqualsWithDelta(
                self::most($gives, $takes, $ways),
                self::gain(Transport::best($gives, $takes, $ways), $gives, $takes, $ways),
                1e-9,
                'case '.$case,
            );
        }
    }

    /**
     * By hand: the first site would serve both others best, 2 units and 8. What it sent to the one can be taken back as
     * far as it was sent, and no further: 2 come from the second site, and the first sends all 10 to the other.
     */
    public function testWhatWasSentIsTakenBackAsFarAsItWasSent(): void
    {
        $moved = Transport::best(
            [1 => [[10.0, 0.0]], 2 => [[10.0, 0.0]]],
            [11 => [[2.0, 100.0]], 12 => [[20.0, 100.0]]],
            [1 => [11 => [0.0, 1.0], 12 => [0.0, 2.0]], 2 => [11 => [0.0, 3.0]]],
        );
        self::assertEquals([1 => [12 => 10.0], 2 => [11 => 2.0]], $moved);
    }

    public function testWhereNoWayLeadsItSaysSo(): void
    {
        try {
            Transport::cheapest([1 => 10.0], [2 => 4.0, 3 => 1.0], [1 => [2 => [0.0, 1.0]]], [3 => 'Millbank']);
            self::fail('there is no way to Millbank');
        } catch (InvalidValue $invalid) {
            self::assertSame('Millbank needs 1, and no way leads there.', $invalid->getMessage());
        }
        $this->expectExceptionMessage('Depot needs 14; only 10 can be brought there.');
        Transport::cheapest([1 => 10.0], [2 => 14.0], [1 => [2 => [0.0, 1.0]]], [2 => 'Depot']);
    }

    public function testPiecesOutOfOrderAreRefused(): void
    {
        $this->expectExceptionMessage('Piece 2 of site 1 is out of order: 2 units at 3.');
        Transport::best([1 => [[1.0, 4.0], [2.0, 3.0]]], [2 => [[1.0, 1.0]]], []);
    }

    /**
     * @param Pieces $gives
     * @param Pieces $takes
     * @param Roads  $ways
     */
    private static function most(array $gives, array $takes, array $ways): float
    {
        /** @var non-empty-list<array<int, array<int, float>>> $plans */
        $plans = [[]];
        foreach ($ways as $from => $to) {
            foreach (array_keys($to) as $site) {
                $longer = $plans;
                foreach ($plans as $plan) {
                    for ($units = 1; $units <= array_sum(array_column($gives[$from], 0)); ++$units) {
                        $plan[$from][$site] = (float) $units;
                        $longer[] = $plan;
                    }
                }
                $plans = $longer;
            }
        }

        return max(array_map(static fn (array $plan): float => self::gain($plan, $gives, $takes, $ways), $plans));
    }

    /**
     * @param array<int, array<int, float>> $plan
     * @param Pieces                        $gives
     * @param Pieces                        $takes
     * @param Roads                         $ways
     */
    private static function gain(array $plan, array $gives, array $takes, array $ways): float
    {
        $gain = 0.0;
        $out = $in = [];
        foreach ($plan as $from => $to) {
            foreach ($to as $site => $units) {
                $gain -= $ways[$from][$site][0] + $units * $ways[$from][$site][1];
                $out[$from] = ($out[$from] ?? 0.0) + $units;
                $in[$site] = ($in[$site] ?? 0.0) + $units;
            }
        }
        foreach ([[$out, $gives, -1], [$in, $takes, 1]] as [$sums, $pieces, $sign]) {
            foreach ($sums as $site => $units) {
                foreach ($pieces[$site] as [$size, $each]) {
                    $gain += $sign * min($size, $units) * $each;
                    $units -= min($size, $units);
                }
                if ($units > 1e-9) {
                    return -INF;
                }
            }
        }

        return $gain;
    }
}
