<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Receiving;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Receiving\AverageCost;
use TallBarrel\Core\Receiving\Count;
use TallBarrel\Core\Receiving\CountFinding;

final class ReceivingTest extends TestCase
{
    public function testWhatACountSays(): void
    {
        $find = static fn (int $ordered, ?string $counted): CountFinding => Count::of(
            BigDecimal::of($ordered),
            null === $counted ? null : BigDecimal::of($counted),
        )->finding;
        self::assertSame(CountFinding::NotCounted, $find(20, null));
        self::assertSame(CountFinding::AsOrdered, $find(20, '20.000'));
        self::assertSame(CountFinding::Short, $find(20, '17'));
        self::assertSame(CountFinding::Short, $find(20, '0'));
        self::assertSame(CountFinding::Over, $find(20, '22'));
        self::assertSame(CountFinding::TooMuch, $find(20, '23'));
        self::assertSame(CountFinding::Over, $find(3, '4'), 'one over is always within tolerance');
        self::assertSame('3 short', Count::of(BigDecimal::of(20), BigDecimal::of(17))->words());
    }

    public function testAverageCostIsTheWorthOfAllOverTheirNumber(): void
    {
        // 100 at 2.00 and 50 at 2.60: 330 / 150.
        self::assertSame(
            '2.200000',
            (string) AverageCost::after(
                BigDecimal::of(100),
                BigDecimal::of(2),
                BigDecimal::of(50),
                BigDecimal::of('2.60'),
            ),
        );
        self::assertSame(
            '2.600000',
            (string) AverageCost::after(
                BigDecimal::zero(),
                BigDecimal::of(2),
                BigDecimal::of(50),
                BigDecimal::of('2.60'),
            ),
        );
        self::assertSame(
            '2.600000',
            (string) AverageCost::after(
                BigDecimal::of(-4),
                BigDecimal::of(2),
                BigDecimal::of(50),
                BigDecimal::of('2.60'),
            ),
            'oversold stock has no worth',
        );
        self::assertSame(
            '2.600000',
            (string) AverageCost::after(BigDecimal::of(10), null, BigDecimal::of(50), BigDecimal::of('2.60')),
        );
    }

    public function testAverageCostDoesNotDependOnTheOrderOfReceipts(): void
    {
        self::assertSame(
            self::receive([['12', '1.40'], ['24', '0.90'], ['7', '2.00']]),
            self::receive([['7', '2.00'], ['12', '1.40'], ['24', '0.90']]),
        );
    }

    /** @param list<array{string, string}> $receipts units and cost of one */
    private static function receive(array $receipts): string
    {
        $held = BigDecimal::of(30);
        $cost = BigDecimal::of('1.10');
        foreach ($receipts as [$units, $paid]) {
            $cost = AverageCost::after($held, $cost, BigDecimal::of($units), BigDecimal::of($paid));
            $held = $held->plus($units);
        }

        return number_format($cost->toFloat(), 4);
    }
}
