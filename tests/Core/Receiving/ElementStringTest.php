<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Receiving;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Receiving\Gs1\ElementString;
use TallBarrel\Core\Receiving\Gs1\Identifier;

/** Against the GS1 General Specifications; the strings are put together from their rules, GTIN and SSCC from memory. */
final class ElementStringTest extends TestCase
{
    private const TODAY = '2026-11-23';

    private static function read(string $scanned, string $today = self::TODAY): ElementString
    {
        return ElementString::read($scanned, new \DateTimeImmutable($today));
    }

    /** @return iterable<string, array{string}> one symbol, as it reaches us in different ways */
    public static function ways(): iterable
    {
        yield 'GS1-128' => [']C1010950600013435217270331'."10AB-12\x1D3048"];
        yield 'DataMatrix, nothing said of the symbol' => ['010950600013435217270331'."10AB-12\x1D3048"];
        yield 'FNC1 in front as well' => ["\x1D01095060001343521727033110AB-12\x1D3048"];
        yield 'a separator of the scanner’s own' => ['01095060001343521727033110AB-12|3048'];
        yield 'what is variable in the middle, closed' => ["3048\x1D10AB-12\x1D010950600013435217270331"];
        yield 'as printed' => ['(01)09506000134352(17)270331(10)AB-12(30)48'];
    }

    #[DataProvider('ways')]
    public function testOneSymbolSaysTheSameHoweverItIsRead(string $scanned): void
    {
        self::assertTrue(ElementString::isOne($scanned) || str_starts_with($scanned, '30'));
        $read = self::read($scanned);
        self::assertSame('09506000134352', $read->gtin?->digits);
        self::assertSame('AB-12', $read->lot);
        self::assertSame('2027-03-31', $read->useBy?->format('Y-m-d'));
        self::assertSame(48, $read->count);
        self::assertNull($read->kilograms);
    }

    public function testWhatIsInACaseWeightsSerialsAndOrders(): void
    {
        $read = self::read('0209506000134352152703003105001225'."3712\x1D21SN/7\x1D400PO-1077");
        self::assertSame('09506000134352', $read->gtin?->digits);
        self::assertSame(12, $read->count);
        self::assertSame('2027-03-31', $read->useBy?->format('Y-m-d'), 'a day of 00 is the last of the month');
        self::assertSame('0.01225', (string) $read->kilograms);
        self::assertSame('SN/7', $read->serial);
        self::assertContains('PO-1077', $read->elements);
        self::assertSame('106141412345678908', self::read('(00)106141412345678908')->elements['00']);
        self::assertSame('2026-02-28', self::read('(11)260228(10)A(B')->madeOn?->format('Y-m-d'));
        self::assertSame('A(B', self::read('(11)260228(10)A(B')->lot, 'a lot may have a bracket in it');
    }

    /** @return iterable<string, array{string, string, string}> today, two digits, the year: section 7.12 */
    public static function centuries(): iterable
    {
        yield '50 ahead' => ['2026-01-01', '76', '2076'];
        yield '51 ahead is behind' => ['2026-01-01', '77', '1977'];
        yield 'far ahead is behind' => ['2026-01-01', '99', '1999'];
        yield '49 behind' => ['2099-01-01', '50', '2050'];
        yield '50 behind is ahead' => ['2099-01-01', '49', '2149'];
        yield 'over the turn of a century' => ['1995-01-01', '00', '2000'];
    }

    #[DataProvider('centuries')]
    public function testTheCenturyFollowsFromToday(string $today, string $digits, string $year): void
    {
        self::assertSame($year.'-06-15', self::read('(17)'.$digits.'0615', $today)->useBy?->format('Y-m-d'));
    }

    /** @return iterable<string, array{string, string}> */
    public static function wrong(): iterable
    {
        yield 'check digit' => ['(01)09506000134353', '(01) 09506000134353 ends in 3, but its check digit is 2.'];
        yield 'check digit of a pallet' => ['(00)106141412345678907', 'its check digit is 8'];
        yield '31 February' => ['(17)270231', '(17) 270231: February 2027 has 28 days.'];
        yield '29 February of a leap year is one' => ['(17)280230', 'February 2028 has 29 days.'];
        yield 'month 13' => ['(15)271301', 'there is no month 13'];
        yield 'too short' => ['0109506000134352172703', '(17) “2703”: 4 characters where 6 are expected.'];
        yield 'letters for digits' => ['(30)4x', '(30) “4x”: expected digits.'];
        yield 'too long a lot' => ['(10)'.str_repeat('A', 21), 'longer than 20 characters'];
        yield 'nothing behind it' => ['(10)(17)270331', '(10) “”: nothing stands behind it.'];
        yield 'a character of no symbol' => ['(10)Ä1', 'characters that GS1 symbols do not have'];
        yield 'two lots' => ['(10)A(10)B', '(10) “B”: and “A” stands there too.'];
        yield 'unknown' => ['01095060001343528899', 'After (01) stands “8899”, which is no'];
        yield 'unknown, printed' => ['(01)09506000134352(888)1', '(888) is no application identifier'];
        yield 'how many of what' => ['(02)09506000134352', '(37), how many of them, is missing'];
        yield 'of what' => ['(37)12', '(02), of what, is missing'];
    }

    #[DataProvider('wrong')]
    public function testWhatIsWrongIsNamed(string $scanned, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        self::read($scanned);
    }

    /**
     * GS1 General Specifications, section 3.2 (memory): how much stands behind an identifier, at most or exactly.
     *
     * @return iterable<string, array{string, int, bool}>
     */
    public static function identifiers(): iterable
    {
        foreach (['10' => 20, '21' => 20, '22' => 20, '240' => 30, '241' => 30, '250' => 30, '251' => 30, '400' => 30,
            '401' => 30, '403' => 30, '420' => 20, '90' => 30, '91' => 90, '99' => 90] as $digits => $most) {
            yield "($digits)" => [(string) $digits, $most, false];
        }
        foreach (['402' => 17, '410' => 13, '411' => 13, '412' => 13, '413' => 13, '414' => 13, '422' => 3, '20' => 2,
            '3103' => 6, '3302' => 6] as $digits => $exactly) {
            yield "($digits), digits" => [(string) $digits, $exactly, true];
        }
    }

    #[DataProvider('identifiers')]
    public function testAnIdentifierIsFollowedByAsMuchAsTheStandardSays(string $digits, int $long, bool $isNumber): void
    {
        $is = Identifier::at($digits.'1');
        self::assertNotNull($is);
        self::assertSame([$digits, $long, $isNumber ? 'n' : 'x'], [$is->digits, $is->length, $is->kind]);
        if (!$isNumber) {
            self::assertSame(
                str_repeat('A', $long),
                self::read(sprintf('(%s)%s', $digits, str_repeat('A', $long)))->elements[$digits] ?? null,
            );
            $this->expectExceptionMessage(sprintf('longer than %d characters', $long));
            self::read(sprintf('(%s)%s', $digits, str_repeat('A', $long + 1)));
        }
    }

    public function testPlainCodesAreNone(): void
    {
        foreach (['JAR-370H', '09506000134352', '5012345678900', '0012', '01 12', 'PO-1077'] as $code) {
            self::assertFalse(ElementString::isOne($code), $code);
        }
    }
}
