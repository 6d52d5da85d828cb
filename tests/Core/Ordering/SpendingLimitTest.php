<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Ordering\SpentLately;

final class SpendingLimitTest extends TestCase
{
    private static function limit(?string $anOrder, ?string $aMonth): SpendingLimit
    {
        $figure = static fn (?string $limit): ?BigDecimal => null === $limit ? null : BigDecimal::of($limit);

        return SpendingLimit::of($figure($anOrder), $figure($aMonth));
    }

    private static function objection(SpendingLimit $limit, string $amount, string $supplier, string $month): ?string
    {
        return $limit->objection(
            BigDecimal::of($amount),
            new SpentLately(BigDecimal::of($supplier), BigDecimal::of($month)),
        );
    }

    public function testAnOrderUpToTheLimitAndNotACentBeyond(): void
    {
        $limit = self::limit('2500', null);
        self::assertNull(self::objection($limit, '2500.00', '0', '90000'));
        self::assertStringContainsString(
            '2,500.01 is over the limit of 2,500.00 an order',
            (string) self::objection($limit, '2500.01', '0', '0'),
        );
    }

    public function testSplittingGainsNothing(): void
    {
        $limit = self::limit('2500', null);
        self::assertNull(self::objection($limit, '1000', '1500', '1500'));
        self::assertStringContainsString(
            'with 1,500.00 let through to the same supplier in the last 7 days it comes to 2,500.01',
            (string) self::objection($limit, '1000.01', '1500', '1500'),
        );
    }

    public function testAMonthHasALimitOfItsOwn(): void
    {
        $limit = self::limit('2500', '6000');
        self::assertNull(self::objection($limit, '1000', '0', '5000'));
        self::assertStringContainsString(
            'it makes 6,000.01 this month, over the limit of 6,000.00 a month',
            (string) self::objection($limit, '1000.01', '0', '5000'),
        );
        self::assertNull(self::objection(self::limit(null, null), '1000000', '5', '5'), 'no limit is none');
        self::assertNotNull(self::objection(self::limit('0', null), '0.01', '0', '0'), '0 lets nothing through');
    }

    public function testWhoStandsInHasTheWiderOfBothLimits(): void
    {
        $wider = self::limit('2500', '8000')->orThatOf(self::limit('4000', '5000'));
        self::assertSame(['4000', '8000'], [(string) $wider->anOrder, (string) $wider->aMonth]);
        $none = self::limit('2500', '8000')->orThatOf(self::limit(null, '9000'));
        self::assertSame([null, '9000'], [$none->anOrder, (string) $none->aMonth]);
    }

    public function testALimitBelowNothingIsRefused(): void
    {
        $this->expectException(InvalidValue::class);
        $this->expectExceptionMessage('“-1” is below zero');
        self::limit(null, '-1');
    }

    public function testNoneIsNeitherOfAnOrderNorOfAMonth(): void
    {
        $hundred = BigDecimal::of(100);
        self::assertTrue(SpendingLimit::of(null, null)->isNone());
        self::assertFalse(SpendingLimit::of($hundred, null)->isNone());
        self::assertFalse(SpendingLimit::of(null, $hundred)->isNone());
        self::assertFalse(SpendingLimit::of(BigDecimal::zero(), null)->isNone(), 'nothing is a limit too');
    }
}
