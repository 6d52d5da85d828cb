<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Store\Planning\SupplierSum;
use TallBarrel\Work\Planning\Threshold;

/** What an order lacks first: a minimum before free freight, and free freight before a full load. */
final class ThresholdTest extends TestCase
{
    private static function sum(
        OrderMinimum $minimum,
        FreightTariff $tariff,
        ?float $fullLoadKg = null,
        float $value = 300.0,
        float $kilograms = 80.0,
        float $packs = 12.0,
    ): SupplierSum {
        return new SupplierSum(
            'SALLOW',
            'Sallow Supplies',
            'EUR',
            $minimum,
            $tariff->freeFrom,
            $tariff,
            $fullLoadKg,
            10,
            false,
            0.0,
            5,
            $value,
            $value / 2,
            $kilograms,
            $packs,
            0.0,
            0,
            0.0,
            0.0,
            0.0,
        );
    }

    /** @return \Generator<string, array{SupplierSum, array{string, string, float, float, float}|null}> */
    public static function orders(): \Generator
    {
        $none = OrderMinimum::of(null, null, null);
        $free = FreightTariff::none();
        yield 'nothing is asked for' => [self::sum($none, $free), null];
        yield 'a minimum in money' => [
            self::sum(OrderMinimum::of(500.0, null, null), $free),
            ['minimum', Threshold::VALUE, 300.0, 500.0, \INF],
        ];
        yield 'a minimum that is reached' => [self::sum(OrderMinimum::of(300.0, null, null), $free), null];
        yield 'a minimum in kilograms' => [
            self::sum(OrderMinimum::of(300.0, 100.0, null), $free),
            ['minimum', Threshold::WEIGHT, 80.0, 100.0, \INF],
        ];
        yield 'a minimum in packs' => [
            self::sum(OrderMinimum::of(300.0, 80.0, 20), $free),
            ['minimum', Threshold::PACKS, 12.0, 20.0, \INF],
        ];
        yield 'free freight' => [
            self::sum($none, FreightTariff::flat(35.0, 500.0)),
            ['free freight', Threshold::VALUE, 300.0, 500.0, 35.0],
        ];
        yield 'freight that is free already' => [self::sum($none, FreightTariff::flat(35.0, 300.0)), null];
        yield 'freight that never is' => [self::sum($none, FreightTariff::flat(35.0)), null];
        yield 'a minimum before free freight' => [
            self::sum(OrderMinimum::of(400.0, null, null), FreightTariff::flat(35.0, 500.0)),
            ['minimum', Threshold::VALUE, 300.0, 400.0, \INF],
        ];
        yield 'a full load' => [
            self::sum($none, FreightTariff::flat(35.0), 900.0),
            ['full load', Threshold::WEIGHT, 80.0, 900.0, 35.0],
        ];
        yield 'free freight before a full load' => [
            self::sum($none, FreightTariff::flat(35.0, 500.0), 900.0),
            ['free freight', Threshold::VALUE, 300.0, 500.0, 35.0],
        ];
        yield 'a full load that saves nothing' => [self::sum($none, $free, 900.0), null];
        yield 'a full load that is full' => [self::sum($none, FreightTariff::flat(35.0), 80.0), null];
        yield 'freight by weight saves what it costs now' => [
            self::sum($none, FreightTariff::readSteps('0=9 30=18 100=45', 500.0)),
            ['free freight', Threshold::VALUE, 300.0, 500.0, 18.0],
        ];
    }

    /** @param array{string, string, float, float, float}|null $expected words, measure, reached, asked, saved */
    #[DataProvider('orders')]
    public function testTheFirstThingAnOrderLacksIsNamed(SupplierSum $sum, ?array $expected): void
    {
        $found = Threshold::of($sum);
        self::assertSame(
            $expected,
            null === $found
                ? null
                : [$found->words, $found->measure, $found->reached, $found->asked, $found->saved],
        );
        self::assertSame('minimum' === ($expected[0] ?? ''), $found?->isMinimum() ?? false);
    }

    public function testWhatIsChosenIsSaidToFallShortOfAMinimumOnly(): void
    {
        $minimum = OrderMinimum::of(500.0, null, null);
        $short = self::sum($minimum, FreightTariff::none())->shortfall();
        self::assertNotNull($short);
        self::assertStringContainsString('200', $short);
        self::assertNull(self::sum($minimum, FreightTariff::none(), null, 500.0)->shortfall());
        self::assertNull(self::sum(OrderMinimum::of(null, null, null), FreightTariff::flat(9.0, 900.0))->shortfall());
    }

    public function testTheRateIsThatOfTheChosenLines(): void
    {
        $none = OrderMinimum::of(null, null, null);
        self::assertSame(2.0, self::sum($none, FreightTariff::none())->rate());
        self::assertSame(1.0, self::sum($none, FreightTariff::none(), null, 0.0)->rate(), 'nothing is chosen');
    }
}
