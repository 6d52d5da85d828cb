<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Money;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\AdjustedSum;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Money\TaxedSum;
use TallBarrel\Core\Quantity\Numerals;

/** The sums of a document by the calculation rules of EN 16931-1:2017, 6.4 (the rules' texts from memory). */
final class DocumentSumsTest extends TestCase
{
    /** @return array{Money, Tax} */
    private static function line(string $amount, string $percent, string $currency = 'EUR'): array
    {
        return [Money::of($amount, $currency), Tax::percent($percent)];
    }

    private static function charge(string $amount, ?string $below = null, string $tax = '25'): AllowanceCharge
    {
        $below = null === $below ? null : BigDecimal::of($below);

        return AllowanceCharge::of(true, 'Packing', BigDecimal::of($amount), null, Tax::percent($tax), $below);
    }

    private static function off(string $percent, string $tax = '25'): AllowanceCharge
    {
        return AllowanceCharge::of(false, 'Trade discount', null, BigDecimal::of($percent), Tax::percent($tax));
    }

    /** @return array<string, string> */
    private static function figures(DocumentSums $sums): array
    {
        return array_map(static fn (Money $money): string => (string) $money->amount, [
            'goods' => $sums->goods,
            'allowances' => $sums->allowances,
            'charges' => $sums->charges,
            'net' => $sums->net,
            'tax' => $sums->tax,
            'total' => $sums->total,
        ]);
    }

    /**
     * Two rates, a line exempt, an allowance on the first rate and a charge on the second; worked by hand rule by rule:
     * BR-CO-10 1000.00 + 200.00 + 50.00; BR-CO-11 5 % of 1250.00 = 62.50; BR-CO-12 20.00; BR-CO-13 1250.00 − 62.50 +
     * 20.00; BR-S-08 1000.00 − 62.50 at 25 %, 200.00 + 20.00 at 12 %; BR-CO-17 234.38 and 26.40; BR-CO-14, BR-CO-15.
     */
    public function testEachRuleOfTheStandard(): void
    {
        $sums = DocumentSums::of(
            'EUR',
            [
                self::line('1000', '25'),
                self::line('200', '12'),
                [Money::of('50', 'EUR'), Tax::of(TaxCategory::Exempt)],
            ],
            [self::off('5'), self::charge('20', tax: '12')],
        );
        self::assertSame(
            [
                'goods' => '1250.00',
                'allowances' => '62.50',
                'charges' => '20.00',
                'net' => '1207.50',
                'tax' => '260.78',
                'total' => '1468.28',
            ],
            self::figures($sums),
        );
        self::assertSame(
            [['S 25', '937.50', '234.38'], ['S 12', '220.00', '26.40'], ['E 0', '50.00', '0.00']],
            array_map(
                static fn (TaxedSum $sum): array => [
                    $sum->tax->key(),
                    (string) $sum->taxable->amount,
                    (string) $sum->amount->amount,
                ],
                $sums->taxes,
            ),
        );
        self::assertSame(
            ['62.50', '20.00'],
            array_map(static fn (AdjustedSum $sum): string => (string) $sum->amount->amount, $sums->adjustments),
        );
    }

    /** BR-CO-17: three lines of 0.12 at 21 % make 0.0756, 0.08; line by line it would be three times 0.03. */
    public function testTaxIsReckonedOnceForAllThatIsTaxedAlike(): void
    {
        $sums = DocumentSums::of('EUR', array_fill(0, 3, self::line('0.12', '21')));
        self::assertSame(['0.36', '0.08', '0.44'], array_slice(array_values(self::figures($sums)), 3));
        $lines = [self::line('100.005', '21'), self::line('50', '0'), self::line('10', '9')];
        $sums = self::figures(DocumentSums::of('EUR', $lines));
        self::assertSame(['160.01', '21.90'], [$sums['goods'], $sums['tax']], 'each line is rounded first, half up');
        self::assertSame('0.00', self::figures(DocumentSums::of('EUR', []))['total']);
        $differing = [self::line('10', '0'), [Money::of('10', 'EUR'), Tax::of(TaxCategory::ReverseCharge)]];
        self::assertCount(2, DocumentSums::of('EUR', $differing)->taxes, 'untaxed for another reason is not alike');
    }

    /** ISO 4217: no minor unit of a yen, three decimals of a Kuwaiti dinar. */
    public function testSumsAreInTheCurrencysSmallestCoin(): void
    {
        $yen = self::figures(
            DocumentSums::of('JPY', [self::line('1000.4', '10', 'JPY'), self::line('5', '10', 'JPY')]),
        );
        self::assertSame(['1005', '101', '1106'], [$yen['net'], $yen['tax'], $yen['total']]);
        $dinar = self::figures(DocumentSums::of('KWD', [self::line('1.2345', '5', 'KWD')], [self::off('10', '5')]));
        self::assertSame(['1.235', '0.124', '1.111'], [$dinar['goods'], $dinar['allowances'], $dinar['net']]);
    }

    public function testAFeeForSmallOrdersStandsOnlyBelowItsLimit(): void
    {
        $fee = self::charge('12.50', '250');
        $at = static fn (string $goods): string => self::figures(
            DocumentSums::of('EUR', [self::line($goods, '25')], [$fee]),
        )['charges'];
        self::assertSame(['12.50', '0.00', '0.00'], [$at('249.99'), $at('250'), $at('900')]);
        self::assertCount(
            1,
            DocumentSums::of('EUR', [self::line('900', '25')], [self::charge('12', '250', '9')])->taxes,
            'what does not stand is not taxed either',
        );
    }

    public function testAdjustmentsComeBackAsTheyWereKept(): void
    {
        foreach ([self::charge('12.50', '250'), self::off('2.5', '0')] as $adjustment) {
            $back = AllowanceCharge::fromArray($adjustment->toArray());
            self::assertSame($adjustment->toArray(), $back->toArray());
            self::assertSame($adjustment->words(), $back->words());
        }
        self::assertSame('Packing 12.5 below 250', self::charge('12.50', '250')->words());
        self::assertSame('Trade discount less 2.5 %', self::off('2.5')->words());
    }

    /** @return iterable<string, array{callable(): mixed, string}> */
    public static function refused(): iterable
    {
        $tax = Tax::percent(0);
        yield 'no reason' => [
            static fn () => AllowanceCharge::of(true, ' ', BigDecimal::one(), null, $tax),
            'what it is for',
        ];
        yield 'no amount' => [static fn () => AllowanceCharge::of(true, 'Fee', null, null, $tax), 'How much is “Fee”'];
        yield 'nothing' => [static fn () => self::charge('0'), '“Packing” is 0; expected above 0'];
        yield 'too much off' => [static fn () => self::off('100.1'), 'takes 100.1 % off'];
        yield 'a rate of nothing' => [static fn () => Tax::of(TaxCategory::Standard, 0), 'needs a rate above 0'];
        yield 'a rate of what is exempt' => [static fn () => Tax::of(TaxCategory::Exempt, 5), 'exempt has no rate'];
        yield 'a rate above all' => [static fn () => Tax::percent(101), '101 %'];
        yield 'a word' => [static fn () => Tax::read('some', Numerals::unknown()), '“some” is no tax'];
        yield 'a discount above all' => [
            static fn () => PriceDiscount::read('120 %', Numerals::with('.')),
            '120',
        ];
        yield 'more off than there is' => [
            static fn () => PriceDiscount::each(BigDecimal::of('9.31'))->off(BigDecimal::of('9.30')),
            'A discount of 9.31 on a price of 9.3 leaves less than nothing',
        ];
    }

    /** @param callable(): mixed $make */
    #[DataProvider('refused')]
    public function testNonsenseIsRefused(callable $make, string $words): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage($words);
        $make();
    }

    public function testTaxAndDiscountsAreReadAsTyped(): void
    {
        $point = Numerals::with('.');
        self::assertSame('S 23', Tax::read(' 23 % ', $point)->key());
        self::assertSame('S 13.5', Tax::read('13,5', Numerals::with(','))->key());
        self::assertSame('Z 0', Tax::read('0', $point)->key());
        self::assertSame('AE 0', Tax::read('Reverse charge', $point)->key());
        self::assertSame('E 0', Tax::read('e', $point)->key());
        $net = static fn (string $typed): string => (string) PriceDiscount::read($typed, $point)
            ->off(BigDecimal::of('9.30'))
            ->strippedOfTrailingZeros();
        self::assertSame(['9.3', '8.835', '9.1'], [$net(''), $net('5 %'), $net('0.20')]);
        self::assertSame('5 %', PriceDiscount::read('5%', $point)->words());
        self::assertSame('', PriceDiscount::read('0', $point)->words());
    }

    public function testEveryCategoryIsACodeOfTheStandardsList(): void
    {
        $codes = array_map(static fn (TaxCategory $category): string => $category->value, TaxCategory::cases());
        self::assertSame(['S', 'Z', 'E', 'AE', 'K', 'G', 'O'], $codes);
        self::assertNotContains(TaxCategory::Standard, TaxCategory::untaxed());
        self::assertCount(6, TaxCategory::untaxed());
    }

    public function testFreightIsKnownByItsWords(): void
    {
        $isFreight = static fn (string $reason): bool => AllowanceCharge::of(
            true,
            $reason,
            BigDecimal::one(),
            null,
            Tax::percent(BigDecimal::zero()),
        )->isFreight();
        foreach (['Freight to site', 'Frachtkosten', 'carriage', 'Sea port', 'EXPRESS SHIPPING'] as $reason) {
            self::assertTrue($isFreight($reason), $reason);
        }
        foreach (['Packing', 'Portable stand', 'Tooling'] as $reason) {
            self::assertFalse($isFreight($reason), $reason);
        }
    }
}
