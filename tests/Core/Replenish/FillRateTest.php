<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Replenish\FillRate;

/** Shares of demand served from a table of the unit normal loss function, as textbooks print it (from memory). */
final class FillRateTest extends TestCase
{
    private const LOSS = ['0.00' => 0.3989, '0.25' => 0.2863, '0.50' => 0.1978, '0.75' => 0.1312, '1.00' => 0.0833,
        '1.25' => 0.0506, '1.50' => 0.0293, '1.75' => 0.0162];

    public function testInLotsEachPositionAboveThePointIsAsLikely(): void
    {
        // Nothing is wanted over the lead time, 10 ± 4 until the next order is here. In lots of 8 above 9.5 the
        // position is 10, 11, … 17: 0 to 1.75 deviations above the mean.
        $none = new Normal(0.0, 1e-9);
        $fill = FillRate::of(9.5, 8.0, new Normal(10.0, 4.0), $none);
        $short = 4 * array_sum(self::LOSS) / count(self::LOSS);
        self::assertEqualsWithDelta(1 - $short / 10, $fill, 5e-5);
        // Of one position alone: as much is short as its loss says.
        self::assertEqualsWithDelta(1 - 4 * 0.0833 / 10, FillRate::of(13.5, 1.0, new Normal(10.0, 4.0), $none), 5e-5);
    }

    public function testThePointReachesTheShareAskedFor(): void
    {
        [$until, $lead] = [new Normal(60.0, 12.0), new Normal(40.0, 10.0)];
        foreach ([0.9, 0.97, 0.995] as $share) {
            $point = FillRate::reorderPoint($share, 25.0, $until, $lead);
            self::assertEqualsWithDelta($share, FillRate::of($point, 25.0, $until, $lead), 5e-4);
        }
    }
}
