<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Demand;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\WeeklyHistory;

final class NewcomersTest extends TestCase
{
    public function testTheMiddleOfWhatCostsAboutAsMuchElseOfTheCategory(): void
    {
        $alike = new Newcomers(
            ['Jars' => [[1.0, 50.0], [2.0, 9.0], [4.0, 5.0], [3.0, 7.0], [40.0, 1.0]], 'Few' => [[1.0, 1.0]]],
        );
        self::assertSame(8.0, $alike->usual('Jars', 2.0), 'of those at 1 to 4: between 7 and 9');
        self::assertSame(7.0, $alike->usual('Jars', 60.0), 'one alone is too few: all of them');
        self::assertSame(7.0, $alike->usual('Jars', null));
        self::assertNull($alike->usual('Few', 1.0));
        self::assertNull($alike->usual('None', 1.0));
        self::assertSame(
            6.0,
            (new Newcomers(['Even' => [[1, 4.0], [1, 5.0], [1, 7.0], [1, 9.0]]]))->usual('Even', 1.0),
        );
    }

    public function testAnItemSpeaksForItselfTheMoreTheLongerItIsKnown(): void
    {
        self::assertSame([0.0, 1 / 9, 0.5, 1.0], array_map(Newcomers::ownShare(...), [0, 1, 8, 26]));
    }

    public function testOneWeekOfFortyIsNotFortyAWeek(): void
    {
        $one = (new Forecaster())->forecast(WeeklyHistory::of([40], [0]));
        self::assertSame(40.0, $one->week(0));
        $drawn = $one->drawnTowards(5.0, Newcomers::ownShare(1), 'new');
        self::assertEqualsWithDelta((40 + 8 * 5) / 9, $drawn->week(0), 1e-9, 'one week against eight');
        self::assertSame('new', $drawn->method);
        self::assertGreaterThan(sqrt($drawn->week(0)), $drawn->sigma, 'in more doubt than chance alone would leave');
        self::assertSame(5.0, $one->drawnTowards(5.0, 0.0, 'x')->week(0));
        self::assertSame(40.0, $one->drawnTowards(5.0, 1.0, 'x')->week(0));
    }
}
