<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Quantity;
use TallBarrel\Core\Quantity\Unit;

final class QuantityTest extends TestCase
{
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
        Unit::fromText('KISTE');
    }

    /** What lists of businesses say, as far as it can mean one thing only. */
    #[TestWith(['Each', Unit::Each])]
    #[TestWith(['Stk.', Unit::Each])]
    #[TestWith([' szt ', Unit::Each])]
    #[TestWith(['kg', Unit::Kilogram])]
    #[TestWith(['KGM', Unit::Kilogram])]
    #[TestWith(['m²', Unit::SquareMetre])]
    #[TestWith(['m3', Unit::CubicMetre])]
    #[TestWith(['Litres', Unit::Litre])]
    #[TestWith(['Paar', Unit::Pair])]
    #[TestWith(['mil', Unit::Thousand])]
    public function testAUnitIsReadByCodeSymbolOrWord(string $text, Unit $meant): void
    {
        self::assertSame($meant, Unit::fromText($text));
    }

    /** A stone or a Stück, a grain or a gram: nobody guesses. */
    #[TestWith(['St'])]
    #[TestWith(['gr'])]
    #[TestWith([''])]
    public function testWhatCouldBeTwoUnitsIsRefused(string $text): void
    {
        $this->expectException(InvalidValue::class);
        Unit::fromText($text);
    }
}
