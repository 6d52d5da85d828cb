<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\StandardNormal;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Money\Currency;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;

/** Values from the literature and from standards; each names its source. */
final class InventoryTheoryTest extends TestCase
{
    /** Source: R's pnorm, qnorm, dnorm; r/normal.R and r/normal.json. */
    public function testTheNormalDistributionIsThatOfR(): void
    {
        /**
         * @var array{p: list<float>, quantile: list<float>, z: list<float>, cumulative: list<float>, loss: list<float>}
         *      $r
         */
        $r = json_decode((string) file_get_contents(__DIR__.'/r/normal.json'), true, flags: \JSON_THROW_ON_ERROR);
        foreach ($r['p'] as $i => $p) {
            self::assertEqualsWithDelta($r['quantile'][$i], StandardNormal::quantile((float) $p), 1e-10);
        }
        foreach ($r['z'] as $i => $z) {
            self::assertEqualsWithDelta(
                1.0,
                StandardNormal::cumulative((float) $z) / $r['cumulative'][$i],
                1e-3,
                'far tail: relative',
            );
            self::assertEqualsWithDelta($r['cumulative'][$i], StandardNormal::cumulative((float) $z), 1e-14);
            self::assertEqualsWithDelta($r['loss'][$i], StandardNormal::loss((float) $z), 1e-10);
        }
    }

    /** Source: Silver, Pyke & Peterson, table of the unit normal loss function, to the digits printed there. */
    public function testUnitNormalLossAsTabulated(): void
    {
        foreach ([[0.0, 0.39894, 5], [0.5, 0.1978, 4], [1.0, 0.08332, 5], [2.0, 0.00849, 5]] as [$k, $loss, $digits]) {
            self::assertEqualsWithDelta($loss, round(StandardNormal::loss($k), $digits), 1e-9);
        }
    }

    public function testAProbabilityOfOneHasNoQuantile(): void
    {
        $this->expectExceptionMessage('expected above 0 and below 1');
        StandardNormal::quantile(1.0);
    }

    /** Source: Harris 1913; the example is Heizer & Render's (from memory). */
    public function testEconomicOrderQuantity(): void
    {
        self::assertEqualsWithDelta(200.0, EconomicOrderQuantity::of(1000, 10, 0.5), 1e-9);
        // Its own witness: no whole number near it costs less a year.
        $cost = static fn (int $q): float => (1000 / $q) * 10 + ($q / 2) * 0.5;
        foreach (range(150, 250) as $q) {
            self::assertGreaterThanOrEqual($cost(200), $cost($q));
        }
        $this->expectExceptionMessage('holding cost 0');
        EconomicOrderQuantity::of(1000, 10, 0);
    }

    /** Source: Heizer & Render (from memory): 150 a day, σ 16, lead time 5 days, σ 1 day. */
    public function testDeviationOfLeadTimeDemand(): void
    {
        $deviation = Forecast::deviationOver(sqrt(5) * 16, 150, 1);
        self::assertEqualsWithDelta(154.2, $deviation, 0.05);
        self::assertEqualsWithDelta(1.6449 * 154.15, (new Normal(750.0, $deviation))->quantile(0.95) - 750, 0.5);
    }

    /** Second witness for the safety stock: simulated cycles are covered as often as asked for. */
    public function testTheCycleServiceAskedForIsReached(): void
    {
        mt_srand(20261123);
        $normal = static fn (): float => sqrt(-2 * log((mt_rand() + 1) / (mt_getrandmax() + 2))) *
            cos((2 * \M_PI * mt_rand()) / mt_getrandmax());
        foreach ([0.9, 0.97] as $service) {
            $stock = 150 * 5 + StandardNormal::quantile($service) * Forecast::deviationOver(sqrt(5) * 16, 150, 1);
            $covered = 0;
            for ($cycle = 0; $cycle < 40000; ++$cycle) {
                $days = max(0.0, 5 + $normal());
                $covered += 150 * $days + sqrt($days) * 16 * $normal() <= $stock ? 1 : 0;
            }
            self::assertEqualsWithDelta($service, $covered / 40000, 0.01);
        }
    }

    /** Source: simple interest 2/98 × 365/20. */
    public function testWhatTwoPercentInTenDaysIsWorth(): void
    {
        self::assertSame('37.24', (string) PaymentTerms::net(30, 2, 10)->yearlyWorthPercent());
    }

    /** Source: ISO 4217 minor units, from ICU. */
    public function testMinorUnits(): void
    {
        self::assertSame(
            [0, 2, 3, 2, 2],
            array_map(static fn (string $code): int => Currency::of($code)->decimals, [
                'JPY',
                'EUR',
                'KWD',
                'PLN',
                'USD',
            ]),
        );
    }

    /** Source: NIST Special Publication 811, international yard and pound agreement of 1959. */
    public function testThePoundIsExact(): void
    {
        self::assertSame('0.45359237', (string) Unit::Pound->factorTo(Unit::Kilogram)->toBigDecimal());
        self::assertSame('16', (string) Unit::Pound->factorTo(Unit::Ounce)->toBigDecimal());
        self::assertSame('55.116', (string) Quantity::of(25, Unit::Kilogram)->in(Unit::Pound)->amount);
        self::assertSame('24', (string) Quantity::of(2, Unit::Dozen)->in(Unit::Each)->amount);
    }

    /** @return iterable<array{string, bool}> Source: GS1 General Specifications. */
    public static function gtins(): iterable
    {
        yield ['6291041500213', true];
        yield ['629104150021-3', true];
        yield ['09521234543213', true];
        yield ['6291041500214', false];
        yield ['6921041500213', false];
        yield ['96385074', true];
        yield ['123', false];
    }

    #[DataProvider('gtins')]
    public function testCheckDigitsOfGtins(string $digits, bool $good): void
    {
        self::assertSame($good, null !== Gtin::tryOf($digits));
    }

    public function testAMistypedGtinSaysWhatTheDigitShouldBe(): void
    {
        $this->expectExceptionMessage('its check digit is 3');
        Gtin::of('6291041500219');
    }
}
