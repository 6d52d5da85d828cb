<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\NestedPacks;
use TallBarrel\Core\Quantity\Pack;

/** A layer of cases, a pallet of layers. */
final class NestedPacksTest extends TestCase
{
    private static function read(string $typed): NestedPacks
    {
        return NestedPacks::read(Pack::of('case', 12), $typed);
    }

    /** By hand: 12, 8 × 12, 6 × 8 × 12. */
    public function testEachIsMadeOfTheOneBefore(): void
    {
        self::assertSame('case × 12, layer × 96, pallet × 576', self::read('layer=8  pallet=6')->label());
        self::assertSame('case × 12', self::read(' ')->label());
        self::assertSame('case × 12, pair × 24', self::read('pair=2')->label(), 'two are enough');
        self::assertSame('case × 12, Lage × 1,188,000', self::read('Lage=99000')->label());
    }

    /** @return iterable<string, array{string, string}> */
    public static function refused(): iterable
    {
        yield 'no number' => ['layer', '“layer” is not a larger pack'];
        yield 'a number alone' => ['8', '“8” is not a larger pack'];
        yield 'a part of one' => ['layer=1.5', '“layer=1.5” is not a larger pack'];
        yield 'a name too long' => [str_repeat('x', 21).'=8', 'is not a larger pack'];
        yield 'more than anybody stacks' => ['layer=100000', 'is not a larger pack'];
        yield 'one of one' => ['layer=1', 'A layer of 1 is not larger'];
        yield 'itself' => ['CASE=8', 'A CASE cannot contain a CASE'];
        yield 'the same twice' => ['layer=8 Layer=2', 'A Layer cannot contain a Layer'];
    }

    #[DataProvider('refused')]
    public function testWhatIsNoLargerPackIsRefusedByName(string $typed, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        self::read($typed);
    }
}
