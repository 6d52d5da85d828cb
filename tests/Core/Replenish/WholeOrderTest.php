<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Replenish\FillStep;
use TallBarrel\Core\Replenish\SupplierOrder;

/** One supplier's order as a whole, the month's budget, and other sites' surplus. */
final class WholeOrderTest extends TestCase
{
    /** @return list<FillStep> packs of one size, the first due on a day, each lasting 1/$perDay days */
    private static function packs(float $cost, float $dueIn, float $perDay = 1.0, int $most = 10): array
    {
        return array_map(
            static fn (int $pack): FillStep => new FillStep(1.0, $cost, $cost, $dueIn + ($pack + 0.5) / $perDay),
            range(0, $most - 1),
        );
    }

    public function testFillsUpWithWhatIsNeededSoonest(): void
    {
        $order = SupplierOrder::complete(
            430,
            500,
            [7 => self::packs(40, 30), 8 => self::packs(40, 3)],
            \INF,
            50.0,
            0.2,
        );
        self::assertSame(SupplierOrder::FILL, $order->advice);
        self::assertSame([8 => 2.0], $order->fill);
        self::assertEqualsWithDelta(70.0, $order->missing, 1e-9);
        // Two packs of 40, held 3.5 and 4.5 days at 20 % a year.
        self::assertEqualsWithDelta((40 * 0.2 * (3.5 + 4.5)) / 365, $order->fillCost, 1e-9);
    }

    public function testTakesOutAgainWhatTheLastPackMadeSuperfluous(): void
    {
        $order = SupplierOrder::complete(
            400,
            500,
            [1 => self::packs(30, 2, 1, 1), 2 => self::packs(100, 9, 1, 1)],
            \INF,
            50.0,
            0.2,
        );
        self::assertSame([2 => 1.0], array_map(floatval(...), $order->fill), 'the dear one alone reaches it');
    }

    public function testWaitsWhereWaitingRisksLessThanFillingUpCosts(): void
    {
        $candidates = [1 => self::packs(100, 50)];
        self::assertSame(SupplierOrder::WAIT, SupplierOrder::complete(420, 500, $candidates, \INF, 0.5, 0.2)->advice);
        self::assertSame(SupplierOrder::FILL, SupplierOrder::complete(420, 500, $candidates, \INF, 5.0, 0.2)->advice);
        self::assertSame(
            SupplierOrder::WAIT,
            SupplierOrder::complete(420, 500, [], \INF, 5.0, 0.2)->advice,
            'nothing to fill up with',
        );
    }

    public function testALaterStepNeverComesWithoutTheEarlierOnes(): void
    {
        // The second step of the first item is dirt cheap, as behind a price break; its first one is dear to hold.
        $behindABreak = [new FillStep(8, 60, 60, 40), new FillStep(8, 60, 10, 1)];
        $order = SupplierOrder::complete(400, 500, [1 => $behindABreak, 2 => self::packs(50, 20)], \INF, 90.0, 0.2);
        self::assertSame([2 => 2.0], $order->fill);
        $order = SupplierOrder::complete(400, 520, [1 => $behindABreak], \INF, 90.0, 0.2);
        self::assertSame([1 => 16.0], $order->fill, 'packs, not steps');
        self::assertEqualsWithDelta((60 * 0.2 * 40 + 10 * 0.2 * 1) / 365, $order->fillCost, 1e-9);
    }

    public function testFreightIsSavedOnlyWhereHoldingCostsLess(): void
    {
        $candidates = [1 => self::packs(100, 50, 1.0, 20)];
        self::assertSame(SupplierOrder::FILL, SupplierOrder::complete(500, 900, $candidates, 45.0, 0.0, 0.2)->advice);
        self::assertSame(SupplierOrder::SEND, SupplierOrder::complete(500, 900, $candidates, 5.0, 0.0, 0.2)->advice);
        self::assertSame(
            SupplierOrder::SEND,
            SupplierOrder::complete(900, 900, $candidates, 45.0, 0.0, 0.2)->advice,
            'reached already',
        );
    }
}
