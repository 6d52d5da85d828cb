<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\Sourced;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** How long it takes from now on, worked by hand on a calendar. 25 November 2026 is a Wednesday. */
final class SourcedTest extends TestCase
{
    /**
     * @param list<int>                   $weekdays
     * @param list<array{string, string}> $shut
     */
    private static function sourced(string $now, array $weekdays, int $leadDays, array $shut = []): Sourced
    {
        $offer = new OfferTerms(
            1,
            7,
            BuyingRule::of(Pack::of('each', 1)),
            PriceBreaks::of([[1, '2.00']]),
            ExchangeRate::of('EUR', 'EUR', 1),
            1,
            $leadDays,
        );

        return Sourced::among(
            [$offer],
            1,
            new Background(
                new \DateTimeImmutable($now),
                PlanningOptions::usual(),
                [7 => new SupplierTerms('S', OrderDays::of($weekdays, '12:00', $shut), [])],
                [],
                [],
                [],
                [],
                null,
                null,
                null,
                4.0,
                0.2,
            ),
        );
    }

    /** @param list<int> $weekdays */
    #[TestWith(['2026-11-25 09:00', [1, 2, 3, 4, 5], 5, '2026-11-30', 5.0, 0])]
    #[TestWith(['2026-11-25 13:00', [1, 2, 3, 4, 5], 5, '2026-12-01', 6.0, 1], 'past the hour: tomorrow')]
    #[TestWith(['2026-11-25 09:00', [1], 5, '2026-12-07', 12.0, 7], 'Monday, here on a Saturday, taken in on Monday')]
    #[TestWith(['2026-11-25 09:00', [1, 2, 3, 4, 5], 3, '2026-11-30', 5.0, 2], 'here on a Saturday')]
    public function testTheLeadTimeEndsOnTheDayOfArrival(
        string $now,
        array $weekdays,
        int $leadDays,
        string $arrival,
        float $days,
        int $wait,
    ): void {
        $sourced = self::sourced($now, $weekdays, $leadDays);
        self::assertSame($arrival, $sourced->arrival->format('Y-m-d'));
        self::assertSame([$days, $wait], [$sourced->leadTime->days, $sourced->wait]);
        self::assertSame(0, $sourced->holidays);
    }

    public function testHolidaysAreNoWait(): void
    {
        $sourced = self::sourced('2026-11-25 09:00', [1, 2, 3, 4, 5], 5, [['2026-11-26', '2026-11-27']]);
        self::assertSame('2026-12-02', $sourced->arrival->format('Y-m-d'));
        self::assertSame([7.0, 2, 0], [$sourced->leadTime->days, $sourced->holidays, $sourced->wait]);
    }
}
