<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Reference;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Quantity\Unit;

/**
 * Unit factors against GNU Units 2.22, asked as `units -t -o %.15g UNIT BASE`.
 */
final class UnitsAgainstGnuUnitsTest extends TestCase
{
    private const FACTORS = [
        ['GRM', 'KGM', 0.001], // gram
        ['MGM', 'KGM', 1e-6], // mg
        ['HGM', 'KGM', 0.1], // hectogram
        ['DTN', 'KGM', 100], // 100 kg
        ['TNE', 'KGM', 1000], // tonne
        ['GRN', 'KGM', 6.479891e-5], // grain
        ['ONZ', 'KGM', 0.028349523125], // oz
        ['APZ', 'KGM', 0.0311034768], // troyounce
        ['LBR', 'KGM', 0.45359237], // lb
        ['STI', 'KGM', 6.35029318], // stone
        ['CWA', 'KGM', 45.359237], // ushundredweight
        ['CWI', 'KGM', 50.80234544], // brhundredweight
        ['STN', 'KGM', 907.18474], // uston
        ['LTN', 'KGM', 1016.0469088], // brton
        ['MLT', 'LTR', 0.001], // ml
        ['CLT', 'LTR', 0.01], // centilitre
        ['DLT', 'LTR', 0.1], // decilitre
        ['HLT', 'LTR', 100], // hectolitre
        ['CMQ', 'LTR', 0.001], // cm^3
        ['DMQ', 'LTR', 1], // dm^3
        ['MTQ', 'LTR', 1000], // m^3
        ['OZA', 'LTR', 0.0295735295625], // usfloz
        ['PTL', 'LTR', 0.473176473], // uspint
        ['QTL', 'LTR', 0.946352946], // usquart
        ['GLL', 'LTR', 3.785411784], // usgallon
        ['OZI', 'LTR', 0.0284130625], // brfloz
        ['PTI', 'LTR', 0.56826125], // brpint
        ['QTI', 'LTR', 1.1365225], // brquart
        ['GLI', 'LTR', 4.54609], // brgallon
        ['INQ', 'LTR', 0.016387064], // in^3
        ['FTQ', 'LTR', 28.316846592], // ft^3
        ['MMT', 'MTR', 0.001], // mm
        ['CMT', 'MTR', 0.01], // cm
        ['DMT', 'MTR', 0.1], // dm
        ['KMT', 'MTR', 1000], // km
        ['INH', 'MTR', 0.0254], // inch
        ['FOT', 'MTR', 0.3048], // foot
        ['YRD', 'MTR', 0.9144], // yard
        ['CMK', 'MTK', 0.0001], // cm^2
        ['DMK', 'MTK', 0.01], // dm^2
        ['INK', 'MTK', 0.00064516], // in^2
        ['FTK', 'MTK', 0.09290304], // ft^2
        ['YDK', 'MTK', 0.83612736], // yd^2
        ['HAR', 'MTK', 10000], // hectare
    ];

    #[DataProvider('factors')]
    public function testAFactorIsThatOfGnuUnits(string $code, string $base, float $factor): void
    {
        self::assertEqualsWithDelta(
            $factor,
            Unit::fromText($code)->factorTo(Unit::fromText($base))->toFloat(),
            1e-12 * $factor,
        );
    }

    /** @return list<array{string, string, float}> */
    public static function factors(): array
    {
        return self::FACTORS;
    }

    public function testEveryUnitOfAKindConvertsToEveryOtherAndBack(): void
    {
        foreach (Unit::cases() as $unit) {
            foreach ($unit->convertible() as $other) {
                self::assertTrue(
                    $unit->factorTo($other)->multipliedBy($other->factorTo($unit))->isEqualTo(1),
                    $unit->value.' '.$other->value,
                );
            }
        }
        self::assertContains(Unit::Pound, Unit::Kilogram->convertible());
        self::assertNotContains(Unit::Set, Unit::Each->convertible());
    }
}
