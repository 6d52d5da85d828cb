<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\TestCase;
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
        Unit::fromCode('KISTE');
    }
}
