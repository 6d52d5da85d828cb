<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\Spread;

final class SpreadTest extends TestCase
{
    /** @return iterable<string, array{string, string, list<string>, list<string>}> */
    public static function amounts(): iterable
    {
        yield 'the first of equals first' => ['100', 'EUR', ['1', '1', '1'], ['33.34', '33.33', '33.33']];
        yield 'what lost most first' => ['10', 'EUR', ['1', '2', '4'], ['1.43', '2.86', '5.71']];
        yield 'a credit' => ['-100', 'EUR', ['1', '1', '1'], ['-33.34', '-33.33', '-33.33']];
        yield 'nothing for what weighs nothing' => ['5', 'EUR', ['0', '3'], ['0.00', '5.00']];
        yield 'no cents' => ['100', 'JPY', ['1', '1', '1'], ['34', '33', '33']];
        yield 'three places' => ['0.100', 'KWD', ['2', '1'], ['0.067', '0.033']];
        // The apportionment bill of 1792 for 120 seats by the census of 1790: Balinski and Young, Fair Representation,
        // 2nd ed. 2001, chapter 2; populations and seats from memory.
        yield 'the seats of 1792' => [
            '120',
            'JPY',
            [
                '630560', '475327', '432879', '353523', '331589', '278514', '236841', '206236', '179570', '141822',
                '85533', '70835', '68705', '68446', '55540',
            ],
            ['21', '16', '14', '12', '11', '9', '8', '7', '6', '5', '3', '2', '2', '2', '2'],
        ];
    }

    /**
     * @param list<string> $weights
     * @param list<string> $expected
     */
    #[DataProvider('amounts')]
    public function testItAddsUpToTheLastCent(string $amount, string $currency, array $weights, array $expected): void
    {
        $shares = Spread::over(Money::of($amount, $currency), array_map(BigDecimal::of(...), $weights));
        self::assertSame($expected, array_map(static fn (Money $share): string => (string) $share->amount, $shares));
        self::assertTrue(Money::sum($currency, $shares)->amount->isEqualTo($amount));
    }

    public function testNothingIsSpreadOverNothing(): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('12.50 cannot be spread');
        Spread::over(Money::of('12.5', 'EUR'), ['a' => BigDecimal::zero()]);
    }

    public function testWeightsBelowNothingAreRefused(): void
    {
        $this->expectException(InvalidValue::class);
        Spread::over(Money::of('12.5', 'EUR'), [BigDecimal::of(-1), BigDecimal::of(3)]);
    }
}
