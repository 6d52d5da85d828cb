<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Quantity;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;

final class NumeralsTest extends TestCase
{
    /**
     * @return iterable<string, array{string, string, string}> as typed, read with a decimal point, read with a decimal
     *      comma
     */
    public static function typed(): iterable
    {
        yield 'whole' => ['12', '12', '12'];
        yield 'grouped by spaces' => [' 1 200 ', '1200', '1200'];
        yield 'grouped by narrow spaces' => ["1\u{202f}200", '1200', '1200'];
        yield 'grouped by apostrophes' => ['1’200', '1200', '1200'];
        yield 'could be either, comma' => ['1,200', '1200', '1.2'];
        yield 'could be either, point' => ['1.200', '1.2', '1200'];
        yield 'nothing before the group: a part' => ['0,125', '0.125', '0.125'];
        yield 'a lone comma with one digit' => ['7,5', '7.5', '7.5'];
        yield 'a lone point with one digit' => ['2.5', '2.5', '2.5'];
        yield 'both, comma last' => ['12.500,00', '12500', '12500'];
        yield 'both, point last' => ['1,234.5', '1234.5', '1234.5'];
        yield 'two groups by commas' => ['1,234,567', '1234567', '1234567'];
        yield 'two groups by points' => ['1.234.567', '1234567', '1234567'];
        yield 'nothing before the mark' => ['.5', '0.5', '0.5'];
        yield 'nothing after the mark' => ['3.', '3', '3'];
        yield 'zero' => ['0', '0', '0'];
    }

    #[DataProvider('typed')]
    public function testReadsNumbersAsPeopleWriteThem(string $typed, string $point, string $comma): void
    {
        self::assertSame($point, (string) Numerals::with(Numerals::POINT)->quantity($typed));
        self::assertSame($comma, (string) Numerals::with(Numerals::COMMA)->quantity($typed));
    }

    public function testWhatCanBeReadInTwoWaysIsRefusedWithBothWhereTheMarkIsNotKnown(): void
    {
        self::assertSame('7.5', (string) Numerals::unknown()->quantity('7,5'));
        self::assertSame('12500', (string) Numerals::unknown()->quantity('12.500,00'));
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('“1,500” can be read as 1500 or as 1.5; say which decimal mark is used.');
        Numerals::unknown()->quantity('1,500');
    }

    /** @return iterable<string, array{string, string}> */
    public static function nonsense(): iterable
    {
        yield 'empty' => ['', 'is not a number'];
        yield 'a word' => ['twelve', 'is not a number'];
        yield 'an exponent' => ['1e5', 'is not a number'];
        yield 'below zero' => ['-4', 'is below zero'];
        yield 'too fine' => ['1.2345', 'more than three decimals'];
        yield 'too large' => ['99999999', 'is more than 9,999,999'];
        yield 'two marks' => ['1.2.3', 'is not a number'];
        yield 'groups of two' => ['1,23,456', 'is not a number'];
        yield 'the marks the wrong way about' => ['1,2.500.000', 'is not a number'];
        yield 'hexadecimal' => ['0x1A', 'is not a number'];
        yield 'far too long' => [str_repeat('9', 400), 'is not a number'];
        yield 'a mark alone' => [',', 'is not a number'];
    }

    #[DataProvider('nonsense')]
    public function testRefusesNonsenseNamingTheValue(string $typed, string $reason): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessageMatches('/“'.preg_quote($typed, '/').'”.*'.$reason.'/u');
        Numerals::with(Numerals::POINT)->quantity($typed);
    }

    public function testSignsPricesAndTheLimitsOfEach(): void
    {
        $point = Numerals::with(Numerals::POINT);
        self::assertSame('-30', (string) $point->decimal('−30', 2, signed: true));
        self::assertSame('20', (string) $point->decimal('+20', 2, signed: true));
        self::assertSame('9999999', (string) $point->quantity('9,999,999'));
        self::assertSame('0.123456', (string) $point->price('0.123456'));
        self::assertSame('999999999', (string) $point->price('999999999'));
        $this->expectExceptionMessage('“0.1234567” has more than six decimals.');
        $point->price('0.1234567');
    }

    /** @return iterable<string, array{list<string>, string|null}> */
    public static function files(): iterable
    {
        yield 'one number tells' => [['1,000', '7,5', 'case'], Numerals::COMMA];
        yield 'grouped and with a part' => [['12.500,00'], Numerals::COMMA];
        yield 'points' => [['1.000', '9.30'], Numerals::POINT];
        yield 'two groups of commas mean points' => [['1,234,567'], Numerals::POINT];
        yield 'prices with breaks' => [['1=9,30 40=8,97'], Numerals::COMMA];
        yield 'nothing tells' => [['1,000', '12', 'jar 0.5 l'], null];
        yield 'both ways at once' => [['7,5', '9.30'], null];
        yield 'no numbers' => [[], null];
    }

    /** @param list<string> $cells */
    #[DataProvider('files')]
    public function testAFilesOwnNumbersTellItsMark(array $cells, ?string $mark): void
    {
        self::assertSame($mark, Numerals::guessedFrom($cells)->mark);
    }

    public function testOnlyAPointOrACommaIsADecimalMark(): void
    {
        $this->expectExceptionMessage('“;” is no decimal mark');
        Numerals::with(';');
    }
}
