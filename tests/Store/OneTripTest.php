<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Offer\OfferName;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\OrderList;
use TallBarrel\Store\Planning\OrderLists;

/** Several questions in one query are answered as each alone would be. */
final class OneTripTest extends StoreTestCase
{
    public function testEachQuestionIsAnsweredInItsOwnOrder(): void
    {
        $answers = (new OneTrip())
            ->ask(
                'letters',
                ['letter', 'place'],
                'place DESC',
                "SELECT 'a' letter, 1 place UNION SELECT 'b', 10 UNION SELECT 'c', 2",
            )
            ->ask('none', ['letter'], 'letter', "SELECT 'a' letter FROM DUAL WHERE 1 = 0")
            ->ask('one', ['sum'], 'sum', 'SELECT ? + ? sum', [20, 22])
            ->answers(self::connection());
        self::assertSame(
            [
                'letters' => [
                    ['letter' => 'b', 'place' => '10'],
                    ['letter' => 'c', 'place' => '2'],
                    ['letter' => 'a', 'place' => '1'],
                ],
                'none' => [],
                'one' => [['sum' => '42']],
            ],
            $answers,
            'by number, not by letter: 10 before 2',
        );
    }

    public function testWhatIsAskedForComesBackAsItIsKept(): void
    {
        $odd = "Sallow’s \"jar\" \\ 5 % — ñ 蜂\n🐝";
        $answers = (new OneTrip())
            ->ask(
                'texts',
                ['text', 'nothing', 'amount', 'day'],
                'text',
                "SELECT ? text, NULL nothing, CAST('0.10' AS DECIMAL(9, 4)) amount, DATE('2026-11-23') day",
                [$odd],
            )
            ->answers(self::connection());
        self::assertSame(
            [['text' => $odd, 'nothing' => null, 'amount' => '0.1000', 'day' => '2026-11-23']],
            $answers['texts'],
        );
    }

    public function testValuesStandInTheOrderTheyWereAsked(): void
    {
        $answers = (new OneTrip())
            ->ask('first', ['a', 'b'], 'a', 'SELECT ? a, ? b', ['x', 1])
            ->ask('second', ['a', 'b'], 'a', 'SELECT ? a, ? b', [null, '1'])
            ->answers(self::connection());
        self::assertSame([['a' => 'x', 'b' => '1']], $answers['first']);
        self::assertSame([['a' => null, 'b' => '1']], $answers['second']);
    }

    public function testNothingAskedIsNoQuery(): void
    {
        self::assertSame([], (new OneTrip())->answers(self::connection()));
    }

    private static function sentTo(string $number, string $sentAt, ?PurchaseOrder $like = null): PurchaseOrder
    {
        $supplier = $like->supplier ?? self::supplier();
        $order = self::sentOrder([[self::offer(self::item('TRIP-'.$number), '10', 12, $supplier), 2]], $number);
        self::connection()->executeStatement('UPDATE purchase_order SET sent_at = ? WHERE id = ?', [
            $sentAt,
            $order->id,
        ]);

        return $order;
    }

    /**
     * @return array{number: string, currency: string, rate: BigDecimal, facts: array<string, string>}|null
     *
     * @phpstan-impure
     */
    private static function before(PurchaseOrder $order): ?array
    {
        $trip = new OneTrip();
        Orders::askBefore($trip, $order);

        return Orders::beforeIn($trip->answers(self::connection()));
    }

    /** @return list<string> the one before, where there is one */
    private static function numbers(PurchaseOrder $order): array
    {
        $before = self::before($order);

        return null === $before ? [] : [$before['number']];
    }

    public function testTheOrderBeforeIsTheLastThatWentToTheSameSupplier(): void
    {
        $first = self::sentTo('PO-T1', '2026-10-01 10:00:00');
        self::assertSame([], self::numbers($first), 'the first of all');
        $second = self::sentTo('PO-T2', '2026-11-01 10:00:00', $first);
        self::sentTo('PO-T3', '2026-11-20 10:00:00');
        self::assertSame(['PO-T1'], self::numbers($second), 'not one to somebody else');
        $third = self::sentTo('PO-T4', '2026-11-10 10:00:00', $first);
        self::assertSame(['PO-T2'], self::numbers($third));
        self::assertSame(['PO-T4'], self::numbers($first), 'the last sent, whatever number it has');
        self::connection()->executeStatement('UPDATE purchase_order SET sent_at = NULL WHERE id = ?', [$third->id]);
        self::assertSame(['PO-T2'], self::numbers($first), 'not one that was never sent');
    }

    public function testWhatTheLastOrderKeptOfASupplierIsRead(): void
    {
        $first = self::sentTo('PO-T5', '2026-10-01 10:00:00');
        $second = self::sentTo('PO-T6', '2026-11-01 10:00:00', $first);
        $nothing = self::before($second);
        self::assertNotNull($nothing);
        self::assertCount(0, $nothing['facts'], 'it kept nothing');
        self::entities()->persist(OrderRevision::of($first, self::person('rowan'), self::now()));
        self::entities()->flush();
        $before = self::before($second);
        self::assertNotNull($before);
        self::assertSame($first->supplier->facts(), $before['facts']);
        self::assertContains('kay@testing.example', $before['facts']);
        self::assertSame(['EUR', '1'], [$before['currency'], (string) $before['rate']->strippedOfTrailingZeros()]);
    }

    public function testBudgetsAskedAlongSayWhatTheySayAlone(): void
    {
        $budgets = self::get(Budgets::class);
        $today = self::now();
        $trip = new OneTrip();
        OrderLists::askNames($trip);
        $budgets->ask($trip, $today);
        $more = $budgets->spentIn(
            Money::of(100, 'EUR'),
            null,
            $today,
            $today,
        );
        self::assertEquals(
            $budgets->standing($more, $today),
            $budgets->standing($more, $today, $trip->answers(self::connection())),
        );
    }

    public function testListsAreNamedByNameAskedAlongOrAlone(): void
    {
        foreach (['Zinc lids', 'Autumn feed', '10 % extra'] as $name) {
            self::entities()->persist(new OrderList($name, null, self::site('FERRY')));
        }
        self::entities()->flush();
        $lists = self::get(OrderLists::class);
        $trip = new OneTrip();
        OrderLists::askNames($trip);
        self::assertSame($lists->names(), OrderLists::namesIn($trip->answers(self::connection())));
        $names = array_column($lists->names(), 'name');
        $sorted = $names;
        sort($sorted, \SORT_STRING | \SORT_FLAG_CASE);
        self::assertSame($sorted, $names);
        self::assertContains('10 % extra', $names);
    }

    public function testOffersOfAnItemAreNamedTheFirstChoiceFirst(): void
    {
        $item = self::item('TRIP-OFFERS');
        $second = self::offer($item, '10', 12);
        $first = self::offer($item, '11', 6);
        $second->promise(7, 2);
        $first->promise(7, 1);
        self::entities()->flush();
        $names = self::get(Offers::class)->names($item);
        self::assertEquals([OfferName::of($first), OfferName::of($second)], $names);
        self::assertSame(
            [[$first->id, 'Testing Supplies', '6'], [$second->id, 'Testing Supplies', '12']],
            array_map(
                static fn (OfferName $one): array => [
                    $one->id,
                    $one->supplier,
                    (string) $one->pack->content->strippedOfTrailingZeros(),
                ],
                $names,
            ),
        );
        $none = self::item('TRIP-NONE');
        self::entities()->flush();
        self::assertSame([], self::get(Offers::class)->names($none));
    }

    public function testThePriceLastPaidIsOfTheOrderSentLastAndNotCancelled(): void
    {
        $offer = self::offer(self::item('TRIP-PAID'), '10');
        $paid = static function (string $number, string $price, string $at) use ($offer): PurchaseOrder {
            $order = self::sentOrder([[$offer, 2]], $number);
            self::connection()->executeStatement(
                'UPDATE order_line SET price = ? WHERE order_id = ?',
                [$price, $order->id],
            );
            self::connection()->executeStatement(
                'UPDATE purchase_order SET sent_at = ? WHERE id = ?',
                [$at, $order->id],
            );

            return $order;
        };
        $last = static function () use ($offer): ?string {
            $price = self::get(Spending::class)->lastPrices([$offer->id])[$offer->id] ?? null;

            return null === $price ? null : (string) $price->strippedOfTrailingZeros();
        };
        self::entities()->flush();
        self::assertNull($last());
        $paid('PO-P1', '9.5', '2026-10-01 10:00:00');
        $latest = $paid('PO-P2', '9.75', '2026-11-01 10:00:00');
        $paid('PO-P3', '9.25', '2026-09-01 10:00:00');
        self::assertSame('9.75', $last());
        self::connection()->executeStatement("UPDATE purchase_order SET state = 'cancelled' WHERE id = ?", [
            $latest->id,
        ]);
        self::assertSame('9.5', $last());
    }
}
