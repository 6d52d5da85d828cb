<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Quantity\Unit;

final class QuantityTest extends TestCase
{
    /** @return iterable<array{string, string}> */
    public static function typed(): iterable
    {
        yield ['12', '12'];
        yield [' 1 200 ', '1200'];
        yield ['1,200', '1200'];
        yield ['2.5', '2.5'];
        yield ['2,5', '2.5'];
        yield ['0', '0'];
        yield ['.5', '0.5'];
        yield ['3.', '3'];
        yield ['1,234,567', '1234567'];
    }

    #[DataProvider('typed')]
    public function testReadsAQuantityAsPeopleTypeIt(string $typed, string $amount): void
    {
        self::assertSame($amount, (string) Quantity::read($typed));
    }

    /** @return iterable<array{string, string}> */
    public static function nonsense(): iterable
    {
        yield ['', 'is not a number'];
        yield ['twelve', 'is not a number'];
        yield ['1e5', 'is not a number'];
        yield ['-4', 'is below zero'];
        yield ['1.2345', 'more than three decimals'];
        yield ['99999999', 'is more than'];
        yield ['1.2.3', 'is not a number'];
        yield ['0x1A', 'is not a number'];
        yield [str_repeat('9', 400), 'is not a number'];
    }

    #[DataProvider('nonsense')]
    public function testRefusesNonsenseNamingTheValue(string $typed, string $reason): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessageMatches('/“'.preg_quote($typed, '/').'”.*'.$reason.'/u');
        Quantity::read($typed);
    }

    public function testAddsOnlyWhatIsCountedAlike(): void
    {
        $sum = Quantity::of('1.5', Unit::Kilogram)->plus(Quantity::of(500, Unit::Gram)->in(Unit::Kilogram));
        self::assertSame('2', (string) $sum->amount);
        $this->expectExceptionMessage('KGM and EA cannot be added');
        $sum->minus(Quantity::of(1, Unit::Each));
    }

    public function testAUnitMustMeasureTheSameThing(): void
    {
        $this->expectExceptionMessage('one is a mass, the other a volume');
        Quantity::of(1, Unit::Kilogram)->in(Unit::Litre);
    }

    public function testAnUnknownUnitCodeIsNamed(): void
    {
        $this->expectExceptionMessage('“KISTE” is not a unit code');
        Unit::fromCode('KISTE');
    }
}
