<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Fan;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\Demand\Method\Naive;
use TallBarrel\Core\Demand\Outcome;

/** How far a forecast opens with each step ahead, from errors that are known. */
final class FanTest extends TestCase
{
    /** 95 % point of Student's t with 10 degrees of freedom, from any table of it. */
    private const T = 1.812461;

    /**
     * @param list<float>             $means
     * @param array<int, list<float>> $errors by steps ahead
     *
     * @return array<int|string, list<float>>
     */
    private static function fan(array $means, array $errors, float $scale = 0.0, float ...$levels): array
    {
        return Fan::of(
            new Outcome(
                MethodName::Naive,
                [MethodName::Naive->value],
                $means,
                [],
                ['each' => $errors, 'sum' => []],
                $scale,
                [[new Naive(), 1.0]],
                40,
            ),
            [] === $levels ? [0.95] : array_values($levels),
        );
    }

    /**
     * Now above and now below by so much: their root mean square is just that.
     *
     * @return list<float>
     */
    private static function errors(float $by, int $count = 25): array
    {
        return array_map(static fn (int $i): float => 0 === $i % 2 ? $by : -$by, range(1, $count));
    }

    /** Twenty-five errors over three steps ahead count as ten degrees of freedom; deviations are 2, 4 and 6. */
    public function testABandIsAsWideAsFewErrorsLetOneSay(): void
    {
        $fan = self::fan(
            [100.0, 110.0, 120.0],
            [1 => self::errors(2.0), 2 => self::errors(4.0), 3 => self::errors(6.0)],
            0.0,
            0.05,
            0.5,
            0.95,
        );
        self::assertEqualsWithDelta([100.0, 110.0, 120.0], $fan['0.5'], 1e-6);
        self::assertEqualsWithDelta(
            [100 + 2 * self::T, 110 + 4 * self::T, 120 + 6 * self::T],
            $fan['0.95'],
            0.01,
        );
        self::assertEqualsWithDelta(
            [100 - 2 * self::T, 110 - 4 * self::T, 120 - 6 * self::T],
            $fan['0.05'],
            0.01,
        );
    }

    /** By hand: 2 and 8 lie around 4; no faster than the distance itself, so 4/√2 and 4 × √2. */
    public function testItOpensNoFasterThanTheDistance(): void
    {
        $fan = self::fan(
            [100.0, 100.0, 100.0],
            [1 => self::errors(2.0), 2 => self::errors(8.0)],
        );
        self::assertEqualsWithDelta(
            [100 + 4 / sqrt(2) * self::T, 100 + 4 * sqrt(2) * self::T],
            array_slice($fan['0.95'], 0, 2),
            0.01,
        );
    }

    public function testItNeverClosesWithTheDistance(): void
    {
        $fan = self::fan(
            [100.0, 100.0, 100.0],
            [1 => self::errors(4.0), 2 => self::errors(1.0)],
        );
        self::assertEqualsWithDelta(array_fill(0, 3, 100 + 2 * self::T), $fan['0.95'], 0.01, 'their middle is 2');
    }

    /** Where only the first step is known it opens as of independent errors, with the root of the distance. */
    public function testFromOneStepAloneItOpensWithTheRoot(): void
    {
        $fan = self::fan([100.0, 100.0, 100.0], [1 => self::errors(3.0)]);
        self::assertEqualsWithDelta(
            [100 + 3 * self::T, 100 + 3 * sqrt(2) * self::T, 100 + 3 * sqrt(3) * self::T],
            $fan['0.95'],
            0.01,
        );
    }

    /** Three errors are none: then what the naive method misses by, and at least what was seen. */
    public function testWithFewErrorsItIsWhatTheNaiveMethodMissesBy(): void
    {
        $wide = static function (float $by, float $scale): float {
            $fan = self::fan([1000.0], [1 => self::errors($by, 3)], $scale);

            return $fan['0.95'][0] - 1000.0;
        };
        self::assertEqualsWithDelta($wide(1.0, 5.0), $wide(5.0, 1.0), 1e-6);
        self::assertEqualsWithDelta(2 * $wide(1.0, 5.0), $wide(1.0, 10.0), 1e-4);
        $two = self::fan([1000.0, 1000.0], [], 5.0)['0.95'];
        self::assertEqualsWithDelta(sqrt(2), ($two[1] - 1000) / ($two[0] - 1000), 1e-4);
    }

    public function testWhatNeverMissedIsNotInDoubt(): void
    {
        self::assertSame([7.0, 7.0], self::fan([7.0, 7.0], [1 => self::errors(0.0, 4)], 9.0)['0.95']);
        self::assertGreaterThan(7.0, self::fan([7.0], [1 => self::errors(0.0, 3)], 9.0)['0.95'][0], 'three say little');
    }

    public function testNothingIsWantedBelowNothing(): void
    {
        foreach (self::fan([1.0, 0.5], [1 => self::errors(4.0)], 0.0, 0.01, 0.1)['0.01'] as $low) {
            self::assertGreaterThanOrEqual(0.0, $low);
        }
        self::assertSame([0.0], self::fan([-2.0], [1 => self::errors(0.0)])['0.95']);
    }
}
