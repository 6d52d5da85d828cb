<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Store\Business\NumberSeries;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\OutlineRow;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Stock\ItemFigures;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Served;
use TallBarrel\Store\Stock\ServedDemand;
use TallBarrel\Store\Stock\StockFigures;
use TallBarrel\Store\Stock\StockList;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Work\Receiving\BookDelivery;

final class PlanningDataTest extends StoreTestCase
{
    private static function seen(Item $item): ItemSite
    {
        $found = array_values(
            array_filter(
                self::get(PlanningData::class)->itemSites(
                    self::now()->setTime(0, 0),
                    self::get(PlanningData::class)->items(),
                ),
                static fn (ItemSite $place): bool => $place->item->code === $item->code,
            ),
        );
        self::assertCount(1, $found);

        return $found[0];
    }

    private static function sold(Item $item, int $daysAgo, string $quantity, bool $out = false): void
    {
        self::connection()->executeStatement(
            'INSERT INTO sales_day (item_id, site_id, day, quantity, out_of_stock) VALUES (?, ?, ?, ?, ?)',
            [
                $item->id,
                self::site('FERRY')->id,
                self::now()
                    ->modify('-'.$daysAgo.' days')
                    ->format('Y-m-d'),
                $quantity,
                (int) $out,
            ],
        );
    }

    public function testSalesAreSummedIntoWeeksThatEndYesterday(): void
    {
        $item = self::item('P-1');
        self::entities()->flush();
        foreach ([[0, '99'], [1, '3'], [7, '4'], [8, '10'], [21, '5']] as [$ago, $quantity]) {
            self::sold($item, $ago, $quantity);
        }
        $history = self::seen($item)->record->own;
        self::assertSame([5.0, 10.0, 7.0], $history->sold, 'today is not over and does not count');
    }

    /** Tenths add up to what was sold, a week without sales is nought, and each item has its own. */
    public function testEachItemHasItsOwnWeeksToTheThousandth(): void
    {
        [$first, $second] = [self::item('P-1A'), self::item('P-1B')];
        self::entities()->flush();
        foreach ([[$second, 30, '7'], [$first, 2, '0.1'], [$first, 3, '0.2'], [$second, 1, '0.002'], [$first, 29, '4'],
            [$second, 2, '1.001']] as [$item, $ago, $quantity]) {
            self::sold($item, $ago, $quantity);
        }
        self::assertSame([4.0, 0.0, 0.0, 0.0, 0.3], self::seen($first)->record->own->sold);
        self::assertSame([7.0, 0.0, 0.0, 0.0, 1.003], self::seen($second)->record->own->sold);
    }

    public function testDaysWithoutStockAndReturnsAreKeptApart(): void
    {
        $item = self::item('P-2');
        self::entities()->flush();
        self::sold($item, 1, '6');
        self::sold($item, 2, '-2');
        foreach ([3, 4, 5, 6] as $ago) {
            self::sold($item, $ago, '0', true);
        }
        $history = self::seen($item)->record->own;
        self::assertSame([4.0], $history->sold, 'what came back is taken off');
        self::assertEqualsWithDelta([(4.0 * 7) / 3], $history->demand, 1e-9, 'three days in stock stand for seven');
    }

    public function testWhatIsHeldBackDoesNotCountAndPromisesAreSummed(): void
    {
        $item = self::item('P-3');
        self::entities()->persist(
            new CustomerPromise($item, self::site('FERRY'), BigDecimal::of(4), self::now(), 'sale 1'),
        );
        self::entities()->persist(
            new CustomerPromise($item, self::site('FERRY'), BigDecimal::of(2), self::now(), 'sale 2'),
        );
        self::entities()->flush();
        $post = static fn (int $quantity, StockState $state): Posting => new Posting(
            $item->id,
            self::site('FERRY')->id,
            MovementKind::Opening,
            BigDecimal::of($quantity),
            null,
            self::now(),
            'opening',
            null,
            '',
            $state,
        );
        self::get(Ledger::class)->enter(
            [$post(30, StockState::Available), $post(9, StockState::Held), $post(5, StockState::AtDock)],
            null,
        );
        $seen = self::seen($item);
        self::assertTrue($seen->stock->onHand->isEqualTo(35), 'what is at the dock will be free');
        self::assertTrue($seen->stock->promised->isEqualTo(6));
        $trip = new OneTrip();
        StockList::askOfItem($trip, $item->id, self::now());
        $figures = ItemFigures::in($trip->answers(self::get(Connection::class)));
        self::assertSame([self::site('FERRY')->id => 30.0], $figures->held, 'and is not there to sell yet');
    }

    public function testOpenOrdersCountInStockUnitsWithTheDayTheyAreDue(): void
    {
        $item = self::item('P-4');
        $order = self::sentOrder([[self::offer($item, '12.00'), 10]], 'PO-P4');
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(4));
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $open = self::seen($item)->stock->coming->orders;
        self::assertCount(1, $open);
        self::assertSame(
            ['PO-P4', '72', '2026-11-26'],
            [$open[0]->number, (string) $open[0]->stockUnits, $open[0]->due->format('Y-m-d')],
            'six of ten cases of twelve',
        );
    }

    public function testADeliveryBookedMeanwhileIsNotCountedTwice(): void
    {
        $item = self::item('P-5');
        $order = self::sentOrder([[self::offer($item, '12.00'), 10]], 'PO-P5');
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();
        // Somebody else books eight of the ten between our look and our press.
        self::connection()->executeStatement('UPDATE order_line SET received = 8 WHERE id = ?', [
            $order->lines()[0]->id,
        ]);
        $this->expectExceptionMessage('10 counted, 2 on order');
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    public function testLeadTimesMetComeFromReceiptsAndOffersEndWithTheirDate(): void
    {
        $item = self::item('P-6');
        $offer = self::offer($item, '12.00');
        $order = self::sentOrder([[$offer, 2]], 'PO-P6');
        self::connection()->executeStatement('UPDATE purchase_order SET sent_at = ? WHERE id = ?', [
            self::now()->modify('-9 days')->format('Y-m-d H:i:s'),
            $order->id,
        ]);
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(2));
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $data = self::get(PlanningData::class);
        self::assertSame([9], $data->suppliers()[$offer->supplier->id]->leadTimesMet);
        self::assertArrayHasKey($item->id, $data->offers(self::now()));
        $offer->promise(7, 1, self::now()->modify('-1 day'));
        self::entities()->flush();
        self::assertArrayNotHasKey($item->id, $data->offers(self::now()));
    }

    public function testAnOfferInACurrencyWithoutARateIsLeftOut(): void
    {
        $item = self::item('P-7');
        $offer = self::offer($item, '12.00');
        $offer->supplier->tradeIn('JPY');
        self::entities()->flush();
        self::assertArrayNotHasKey($item->id, self::get(PlanningData::class)->offers(self::now()));
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('There is no exchange rate for JPY on or before');
        self::get(Rates::class)->on('JPY', self::now());
    }

    public function testTheRateIsTheLatestUpToTheDay(): void
    {
        self::connection()->executeStatement(
            "INSERT INTO exchange_rate (currency, day, foreign_for_one)
                VALUES ('CHF', '2026-11-01', 0.95), ('CHF', '2026-11-20', 0.93), ('CHF', '2026-12-01', 0.5)",
        );
        self::assertSame(
            '0.93',
            (string) self::get(Rates::class)->on('CHF', self::now())->foreignForOne->strippedOfTrailingZeros(),
        );
        self::assertSame(
            '0.95',
            (string) self::get(Rates::class)
                ->on('CHF', new \DateTimeImmutable('2026-11-10'))
                ->foreignForOne->strippedOfTrailingZeros(),
        );
    }

    public function testNumbersFollowOneAnother(): void
    {
        $take = static fn (): string => NumberSeries::take(self::connection(), 'T', self::now());
        $first = $take();
        self::assertMatchesRegularExpression('/^T-\d{4}$/', $first);
        $next = (int) substr($first, 2);
        self::assertSame(['T-'.($next + 1), 'T-'.($next + 2)], [$take(), $take()]);
    }

    public function testAProposalTakesOnlyWhatCanBeBought(): void
    {
        $proposals = self::get(Proposals::class);
        $due = $proposals->load(
            array_map(static fn (OutlineRow $row): int => $row->id, self::get(Board::class)->chosen()),
        );
        self::assertNotSame([], $due);
        foreach ($due as $proposal) {
            if (null !== $proposal->offer() && null === $proposal->draft()) {
                self::assertNull(
                    $proposal->offer()->rule()->objectionTo($proposal->proposed),
                    $proposal->item->code.': what is proposed can be bought',
                );
            }
        }
        $proposal = array_values(
            array_filter(
                $due,
                static fn ($one): bool => null !== $one->offer()
                    && 1 < $one->offer()->rule()->pack->content->toInt()
                    && null === $one->draft(),
            ),
        )[0];
        $this->expectException(InvalidValue::class);
        $proposal->order(BigDecimal::of('0.5'), null);
    }

    public function testALotThatWillNotSellInTimeIsSeen(): void
    {
        $item = self::item('P-8', '3.00', true);
        self::entities()->flush();
        foreach (
            [['SOON', '+10 days', 50], ['LATE', '+200 days', 50], ['GONE', '-3 days', 2]] as [$lot, $expires, $quantity]
        ) {
            self::connection()->executeStatement('INSERT INTO lot (item_id, number, expires_on) VALUES (?, ?, ?)', [
                $item->id,
                $lot,
                self::now()->modify($expires)->format('Y-m-d'),
            ]);
            self::get(Ledger::class)->enter(
                [
                    new Posting(
                        $item->id,
                        self::site('FERRY')->id,
                        MovementKind::Opening,
                        BigDecimal::of($quantity),
                        null,
                        self::now(),
                        'opening',
                        null,
                        $lot,
                    ),
                ],
                null,
            );
        }
        $trip = new OneTrip();
        StockFigures::askLotsAtRisk($trip, self::now(), null);
        $lots = array_values(
            array_filter(
                StockFigures::lotsAtRiskIn($trip->answers(self::get(Connection::class))),
                static fn (array $lot): bool => 'P-8' === $lot['code'],
            ),
        );
        self::assertSame(['SOON', 'GONE'], array_column($lots, 'lot'), 'the dearest first; the late one has time');
        self::assertSame([150.0, 6.0], array_column($lots, 'value'), 'nothing sells, so all of it is left');
        self::assertSame(-3, $lots[1]['days']);
    }

    public function testDemandServedCountsWhatCouldNotBeSold(): void
    {
        $demand = self::get(ServedDemand::class);
        self::connection()->executeStatement('DELETE FROM sales_day');
        $item = self::item('P-9');
        self::entities()->flush();
        self::connection()->executeStatement(
            "UPDATE item SET sold = 1, sales_price = 10, average_cost = 6 WHERE code = 'P-9'",
        );
        for ($ago = 1; $ago <= 84; ++$ago) {
            self::sold($item, $ago, $ago <= 7 ? '0' : '10', $ago <= 7);
        }
        $today = self::now()->setTime(0, 0);
        $weeks = $demand->by(ServedDemand::WEEK, $today, 12, null);
        self::assertSame(array_map(strval(...), range(11, 0, -1)), array_column($weeks, 'of'), 'oldest first');
        self::assertEqualsWithDelta(0.0, $weeks[11]->share(), 1e-9, 'the last week served nobody');
        self::assertEqualsWithDelta(1.0, $weeks[0]->share(), 1e-9);
        // Seven empty days at ten a day, sold at 10 and bought at 6.
        self::assertEqualsWithDelta([0, 700, 280], [$weeks[11]->sold, $weeks[11]->missed, $weeks[11]->margin], 0.01);
        $all = Served::together($weeks);
        self::assertEqualsWithDelta(7700 / 8400, $all->share(), 1e-6);
        foreach ([ServedDemand::SITE, ServedDemand::CATEGORY, ServedDemand::SUPPLIER, ServedDemand::ITEM] as $by) {
            $parts = $demand->by($by, $today, 12, null);
            self::assertCount(1, $parts);
            self::assertEqualsWithDelta([$all->sold, $all->missed], [$parts[0]->sold, $parts[0]->missed], 0.01, $by);
        }
        self::assertSame([], $demand->by(ServedDemand::WEEK, self::now(), 12, self::site('MILL')->id));
        self::connection()->executeStatement("UPDATE item SET sold = 0 WHERE code = 'P-9'");
        self::assertSame([], $demand->by(ServedDemand::WEEK, $today, 12, null), 'what is used has no customers');
        self::assertSame(1.0, Served::together([])->share());
    }

    public function testStockValueIsSplitByHowLongItLasts(): void
    {
        $before = self::get(StockFigures::class)->value(null);
        $item = self::item('P-10', '2.00');
        self::entities()->flush();
        self::get(Ledger::class)->enter(
            [
                new Posting(
                    $item->id,
                    self::site('FERRY')->id,
                    MovementKind::Opening,
                    BigDecimal::of(100),
                    null,
                    self::now(),
                    'opening',
                    null,
                ),
            ],
            null,
        );
        $after = self::get(StockFigures::class)->value(null);
        self::assertEqualsWithDelta(200.0, $after['slow'] - $before['slow'], 0.01, 'what never sold is slow');
        self::assertEqualsWithDelta(0.0, $after['moving'] - $before['moving'], 0.01);
    }

    public function testOrderDaysOfASupplierAreKept(): void
    {
        $supplier = self::supplier();
        $supplier->takesOrders('2,5', '11:30');
        self::entities()->flush();
        self::entities()->refresh($supplier);
        self::assertEquals(OrderDays::of([2, 5], '11:30'), $supplier->orderDays());
        $this->expectExceptionMessage('is not a weekday');
        $supplier->takesOrders('9', '11:30');
    }
}
