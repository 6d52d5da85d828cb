<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Method\Minimum;

final class MinimumTest extends TestCase
{
    public function testFindsTheBottomOfABowl(): void
    {
        [$point, $value] = Minimum::find(
            static fn (array $p): float => ($p[0] - 0.3) ** 2 + 4 * ($p[1] - 0.7) ** 2 + 5,
            [0.5, 0.5],
            [0.0, 0.0],
            [1.0, 1.0],
        );
        self::assertEqualsWithDelta(0.3, $point[0], 1e-3);
        self::assertEqualsWithDelta(0.7, $point[1], 1e-3);
        self::assertEqualsWithDelta(5.0, $value, 1e-6);
    }

    /**
     * Source: Rosenbrock, "An Automatic Method for Finding the Greatest or Least Value of a Function", 1960: minimum 0
     * at (1, 1).
     */
    public function testFollowsACurvedValley(): void
    {
        [$point] = Minimum::find(
            static fn (array $p): float => 100 * ($p[1] - $p[0] ** 2) ** 2 + (1 - $p[0]) ** 2,
            [-1.2, 1.0],
            [-2.0, -2.0],
            [2.0, 2.0],
            1e-14,
            4000,
        );
        self::assertEqualsWithDelta(1.0, $point[0], 1e-2);
        self::assertEqualsWithDelta(1.0, $point[1], 2e-2);
    }

    public function testStaysInsideTheBox(): void
    {
        [$point, $value] = Minimum::find(
            static fn (array $p): float => -$p[0] - 2 * $p[1],
            [0.2, 0.2],
            [0.0, 0.0],
            [1.0, 1.0],
        );
        self::assertEqualsWithDelta([1.0, 1.0], $point, 1e-6);
        self::assertEqualsWithDelta(-3.0, $value, 1e-6);
        self::assertSame([0.0], Minimum::find(static fn (array $p): float => $p[0], [0.0], [0.0], [1.0])[0]);
    }

    public function testGivesUpAfterSoManyCalls(): void
    {
        $calls = 0;
        Minimum::find(
            static function (array $p) use (&$calls): float {
                ++$calls;

                return sin(40 * $p[0]) + cos(33 * $p[1]) + $p[2];
            },
            [0.5, 0.5, 0.5],
            [0.0, 0.0, 0.0],
            [1.0, 1.0, 1.0],
            0.0,
            50,
        );
        self::assertLessThan(60, $calls);
    }
}
