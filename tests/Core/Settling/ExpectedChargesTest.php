<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Settling;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ExpectedCharges;

final class ExpectedChargesTest extends TestCase
{
    private static function eur(string $amount): Money
    {
        return Money::of($amount, 'EUR');
    }

    /**
     * @param array<array-key, Money> $shares
     *
     * @return array<array-key, string>
     */
    private static function amounts(array $shares): array
    {
        return array_map(static fn (Money $share): string => (string) $share->rounded()->amount, $shares);
    }

    /** @return array{value: Money, dutyPercent: BigDecimal} */
    private static function line(string $value, string $duty = '0'): array
    {
        return ['value' => self::eur($value), 'dutyPercent' => BigDecimal::of($duty)];
    }

    /**
     * Worked by hand: of an order of 200.00 with freight of 20.00 and packing of 10.00 came 60.00 and 40.00, half of
     * it: freight 10.00 is 6 and 4, packing 5.00 is 3 and 2; duty of 10 % on 60 + 6 + 3 is 6.90.
     */
    public function testWhatCameBearsItsPartOfTheOrdersChargesAndDutyOnBoth(): void
    {
        $shares = ExpectedCharges::ofOrder(
            ['a' => self::line('60.00', '10'), 'b' => self::line('40.00')],
            self::eur('200.00'),
            self::eur('20.00'),
            self::eur('10.00'),
        );
        self::assertSame(
            [
                'freight' => ['a' => '6.00', 'b' => '4.00'],
                'other' => ['a' => '3.00', 'b' => '2.00'],
                'duty' => ['a' => '6.90', 'b' => '0.00'],
            ],
            array_map(self::amounts(...), $shares),
        );
    }

    public function testWhatCostsNothingIsNotExpectedAndMoreThanOrderedBearsNoMoreThanAll(): void
    {
        $goods = [self::line('120.00')];
        $none = self::eur('0');
        self::assertSame([], ExpectedCharges::ofOrder($goods, self::eur('100.00'), $none, $none));
        self::assertSame([], ExpectedCharges::ofOrder([], $none, self::eur('9'), $none));
        self::assertSame([], ExpectedCharges::ofOrder([self::line('0')], $none, self::eur('9'), $none), 'a gift');
        $shares = ExpectedCharges::ofOrder($goods, self::eur('100.00'), self::eur('9.00'), $none);
        self::assertSame(['freight' => ['9.00']], array_map(self::amounts(...), $shares));
    }

    /** By hand: 90.00 where 60.00 was reckoned with is half as much again; never more than threefold or a third. */
    public function testAfterAFewTimesExperienceCounts(): void
    {
        $corrected = static function (int $times, string $reckoned, string $came): string {
            [$before, $since] = [BigDecimal::of($reckoned), BigDecimal::of($came)];

            return (string) ExpectedCharges::corrected(self::eur('20.00'), $times, $before, $since)->amount;
        };
        self::assertSame('20.00', $corrected(2, '60.00', '90.00'));
        self::assertSame('30.00', $corrected(3, '60.00', '90.00'));
        self::assertSame('60.00', $corrected(3, '60.00', '600.00'));
        self::assertSame('6.67', $corrected(9, '60.00', '1.00'));
        self::assertSame('20.00', $corrected(3, '0.00', '1.00'));
    }

    /** By hand: 2 % of 60.00 and 40.00 are 1.20 and 0.80; 3.00 a receipt is 1.80 and 1.20. */
    public function testHandlingIsAPercentageAndAnAmountForEachReceipt(): void
    {
        $goods = [7 => self::eur('60.00'), 9 => self::eur('40.00')];
        $handling = ExpectedCharges::handling($goods, BigDecimal::of(2), self::eur('3.00'));
        self::assertSame([7 => '3.00', 9 => '2.00'], self::amounts($handling));
        self::assertSame([], ExpectedCharges::handling([self::eur('0')], BigDecimal::of(2), self::eur('3.00')));
    }
}
