<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Ordering;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Ordering\Readiness;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\PriceChange;

final class OrderRulesTest extends TestCase
{
    public function testAReceivedOrderCannotBeCancelledOrSentAgain(): void
    {
        self::assertFalse(OrderState::PartReceived->canBecome(OrderState::Cancelled));
        self::assertFalse(OrderState::Sent->canBecome(OrderState::Draft));
        self::assertFalse(OrderState::Draft->canBecome(OrderState::Sent), 'nothing goes out unapproved');
        self::assertTrue(OrderState::Approved->canBecome(OrderState::Sent));
        self::assertSame(['sent', 'acknowledged', 'part-received'], OrderState::openValues());
        $after = static fn (OrderState $ended): array => array_values(
            array_filter(OrderState::cases(), $ended->canBecome(...)),
        );
        self::assertSame(
            [OrderState::Draft, OrderState::Sent, OrderState::Acknowledged],
            $after(OrderState::Cancelled),
        );
        self::assertSame(
            [OrderState::Sent, OrderState::Acknowledged, OrderState::PartReceived],
            $after(OrderState::Closed),
        );
    }

    public function testReadinessNamesWhatIsMissingAndWhere(): void
    {
        $readiness = Readiness::of(
            ['contact' => 'Ilse', 'email' => '', 'address' => ' ', 'terms' => 'net 30'],
            [
                ['line' => 1, 'item' => 'JAR', 'supplierCode' => 'X'],
                ['line' => 2, 'item' => 'BOT-250P', 'supplierCode' => ''],
                ['line' => 3, 'item' => null, 'supplierCode' => ''],
            ],
        );
        self::assertFalse($readiness->isComplete());
        self::assertSame(
            [['email', null], ['address', null], ['supplierCode', 2]],
            array_map(static fn (array $one): array => [$one['fact'], $one['line']], $readiness->missing),
        );
        self::assertSame(
            'lines',
            Readiness::of(['contact' => 'a', 'email' => 'b', 'address' => 'c', 'terms' => 'd'], [])->missing[0]['fact'],
        );
    }

    /** @return iterable<array{string, list<int>, string, string}> */
    public static function moments(): iterable
    {
        yield 'before the hour' => ['2026-11-23 13:59', [1, 2, 3, 4, 5], '14:00', '2026-11-23 14:00'];
        yield 'after the hour' => ['2026-11-23 14:01', [1, 2, 3, 4, 5], '14:00', '2026-11-24 14:00'];
        yield 'Friday evening' => ['2026-11-27 18:00', [], '14:00', '2026-11-30 14:00'];
        yield 'Thursdays only' => ['2026-11-27 09:00', [4], '12:00', '2026-12-03 12:00'];
    }

    /** @param list<int> $days */
    #[DataProvider('moments')]
    public function testTheNextCutOff(string $now, array $days, string $hour, string $expected): void
    {
        self::assertSame(
            $expected,
            OrderDays::of($days, $hour)->nextCutOff(new \DateTimeImmutable($now))->format('Y-m-d H:i'),
        );
    }

    public function testHolidaysOfBothSidesMoveTheOrderAndTheArrival(): void
    {
        $now = new \DateTimeImmutable('2026-12-21 09:00');
        $plain = OrderDays::of([1, 4], '12:00');
        $shut = OrderDays::of([1, 4], '12:00', [['2026-12-24', '2027-01-01']], [['2027-01-04', '2027-01-05']]);
        self::assertSame('2026-12-21', $shut->nextCutOff($now)->format('Y-m-d'));
        self::assertSame(
            '2027-01-04',
            $shut->nextCutOff($now->modify('+1 day'))->format('Y-m-d'),
            'Thursday 24 and 31 are not worked',
        );
        self::assertSame([4, 14], [$plain->reviewDaysFrom($now), $shut->reviewDaysFrom($now)]);
        self::assertSame('2026-12-28', $plain->arrival($now, 5)->format('Y-m-d'));
        // Two days worked before they shut, three after; then nobody is here until the sixth.
        self::assertSame('2027-01-06', $shut->arrival($now, 5)->format('Y-m-d'));
        self::assertSame(9, $shut->holidaysWithin($now, 5));
        $this->expectExceptionMessage('takes no order in the next');
        OrderDays::of([1], '12:00', [['2026-01-01', '2028-01-01']])->nextCutOff($now);
    }

    /** Shut for 150 days they are waited for, for one more they are not. */
    public function testAnOrderDayIsLookedForFiveMonthsAhead(): void
    {
        $now = new \DateTimeImmutable('2026-11-23 09:00');
        $until = static fn (int $days): OrderDays => OrderDays::of(
            [1, 2, 3, 4, 5, 6, 7],
            '12:00',
            [['2026-11-23', $now->modify(sprintf('+%d days', $days - 1))->format('Y-m-d')]],
        );
        self::assertSame('2027-04-22', $until(150)->nextCutOff($now)->format('Y-m-d'));
        $this->expectExceptionMessage('takes no order in the next 150 days');
        $until(151)->nextCutOff($now);
    }

    public function testReviewDaysAreTheLongestGap(): void
    {
        self::assertSame(7, OrderDays::of([4], '12:00')->reviewDays());
        self::assertSame(5, OrderDays::of([2, 4], '12:00')->reviewDays());
        self::assertSame(3, OrderDays::of([], '12:00')->reviewDays(), 'over the weekend');
        self::assertSame(
            '2026-11-30',
            OrderDays::of([], '14:00')->arrival(new \DateTimeImmutable('2026-11-23 10:00'), 5)->format('Y-m-d'),
            'not on a Saturday',
        );
    }

    public function testAnHourThatIsNoneIsRefused(): void
    {
        $this->expectExceptionMessage('“25:00” is not an hour');
        OrderDays::of([], '25:00');
    }

    public function testAllUnitsPriceBreaks(): void
    {
        $prices = PriceBreaks::of([[40, '8.97'], [1, '9.30'], [80, '8.74']]);
        self::assertSame(
            ['9.30', '9.30', '8.97', '8.74'],
            array_map(static fn (int $packs): string => (string) $prices->priceFor($packs), [1, 39, 40, 500]),
        );
        $this->expectExceptionMessage('Two prices both start at 40');
        PriceBreaks::of([[40, 1], [40, 2]]);
    }

    public function testAPriceIsSetAgainstTheLastOnePaid(): void
    {
        $change = static fn (string $now, ?string $last): ?float => PriceChange::percent(
            BigDecimal::of($now),
            null === $last ? null : BigDecimal::of($last),
        );
        self::assertEqualsWithDelta(4.0, $change('10.40', '10.00'), 1e-9);
        self::assertEqualsWithDelta(-5.5, $change('9.45', '10.00'), 1e-9);
        self::assertNull($change('10.04', '10.00'), 'hardly moved');
        self::assertNull($change('10.00', null));
        self::assertNull($change('10.00', '0'));
    }

    public function testAPriceThatLooksLikeASlipIsNamed(): void
    {
        $doubt = static fn (string $now, ?string $last): ?string => PriceChange::doubt(
            BigDecimal::of($now),
            null === $last ? null : BigDecimal::of($last),
        );
        self::assertSame('the price is 0', $doubt('0', null));
        self::assertSame('40 times the last price paid', $doubt('372.00', '9.30'));
        self::assertSame('4 times the last price paid', $doubt('4', '1'));
        self::assertSame('10 % of the last price paid', $doubt('0.93', '9.30'));
        self::assertSame('22 % of the last price paid', $doubt('1', '4.5'));
        foreach ([['3.99', '1'], ['0.26', '1'], ['5', '0'], ['5', null]] as [$now, $last]) {
            self::assertNull($doubt($now, $last));
        }
    }

    public function testTheOfferOfFirstChoiceThenTheCheapestAtTheNeed(): void
    {
        $dear = self::offer(1, 2, [[1, '12.00']], 12, 'EUR');
        $breaks = self::offer(2, 2, [[1, '60.00'], [10, '40.00']], 12, '4');
        self::assertSame(1, OfferTerms::choose([$breaks, $dear], 12)->id, 'one case: 1.00 against 1.25');
        self::assertSame(2, OfferTerms::choose([$dear, $breaks], 120)->id, 'ten cases: 1.00 against 0.83');
        self::assertSame(
            3,
            OfferTerms::choose([$dear, $breaks, self::offer(3, 1, [[1, '99.00']], 12, 'EUR')], 120)->id,
            'first choice goes first',
        );
    }

    /** @param list<array{int, string}> $prices */
    private static function offer(int $id, int $rank, array $prices, int $content, string $rate): OfferTerms
    {
        $exchange = 'EUR' === $rate ? ExchangeRate::of('EUR', 'EUR', 1) : ExchangeRate::of('EUR', 'PLN', $rate);

        return new OfferTerms(
            $id,
            $id,
            BuyingRule::of(Pack::of('case', $content)),
            PriceBreaks::of($prices),
            $exchange,
            $rank,
            7,
        );
    }
}
