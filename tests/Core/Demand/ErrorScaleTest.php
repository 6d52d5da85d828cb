<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\ErrorScale;
use TallBarrel\Core\Demand\Score;

/** Worked by hand: past of 10, 12, 9, 13, of which the naive method missed 2, 3 and 4; then 11 and 15. */
final class ErrorScaleTest extends TestCase
{
    private const PAST = [10.0, 12.0, 9.0, 13.0];
    private const DEMAND = [10.0, 12.0, 9.0, 13.0, 11.0, 15.0];

    /** @param array<int, list<float>> $rolled */
    private static function score(array $rolled, bool $cumulative = false, int $period = 1): Score
    {
        return (new ErrorScale(self::PAST, $period))->score(self::DEMAND, $rolled, $cumulative);
    }

    public function testTheScaleIsWhatTheNaiveMethodMissed(): void
    {
        self::assertSame(3.0, (new ErrorScale(self::PAST, 1))->meanAbsolute);
        self::assertSame(1.0, (new ErrorScale(self::PAST, 2))->meanAbsolute, '9 after 10, 13 after 12');
        self::assertSame(3.0, (new ErrorScale(self::PAST, 4))->meanAbsolute, 'no two seasons: the value before');
        self::assertSame(3.0, (new ErrorScale(self::PAST, 3))->meanAbsolute, '13 after 10');
        self::assertSame(1.0, (new ErrorScale([5.0, 5.0, 5.0], 1))->meanAbsolute, 'never missed');
        self::assertSame(2.0, (new ErrorScale([10.0, 12.0, null, 13.0], 1))->meanAbsolute);
        self::assertSame(1.0, (new ErrorScale([10.0, null, 12.0, null], 1))->meanAbsolute, 'nothing to compare');
    }

    /** Errors of −1 and −1 from the fifth value on, of −3 from the sixth; 11 + 15 + 15 were wanted. */
    public function testErrorsOfEachValue(): void
    {
        $score = self::score([4 => [10.0, 14.0], 5 => [12.0, 99.0]]);
        self::assertEqualsWithDelta(sqrt(11 / 3), $score->deciding, 1e-12);
        self::assertEqualsWithDelta(5 / 9, $score->mase, 1e-12);
        self::assertEqualsWithDelta(sqrt(11 / 29), $score->rmsse, 1e-12);
        self::assertEqualsWithDelta(-5 / 41, $score->bias, 1e-12);
        self::assertEqualsWithDelta(2.0, $score->tracking, 1e-12, '4 too little at first, 2 on average');
    }

    /** The sums are −1 and −2, and −3; squared, and by how many they are sums of: 1, 2 and 9. */
    public function testErrorsOfTheRunningSum(): void
    {
        $score = self::score([4 => [10.0, 14.0], 5 => [12.0]], true);
        self::assertEqualsWithDelta(2.0, $score->deciding, 1e-12);
        self::assertEqualsWithDelta(5 / 9, $score->mase, 1e-12, 'the rest is of each value all the same');
    }

    public function testTooMuchAndTooLittleCancelInWhatLeansNotInWhatMisses(): void
    {
        $score = self::score([4 => [14.0], 5 => [14.0]]);
        self::assertEqualsWithDelta(2 / 3, $score->mase, 1e-12);
        self::assertEqualsWithDelta(2 / 26, $score->bias, 1e-12);
        self::assertEqualsWithDelta(-1.0, $score->tracking, 1e-12, '2 too much in all, 2 on average');
        $exact = self::score([4 => [11.0, 15.0]]);
        self::assertSame([0.0, 0.0, 0.0], [$exact->deciding, $exact->bias, $exact->tracking]);
    }

    public function testASeasonScalesByTheSeasonBefore(): void
    {
        self::assertEqualsWithDelta(5 / 3, self::score([4 => [10.0, 14.0], 5 => [12.0]], period: 2)->mase, 1e-12);
    }

    public function testWhatIsNotKnownIsNotMissed(): void
    {
        $score = (new ErrorScale(self::PAST, 1))->score(
            [...self::PAST, null, 15.0],
            [4 => [10.0, 14.0], 5 => [12.0]],
            true,
        );
        self::assertEqualsWithDelta(4 / 6, $score->mase, 1e-12);
        self::assertEqualsWithDelta(sqrt((0.5 + 9) / 2), $score->deciding, 1e-12);
        $none = self::score([6 => [10.0]]);
        self::assertSame([INF, INF, INF, 0.0, 0.0], array_values(get_object_vars($none)));
    }

    public function testErrorsByHowFarAheadTheyWereMade(): void
    {
        self::assertSame(
            ['each' => [1 => [1.0, 3.0], 2 => [1.0]], 'sum' => [1 => [1.0, 3.0], 2 => [2.0]]],
            ErrorScale::errors(self::DEMAND, [4 => [10.0, 14.0], 5 => [12.0, 99.0]]),
        );
        self::assertSame(
            ['each' => [1 => [3.0]], 'sum' => [1 => [3.0]]],
            ErrorScale::errors([...self::PAST, null, 15.0], [4 => [10.0, 14.0], 5 => [12.0]]),
            'a sum over what is not known is none',
        );
    }
}
