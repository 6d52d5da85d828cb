<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Distribution\Normal;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\Method\Theta;
use TallBarrel\Core\Demand\Method\Trend;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\PlanningOptions;

/** Rules of a line or two that larger tests pass by. */
final class SmallRulesTest extends TestCase
{
    /**
     * Jarque & Bera 1980: n/6 (S² + (K − 3)²/4) against 5.991. Of 64 errors, m of them ±1 and the rest 0, S is 0 and
     * K is 64/m: with 14 it comes to 6.59, with 16 to 2.67 (worked by hand).
     */
    public function testErrorsLookNormalUpToTheFivePercentPoint(): void
    {
        $errors = static fn (int $ones): array => [
            ...array_fill(0, $ones, 1.0),
            ...array_fill(0, $ones, -1.0),
            ...array_fill(0, 64 - 2 * $ones, 0.0),
        ];
        self::assertSame(Shape::Errors, Shape::fitting(100.0, 1.0, $errors(7)));
        self::assertSame(Shape::Normal, Shape::fitting(100.0, 1.0, $errors(8)));
        self::assertSame(Shape::Normal, Shape::fitting(100.0, 1.0, array_fill(0, 29, 1.0)), 'too few to speak');
        self::assertSame(Shape::Counts, Shape::fitting(3.0, 1.0, []), 'three deviations are not beyond three');
        self::assertSame(Shape::Normal, Shape::fitting(3.01, 1.0, []));
        self::assertSame(Shape::Counts, Shape::fitting(60.0, 60.0, []));
        self::assertSame(Shape::Gamma, Shape::fitting(60.1, 60.0, []));
        self::assertInstanceOf(Normal::class, Shape::Gamma->with(0.0, 1.0));
    }

    /** Hyndman & Billah 2003, equation 11: the forecasts of a straight line drift by half its slope. */
    public function testThetaDriftsByHalfTheSlopeGapsOrNot(): void
    {
        $line = array_map(static fn (int $t): float => 20.0 + 3.0 * $t, range(0, 23));
        foreach ([$line, array_replace($line, [5 => null, 11 => null])] as $demand) {
            $theta = Theta::fit($demand, Smoothing::fit($line, Trend::None, parameters: [0.3]));
            $ahead = $theta->roll($line, [23], 4)[23];
            self::assertEqualsWithDelta(1.5, $ahead[1] - $ahead[0], 1e-9);
            self::assertEqualsWithDelta(1.5, $ahead[3] - $ahead[2], 1e-9);
        }
        $flat = array_fill(0, 12, 7.0);
        $ahead = Theta::fit($flat, Smoothing::fit($flat, Trend::None, parameters: [0.3]))->roll($flat, [11], 2)[11];
        self::assertEqualsWithDelta(7.0, $ahead[1], 1e-9);
    }

    public function testMoneyCountsInTheMonthItIsOrderedOrPaid(): void
    {
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        $months = static fn (BudgetBasis $basis, ?PaymentTerms $terms): array => array_map(
            static fn (Money $money): string => (string) $money->rounded()->amount,
            $basis->months(Money::of('100', 'EUR'), $terms, $day('2026-11-20'), $day('2026-12-05'), 8.0),
        );
        self::assertSame(['2026-11' => '100.00'], $months(BudgetBasis::Ordering, PaymentTerms::net(30)));
        self::assertSame(['2026-11' => '100.00'], $months(BudgetBasis::Ordering, null));
        self::assertSame(['2026-12' => '100.00'], $months(BudgetBasis::Paying, null), 'without terms, when it comes');
        self::assertSame(['2027-01' => '100.00'], $months(BudgetBasis::Paying, PaymentTerms::net(30)));
        self::assertSame(
            ['2026-11' => '40.00', '2027-01' => '60.00'],
            $months(BudgetBasis::Paying, PaymentTerms::net(30)->withDeposit(40)),
        );
    }

    public function testAnOrderListHoldsForItsItemsAtItsSite(): void
    {
        $of = static fn (?array $listed, ?int $site): Background => new Background(
            new \DateTimeImmutable('2026-11-23 10:30'),
            PlanningOptions::usual(),
            [],
            [],
            [],
            [],
            [],
            null === $listed ? null : array_fill_keys(array_filter($listed, is_int(...)), true),
            $site,
            null,
            4.0,
            0.2,
        );
        self::assertTrue($of(null, null)->isOnList(7, 1));
        self::assertTrue($of([7], null)->isOnList(7, 1));
        self::assertFalse($of([8], null)->isOnList(7, 1));
        self::assertTrue($of([7], 1)->isOnList(7, 1));
        self::assertFalse($of([7], 2)->isOnList(7, 1), 'the item, at another site');
        self::assertFalse($of([8], 1)->isOnList(7, 1), 'another item, at the site');
        self::assertSame([0, 0, 1], [
            $of(null, null)->weeksAgo('2026-11-23'),
            $of(null, null)->weeksAgo('2026-11-16'),
            $of(null, null)->weeksAgo('2026-11-15'),
        ]);
    }
}
