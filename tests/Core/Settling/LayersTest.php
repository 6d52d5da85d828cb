<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Settling\Layers;

/** Worked by hand: 10 at 4.00 came, then 5 at 6.40. */
final class LayersTest extends TestCase
{
    private static function two(): Layers
    {
        $layers = new Layers();
        $layers->add('first', BigDecimal::of(10), BigDecimal::of('4.00'));
        $layers->add('second', BigDecimal::of(5), BigDecimal::of('6.40'));

        return $layers;
    }

    private static function worth(Layers $layers, int|string $there): string
    {
        return (string) $layers->worth(BigDecimal::of($there), BigDecimal::of('5'))->strippedOfTrailingZeros();
    }

    /** @return iterable<string, array{string, string}> */
    public static function thereIs(): iterable
    {
        yield 'all' => ['15', '72'];
        yield 'a part of the first went' => ['12', '60'];
        yield 'the first went' => ['5', '32'];
        yield 'a part of the second went' => ['1.5', '9.6'];
        yield 'none' => ['0', '0'];
        yield 'less than none' => ['-3', '0'];
        yield 'two more than ever came, at the average' => ['17', '82'];
    }

    #[DataProvider('thereIs')]
    public function testWhatCameFirstGoesFirst(string $there, string $worth): void
    {
        self::assertSame($worth, self::worth(self::two(), $there));
    }

    public function testWhatDidNotComeIsInNoLayer(): void
    {
        $layers = self::two();
        $layers->lessen('second', BigDecimal::of(3));
        self::assertSame('52.8', self::worth($layers, 12));
        self::assertSame('12.8', self::worth($layers, 2));
        $layers->lessen('second', BigDecimal::of(3));
        self::assertSame('40', self::worth($layers, 10), 'never less than nothing of it');
        $layers->lessen('another', BigDecimal::of(3));
        self::assertSame('40', self::worth($layers, 10));
    }

    public function testWhatIsCountedAnewIsInNoLayerBefore(): void
    {
        $layers = self::two();
        $layers->forget();
        self::assertSame('15', self::worth($layers, 3));
        $layers->add('third', BigDecimal::of(2), BigDecimal::of('7'));
        self::assertSame('19', self::worth($layers, 3));
    }
}
