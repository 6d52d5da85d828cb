<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\Costing;

final class CostingTest extends TestCase
{
    /** @return array{goods: Money, units: BigDecimal, dutyPercent: BigDecimal, soFar: BigDecimal|null} */
    private static function line(string $goods, string $units, string $duty = '0', ?string $soFar = null): array
    {
        return [
            'goods' => Money::of($goods, 'EUR'),
            'units' => BigDecimal::of($units),
            'dutyPercent' => BigDecimal::of($duty),
            'soFar' => null === $soFar ? null : BigDecimal::of($soFar),
        ];
    }

    /** By hand: 60 on 1,000 is 6 %; 750 take 45, 250 take 15; duty is 4 % of 795 = 31.80. */
    public function testChargesGoByValueAndDutyIsTakenOfBoth(): void
    {
        $costing = Costing::of(
            [3 => self::line('750', '500', '4', '1.60'), 8 => self::line('250', '10')],
            Money::of('60', 'EUR'),
        );
        [$jars, $press] = [$costing->lines[3], $costing->lines[8]];
        self::assertSame('45.00', (string) $jars->charges->amount);
        self::assertSame('31.80', (string) $jars->duty->amount);
        self::assertSame('1.6536', (string) $jars->each());
        self::assertEqualsWithDelta(3.35, $jars->dearer(), 1e-9);
        self::assertSame('26.5000', (string) $press->each());
        self::assertNull($press->dearer());
        self::assertSame('1091.80', (string) $costing->total()->amount);
    }

    public function testAnOrderOfGiftsCostsItsDutyOnly(): void
    {
        $costing = Costing::of([1 => self::line('0', '5', '10')], Money::of('20', 'EUR'));
        self::assertTrue($costing->total()->isZero(), 'charges have nothing to go by');
    }
}
