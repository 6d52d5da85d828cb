<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\Stage;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Receiving\Count;
use TallBarrel\Core\Receiving\CountFinding;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Sourcing\AgreementPace;
use TallBarrel\Core\Sourcing\AgreementState;
use TallBarrel\Core\Sourcing\PriceChange;

/** What holds exactly at a limit, and what one step beyond it. */
final class EdgesTest extends TestCase
{
    /** @param list<float> $sold */
    #[DataProvider('lives')]
    public function testStagesBeginAndEndWithAWeek(Stage $expected, array $sold): void
    {
        self::assertSame($expected, Stage::of(WeeklyHistory::of($sold, array_fill(0, count($sold), 0))));
    }

    /** @return iterable<string, array{Stage, list<float>}> */
    public static function lives(): iterable
    {
        $weeks = static fn (int $count, float $sold): array => array_fill(0, $count, $sold);
        yield '26 weeks are new' => [Stage::New, $weeks(26, 5.0)];
        yield '27 are not' => [Stage::Steady, $weeks(27, 5.0)];
        yield 'weeks before the first sale do not count' => [Stage::New, [...$weeks(40, 0.0), ...$weeks(26, 5.0)]];
        yield 'dead after 26 weeks' => [Stage::Dead, [...$weeks(40, 5.0), ...$weeks(26, 0.0)]];
        yield 'not after 25' => [Stage::Fading, [...$weeks(40, 5.0), ...$weeks(25, 0.0)]];
        yield 'half is not yet fading' => [Stage::Steady, [...$weeks(40, 4.0), ...$weeks(13, 2.0)]];
        yield 'less than half is' => [Stage::Fading, [...$weeks(40, 4.0), ...$weeks(13, 1.9)]];
        // With 65 weeks the same thirteen weeks of the year before are looked at, with 64 all that came before.
        $low = [...$weeks(13, 2.0), ...$weeks(39, 6.0), ...$weeks(13, 2.0)];
        yield 'as low as a year ago' => [Stage::Steady, $low];
        yield 'no year to look at' => [Stage::Fading, array_slice($low, 1)];
    }

    public function testWeeksWithThreeDaysInStockSayHowMuchWasWanted(): void
    {
        self::assertSame([7.0, null, 3.0], WeeklyHistory::of([3, 3, 3], [4, 5, -2])->demand);
        $history = WeeklyHistory::of([1, 2, 3, 4, 5], [0, 0, 7, 0, 0]);
        self::assertSame([1.0, 2.0], $history->between(9, 3)->sold, 'further back than there is');
        self::assertSame([5.0], $history->between(0, 0)->sold);
        self::assertSame([], $history->between(2, 3)->sold);
        self::assertSame([3.0, 4.0, 5.0], $history->lastSold(3));
        self::assertSame([0.5, 1.0, 1.5, 2.0, 2.5], $history->times(0.5)->sold);
        self::assertSame([0.5, 1.0, null, 2.0, 2.5], $history->times(0.5)->demand);
        self::assertEqualsWithDelta(3.0, (float) $history->meanDemand(), 1e-12, 'of the four known');
        self::assertNull(WeeklyHistory::of([0], [7])->meanDemand());
        self::assertSame([9.0, null, 3.0], WeeklyHistory::of([1, 2, 3], [0, 0, 0])->corrected([9.0, null])->demand);
    }

    /** Source: Syntetos, Boylan & Croston 2005; at the limit itself the harder class. */
    public function testPatternsAtTheirLimits(): void
    {
        // 33 periods, 25 with demand: an interval of 1.32 exactly.
        self::assertSame(Pattern::Intermittent, Pattern::of([...array_fill(0, 25, 4.0), ...array_fill(0, 8, 0.0)]));
        self::assertSame(Pattern::Smooth, Pattern::of([...array_fill(0, 25, 4.0), ...array_fill(0, 7, 0.0)]));
        // Sizes 3 and 17: mean 10, deviation 7, 0.7² = 0.49 exactly.
        self::assertSame(Pattern::Erratic, Pattern::of([3.0, 17.0]));
        self::assertSame(Pattern::Smooth, Pattern::of([3.1, 16.9]));
        self::assertSame(Pattern::Intermittent, Pattern::of([null, 0.0]), 'never sold');
    }

    public function testClassesAtTheirShares(): void
    {
        // 80 and 95 of a hundred are reached by the ones before: the next begins the next class.
        $classes = ValueClass::of([1 => 80.0, 2 => 15.0, 3 => 5.0]);
        self::assertSame(['A', 'B', 'C'], array_map(static fn (ValueClass $one): string => $one->value, array_values(
            $classes,
        )));
        self::assertSame(
            ['A', 'A', 'B'],
            array_map(
                static fn (ValueClass $one): string => $one->value,
                array_values(ValueClass::of([1 => 79.9, 2 => 15.0, 3 => 5.1])),
            ),
        );
        self::assertSame(ValueClass::C, ValueClass::of([1 => 10.0, 2 => -1.0])[2], 'more came back than went');
    }

    #[DataProvider('leadTimes')]
    public function testALeadTimeIsNeverNegative(float $days, float $spread, bool $allowed): void
    {
        if (!$allowed) {
            $this->expectException(InvalidValue::class);
            $this->expectExceptionMessage('-1');
        }
        self::assertSame($days, LeadTime::of($days, $spread)->days);
    }

    /** @return iterable<array{float, float, bool}> */
    public static function leadTimes(): iterable
    {
        yield [0.0, 0.0, true];
        yield [-1.0, 2.0, false];
        yield [2.0, -1.0, false];
    }

    public function testAPromiseCountsAsThreeDeliveries(): void
    {
        $promised = LeadTime::fromDeliveries(10, []);
        self::assertEqualsWithDelta([10.0, 2.0], [$promised->days, $promised->spread], 1e-12);
        // (3 × 10 + 16 + 14 + 20) / 6; squares 3 × 4 + 3 × 3.33² + 2.67² + 0.67² + 6.67².
        $met = LeadTime::fromDeliveries(10, [16, 14, 20]);
        $mean = 80 / 6;
        $squares = 12 + 3 * (10 - $mean) ** 2 + (16 - $mean) ** 2 + (14 - $mean) ** 2 + (20 - $mean) ** 2;
        self::assertEqualsWithDelta([$mean, sqrt($squares / 6)], [$met->days, $met->spread], 1e-12);
    }

    #[DataProvider('paces')]
    public function testAnAgreementsStatesAtTheirLimits(AgreementState $expected, float $drawn, string $today): void
    {
        self::assertSame($expected, self::pace($drawn, $today)->state);
    }

    /** @return iterable<string, array{AgreementState, float, string}> 1,000 over 100 days, 10 a day */
    public static function paces(): iterable
    {
        yield 'a tenth behind is on pace' => [AgreementState::OnPace, 400.0, '2026-02-20'];
        yield 'more is behind' => [AgreementState::Behind, 399.0, '2026-02-20'];
        yield 'a tenth ahead is on pace' => [AgreementState::OnPace, 600.0, '2026-02-20'];
        yield 'more is ahead' => [AgreementState::Ahead, 601.0, '2026-02-20'];
        yield 'nine tenths are nearly used up' => [AgreementState::NearlyUsed, 900.0, '2026-02-20'];
        yield 'a little less are ahead' => [AgreementState::Ahead, 899.0, '2026-02-20'];
        yield 'the first day' => [AgreementState::OnPace, 0.0, '2026-01-01'];
        yield 'the day before' => [AgreementState::NotBegun, 0.0, '2025-12-31 23:59'];
        yield 'thirty days before its end' => [AgreementState::EndsSoon, 700.0, '2026-03-12'];
        yield 'thirty-one' => [AgreementState::OnPace, 690.0, '2026-03-11'];
        yield 'the last day' => [AgreementState::EndsSoon, 899.0, '2026-04-10 18:00'];
        yield 'the day after' => [AgreementState::Ended, 899.0, '2026-04-11'];
    }

    public function testAnAgreementsFigures(): void
    {
        $pace = self::pace(...);
        self::assertSame([0.0, 0.0], [$pace(0, '2026-01-01')->drawnPerWeek, $pace(0, '2026-01-01')->due]);
        self::assertEqualsWithDelta(60.0 / 10 * 7, $pace(60, '2026-01-11')->drawnPerWeek, 1e-9);
        self::assertSame(0.0, $pace(950, '2026-02-20')->perWeek, 'what the tolerance asks for is there');
        self::assertSame(0.0, $pace(500, '2026-06-01')->perWeek, 'there are no weeks any more');
        self::assertSame([0.0, 0.0], [$pace(1200, '2026-02-20')->left(), $pace(1200, '2026-02-20')->room()]);
        // 500 in 50 days last to the end to the day, and not a day less; 501 fall short of it.
        self::assertNull($pace(500, '2026-02-20')->usedUpOn);
        self::assertSame('2026-04-10', $pace(501, '2026-02-20')->usedUpOn?->format('Y-m-d'));
        self::assertNull($pace(1000, '2026-02-20')->usedUpOn, 'it is used up already');
    }

    public function testAnOrderIsStillOutInTimeAtTheMinuteItself(): void
    {
        $days = OrderDays::of([1, 3], '14:00', [['2026-11-25', '2026-11-25']]);
        $next = static fn (string $now): string => $days->nextCutOff(new \DateTimeImmutable($now))->format('m-d H:i');
        self::assertSame('11-23 14:00', $next('2026-11-23 14:00:00'));
        self::assertSame('11-30 14:00', $next('2026-11-23 14:00:01'), 'Wednesday they are shut, for one day');
        self::assertSame('12-02 14:00', $next('2026-12-01 00:00'));
        self::assertSame([1, 3], OrderDays::of([3, 1, 3], '14:00')->weekdays);
        self::assertSame([7, 1], [OrderDays::of([7], '14:00')->reviewDays(), OrderDays::of(
            [1, 2, 3, 4, 5, 6, 7],
            '14:00',
        )->reviewDays()]);
    }

    #[DataProvider('windows')]
    public function testADayOrAnHourThatIsNoneIsRefused(string $expected, int $weekday, string $hour): void
    {
        $this->expectExceptionMessage($expected);
        OrderDays::of([$weekday], $hour);
    }

    /** @return iterable<array{string, int, string}> */
    public static function windows(): iterable
    {
        yield ['0 is not a weekday', 0, '14:00'];
        yield ['8 is not a weekday', 8, '14:00'];
        yield ['“24:00” is not an hour', 1, '24:00'];
        yield ['“9:00” is not an hour', 1, '9:00'];
        yield ['“14:60” is not an hour', 1, '14:60'];
    }

    public function testArrivalIsADaySomebodyIsHere(): void
    {
        $now = new \DateTimeImmutable('2026-11-23 09:00');
        $arrival = static fn (int $days, array $ours = []): string => OrderDays::of([], '12:00', [], $ours)
            ->arrival($now, $days)
            ->format('D d');
        self::assertSame(['Mon 23', 'Fri 27', 'Mon 30', 'Mon 30'], array_map($arrival, [0, 4, 5, 6]));
        self::assertSame('Tue 24', $arrival(0, [['2026-11-23', '2026-11-23']]));
        self::assertSame(0, OrderDays::of([], '12:00')->holidaysWithin($now, 5));
    }

    public function testATenthMoreOrOnePackIsTakenIn(): void
    {
        $find = static fn (string $ordered, string $counted): CountFinding => Count::of(
            BigDecimal::of($ordered),
            BigDecimal::of($counted),
        )->finding;
        self::assertSame(CountFinding::Over, $find('30', '33'));
        self::assertSame(CountFinding::TooMuch, $find('30', '33.001'));
        self::assertSame(CountFinding::Over, $find('10', '11'));
        self::assertSame(CountFinding::TooMuch, $find('9', '10.1'));
        self::assertSame(CountFinding::Over, $find('0', '1'), 'one that was not ordered');
        self::assertSame('0.5 over', Count::of(BigDecimal::of('3.50'), BigDecimal::of(4))->words());
        self::assertSame('5', (string) Count::of(BigDecimal::of(5), null)->difference());
    }

    public function testAPriceThatHardlyMovedIsNotTold(): void
    {
        $percent = static fn (string $now, ?string $last): ?float => PriceChange::percent(
            BigDecimal::of($now),
            null === $last ? null : BigDecimal::of($last),
        );
        self::assertNull($percent('10.04', '10'));
        self::assertEqualsWithDelta(0.6, $percent('10.06', '10'), 1e-9);
        self::assertEqualsWithDelta(-0.5, $percent('199', '200'), 1e-9, 'half a percent is told');
        self::assertSame([null, null], [$percent('10', null), $percent('10', '0')]);
    }

    public function testPaymentTermsAtTheirLimits(): void
    {
        $day = new \DateTimeImmutable('2026-01-31');
        self::assertSame('2026-03-02', PaymentTerms::net(30)->dueOn($day)->format('Y-m-d'));
        self::assertSame('2026-03-02', PaymentTerms::net(30)->fromEndOfMonth()->dueOn($day)->format('Y-m-d'));
        self::assertSame(
            '2026-03-30',
            PaymentTerms::net(30)->fromEndOfMonth()->dueOn($day->modify('+1 day'))->format('Y-m-d'),
        );
        self::assertSame(
            '2026-04-01',
            PaymentTerms::net(30)->inInstalments('50@60 50@30')->dueOn($day)->format('Y-m-d'),
            'the last of them',
        );
        self::assertNull(PaymentTerms::net(30)->discountUntil($day));
        self::assertSame('2026-02-10', PaymentTerms::net(30, 2, 10)->discountUntil($day)?->format('Y-m-d'));
        self::assertSame('net 0 after the month’s end', PaymentTerms::net(0)->fromEndOfMonth()->label());
        self::assertSame(
            '30 % when ordering, 50 % after 30 d, 20 % after 60 d',
            PaymentTerms::net(30)->withDeposit(30)->inInstalments('50@30 20@60')->label(),
        );
        self::assertSame(365, PaymentTerms::net(365)->netDays);
        self::assertSame('100', (string) PaymentTerms::net(0)->withDeposit(100)->depositPercent);
    }

    /** @param callable(): PaymentTerms $make */
    #[DataProvider('impossibleTerms')]
    public function testTermsThatCannotBeAreRefused(string $expected, callable $make): void
    {
        $this->expectExceptionMessage($expected);
        $make();
    }

    /** @return iterable<array{string, callable(): PaymentTerms}> */
    public static function impossibleTerms(): iterable
    {
        yield ['Net -1 days', static fn () => PaymentTerms::net(-1)];
        yield ['Net 366 days', static fn () => PaymentTerms::net(366)];
        yield ['A discount of 100 %', static fn () => PaymentTerms::net(30, 100, 10)];
        yield ['A discount of -1 %', static fn () => PaymentTerms::net(30, -1, 10)];
        yield ['The discount ends after 30 days', static fn () => PaymentTerms::net(30, 2, 30)];
        yield ['A deposit of 101 %', static fn () => PaymentTerms::net(30)->withDeposit(101)];
        yield ['A deposit of -1 %', static fn () => PaymentTerms::net(30)->withDeposit(-1)];
        yield ['come to 99.5 %', static fn () => PaymentTerms::net(30)->inInstalments('50@30 49.5@60')];
        yield ['“50” is not an instalment', static fn () => PaymentTerms::net(30)->inInstalments('50 @30')];
    }

    /** Harris 1913, by hand: √(2 × 1200 × 25 / 6) = 100. */
    public function testTheEconomicQuantityAndWhatHasNone(): void
    {
        self::assertSame(100.0, EconomicOrderQuantity::of(1200, 25, 6));
        self::assertSame(0.0, EconomicOrderQuantity::of(0, 25, 6));
        self::assertSame(0.0, EconomicOrderQuantity::of(1200, 0, 6));
        foreach ([[-1, 25, 6], [1200, -1, 6], [1200, 25, 0]] as [$demand, $order, $holding]) {
            try {
                EconomicOrderQuantity::of($demand, $order, $holding);
                self::fail('refused');
            } catch (InvalidValue $refused) {
                self::assertStringContainsString('No economic quantity', $refused->getMessage());
            }
        }
        // At 5 apiece 100 would be ordered; from 100 on it costs 4, where √(60,000 / 4.8) = 111.8 is had.
        [$quantity, $cost] = EconomicOrderQuantity::allUnits(1200, 25, 1.2, [[1.0, 5.0], [100.0, 4.0]]);
        self::assertEqualsWithDelta(sqrt(60000 / 4.8), $quantity, 1e-9);
        self::assertEqualsWithDelta(4800 + sqrt(2 * 1200 * 25 * 4.8), $cost, 1e-9);
        // From 200 on, dearer to hold than it saves against 111.8: the break itself is tried, and loses.
        [$quantity] = EconomicOrderQuantity::allUnits(1200, 25, 1.2, [[1.0, 4.0], [400.0, 3.99]]);
        self::assertEqualsWithDelta(sqrt(60000 / 4.8), $quantity, 1e-9);
        [$quantity] = EconomicOrderQuantity::allUnits(1200, 25, 1.2, [[1.0, 4.0], [200.0, 3.0]]);
        self::assertSame(200.0, $quantity, 'where the lower price begins');
    }

    /** 1,000 over 100 days, 10 a day, a tenth more or less. */
    private static function pace(float $drawn, string $today): AgreementPace
    {
        return AgreementPace::of(
            1000,
            10,
            new \DateTimeImmutable('2026-01-01'),
            new \DateTimeImmutable('2026-04-10'),
            $drawn,
            new \DateTimeImmutable($today),
        );
    }

    /** A twentieth of the values, or one of few, may be odd; where more are, the series is like that. */
    public function testAsManyOddOnesAreTakenOutAsCanBeByChance(): void
    {
        $series = static function (int $count, int $odd): array {
            $values = [];
            for ($i = 0; $i < $count; ++$i) {
                $values[] = 100.0 + $i % 3;
            }
            for ($i = 0; $i < $odd; ++$i) {
                $values[5 + 11 * $i] = 900.0;
            }

            return array_values($values);
        };
        $left = static fn (array $values): int => count(array_filter(
            Cleaning::ofSeries($values, 1),
            static fn (?float $one): bool => 900.0 === $one,
        ));
        self::assertSame([0, 0, 3], [$left($series(40, 1)), $left($series(40, 2)), $left($series(40, 3))]);
        self::assertSame([0, 2], [$left($series(18, 1)), $left($series(18, 2))], 'one of few');
    }
}
