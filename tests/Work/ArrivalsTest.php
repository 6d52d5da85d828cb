<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\ShelfPick;
use TallBarrel\Store\Dock\Attachments;
use TallBarrel\Store\Dock\Delivery;
use TallBarrel\Store\Dock\DeliveryLine;
use TallBarrel\Store\Dock\HowItCame;
use TallBarrel\Store\Dock\UnknownDeliveries;
use TallBarrel\Store\Dock\WhatWaits;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Order\Despatch;
use TallBarrel\Store\Order\Despatches;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Stock\Shelf;
use TallBarrel\Store\Stock\ShelfPlaces;
use TallBarrel\Store\Stock\StockPlace;
use TallBarrel\Store\Stock\StockState;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Store\Stock\WaitingAtDock;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\EndOrder;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\CountDelivery;
use TallBarrel\Work\Receiving\DescribeArrival;
use TallBarrel\Work\Receiving\PlaceUnknown;
use TallBarrel\Work\Receiving\PutAway;
use TallBarrel\Work\Receiving\StartDelivery;

/** What comes to a dock otherwise than it was ordered: unannounced, after its order ended, at another site. */
final class ArrivalsTest extends StoreTestCase
{
    private static function start(PurchaseOrder $order, string $site, bool $elsewhere): ?Delivery
    {
        return self::get(StartDelivery::class)->start([$order->id], self::site($site), 'DN-7', $elsewhere,
            new Problems());
    }

    /** @return array<string, float> by site, of what may be sold */
    private static function stands(Item $item): array
    {
        /** @var array<string, string> $rows */
        $rows = self::connection()->fetchAllKeyValue(
            'SELECT s.code, h.units FROM on_hand h JOIN site s ON s.id = h.site_id WHERE h.item_id = ? ORDER BY s.code',
            [$item->id],
        );

        return array_map(floatval(...), $rows);
    }

    public function testWhatIsUnloadedForAnotherSiteIsSentOn(): void
    {
        $item = self::item('A-1');
        $order = self::sentOrder([[self::offer($item, '12.00'), 3]], 'PO-A1');
        self::assertNull(self::start($order, 'MILL', false), 'nothing of it is for Millbank');
        $delivery = self::start($order, 'MILL', true);
        self::assertNotNull($delivery);
        $line = $delivery->lines()[0];
        $line->count(BigDecimal::of(3));
        $line->isBad(BigDecimal::one(), 'torn');
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame(['MILL' => 24.0], self::stands($item));
        $list = self::connection()->fetchAssociative(
            'SELECT s.code source, g.code target, t.state, CAST(t.units AS DOUBLE) units FROM open_transfer t
             JOIN site s ON s.id = t.source_id JOIN site g ON g.id = t.site_id WHERE t.item_id = ?',
            [$item->id],
        );
        self::assertSame(
            ['source' => 'MILL', 'target' => 'FERRY', 'state' => 'to-pick', 'units' => 24.0],
            $list,
            'the good ones are asked for where they were ordered to',
        );
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testWhoWaitsForWhatCameIsNamed(): void
    {
        $item = self::item('A-2');
        $order = self::sentOrder([[self::offer($item, '12.00'), 3]], 'PO-A2');
        self::entities()->persist(
            new CustomerPromise($item, self::site('FERRY'), BigDecimal::of(5), self::now()->modify('+2 days'), 'C-77'),
        );
        self::entities()->persist(
            new CustomerPromise($item, self::site('MILL'), BigDecimal::of(6), self::now()->modify('+2 days'), 'C-78'),
        );
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(3));
        self::entities()->flush();
        $receipt = self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        $waits = self::get(WhatWaits::class)->for($receipt);
        self::assertSame([['C-77', 'promise']], array_map(
            static fn (array $one): array => [$one['number'], $one['kind']],
            $waits,
        ), 'what was promised elsewhere is not waited for here');
    }

    public function testGoodsOfACancelledOrderOpenItAgain(): void
    {
        $item = self::item('A-3');
        $order = self::sentOrder([[self::offer($item, '12.00'), 3]], 'PO-A3');
        self::get(EndOrder::class)->cancel(SeenOrder::now($order), self::person('rowan'), 'not needed', true);
        self::assertContains('PO-A3', array_map(
            static fn (PurchaseOrder $one): string => $one->number,
            self::get(Orders::class)->ended(60),
        ));
        $place = self::get(PlaceUnknown::class);
        $problems = new Problems();
        self::assertNull($place->note(self::site('MILL'), ' ', '', 1, '', '', self::person('tam'), $problems));
        self::assertNotNull($problems->at('what'));
        $unknown = $place->note(self::site('MILL'), 'three cases, a red hare on them', 'a van', 3, '', 'Van & Sons',
            self::person('tam'), new Problems());
        self::assertNotNull($unknown);
        self::assertContains($unknown, self::get(UnknownDeliveries::class)->waiting(self::site('MILL')));

        $delivery = $place->place($unknown, $order->id, self::person('tam'), new Problems());
        self::assertNotNull($delivery);
        self::assertSame(OrderState::Sent, $delivery->orders()[0]->state());
        self::assertSame(['3'], array_map(
            static fn (DeliveryLine $line): string => (string) $line->expected()->strippedOfTrailingZeros(),
            $delivery->lines(),
        ));
        self::mustRefuse(static fn () => $place->sendAway($unknown, 'not ours'), 'already');
        self::assertEquals(1, self::connection()->fetchOne(
            "SELECT COUNT(*) FROM audit_entry WHERE subject = 'PO-A3' AND words LIKE '%although it had ended%'",
        ));
    }

    public function testWhatIsKeptWithADeliveryIsWhatItsContentSays(): void
    {
        $delivery = self::delivery(self::sentOrder([[self::offer(self::item('A-4'), '12.00'), 1]], 'PO-A4'));
        $describe = self::get(DescribeArrival::class);
        $tam = self::person('tam');
        $image = imagecreatetruecolor(30, 20);
        ob_start();
        imagejpeg($image);
        $jpeg = (string) ob_get_clean();

        $kept = $describe->attach($delivery, '../../note <b>.php', $jpeg.'<?php echo 1;', $tam);
        self::assertSame(['note b.jpg', 'image/jpeg'], [$kept->name, $kept->mime]);
        self::assertStringNotContainsString('<?php', $kept->content(), 'it is drawn anew');
        $pdf = "%PDF-1.4\n1 0 obj\nendobj\n%%EOF\n";
        self::assertSame(
            ['note.pdf', 'application/pdf', $pdf],
            (static fn ($one): array => [$one->name, $one->mime, $one->content()])(
                $describe->attach($delivery, 'note.png', $pdf, $tam),
            ),
        );
        self::mustRefuse(
            static fn () => $describe->attach($delivery, 'a.pdf', 'MZ rubbish', $tam),
            'whatever its name says',
        );
        self::mustRefuse(static fn () => $describe->attach($delivery, 'a.pdf', '%PDF-1.4 cut off', $tam), 'damaged');
        self::mustRefuse(
            static fn () => $describe->attach($delivery, 'a.pdf', str_repeat('x', 8 * 1_048_576 + 1), $tam),
            'at most 8 MB',
        );
        for ($n = 3; $n <= 12; ++$n) {
            $describe->attach($delivery, $n.'.pdf', str_replace('1 0', ($n + 1).' 0', $pdf), $tam);
        }
        $another = str_replace('1 0', '99 0', $pdf);
        self::mustRefuse(static fn () => $describe->attach($delivery, '13.pdf', $another, $tam), '12 are kept');
        $describe->remove($kept, $tam);
        $line = $delivery->lines()[0];
        $describe->attach($delivery, 'torn.pdf', $pdf, $tam, $line);
        $kept = self::get(Attachments::class)->of($delivery);
        self::assertSame(
            ['torn.pdf', $line->id, $line->line->description],
            [$kept[11]['name'], $kept[11]['line'], $kept[11]['shows']],
        );
        $other = self::delivery(self::sentOrder([[self::offer(self::item('A-5'), '12.00'), 1]], 'PO-A5'));
        self::mustRefuse(static fn () => $describe->attach($other, 'torn.pdf', $pdf, $tam, $line), 'another delivery');
        self::assertNotContains('note b.jpg', array_column(self::get(Attachments::class)->of($delivery), 'name'));
    }

    public function testWhatCannotBeOfAnArrivalIsRefused(): void
    {
        $of = static fn (?string $packages, ?string $degrees): HowItCame => HowItCame::of(
            'Van', 'T1', null === $packages ? null : BigDecimal::of($packages), null, '',
            null === $degrees ? null : BigDecimal::of($degrees),
        );
        self::assertSame(4, $of('4', '-18.25')->packages());
        self::assertSame('-18.3', (string) $of(null, '-18.25')->temperature(), 'half away from zero');
        self::mustRefuse(static fn () => $of('2.5', null), '2.5 packages; expected a whole number');
        self::mustRefuse(static fn () => $of('10001', null), 'up to 10000');
        self::mustRefuse(static fn () => $of(null, '91'), 'expected -90 to 90');
    }

    public function testWhatStandsAtTheDockIsToBeSoldWhenItIsPutAway(): void
    {
        $item = self::item('A-5');
        $item->isReceived(LotDetails::Never, false, InspectionRule::Dock, '1.5');
        self::entities()->persist(new Bin(self::site('FERRY'), '0-EMPTY'));
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '12.00'), 2]], 'PO-A5'));
        $delivery->lines()[0]->count(BigDecimal::of(2));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame([], self::stands($item));
        $waiting = array_values(array_filter(
            self::get(ShelfPlaces::class)->waiting(self::site('FERRY'), 200),
            static fn (WaitingAtDock $one): bool => $one->item === $item->id,
        ));
        self::assertCount(1, $waiting);
        self::assertSame(24.0, $waiting[0]->units);
        self::assertSame('0-EMPTY', $waiting[0]->bin, 'an empty shelf is proposed');

        $put = static fn (string $bin, int $units, string $key): string => self::get(PutAway::class)->put(
            self::entities()->find(Item::class, $item->id) ?? self::fail('no item'),
            new StockPlace(self::site('FERRY'), StockState::AtDock, ''),
            BigDecimal::of($units), $bin, self::person('tam'), $key,
        )->code;
        self::mustRefuse(static fn () => $put('Z-99', 5, 'a'), 'Ferry Lane has no bin “Z-99”');
        self::mustRefuse(static fn () => $put($waiting[0]->bin, 25, 'a'), 'not 25');
        $held = self::connection()->fetchOne(
            "SELECT code FROM bin WHERE site_id = ? AND kind = 'held'",
            [self::site('FERRY')->id],
        );
        if (is_string($held)) {
            self::mustRefuse(static fn () => $put($held, 5, 'a'), 'choose a shelf');
        }
        $put($waiting[0]->bin, 20, 'b');
        $put($waiting[0]->bin, 20, 'b');
        self::assertSame(['FERRY' => 20.0], self::stands($item), 'pressed twice, put away once');
        self::assertSame($waiting[0]->bin, self::bin($item), 'the first bin is its own');
        $other = self::connection()->fetchOne(
            "SELECT code FROM bin WHERE site_id = ? AND kind = 'shelf' AND code <> ? ORDER BY code LIMIT 1",
            [self::site('FERRY')->id, $waiting[0]->bin],
        );
        self::assertIsString($other);
        $put($other, 4, 'c');
        self::assertSame($other, self::bin($item), 'and what lies elsewhere is found there');
        self::get(PutAway::class)->move(
            self::entities()->find(Item::class, $item->id) ?? self::fail('no item'),
            self::site('FERRY'), '', $waiting[0]->bin, self::person('tam'),
        );
        self::assertSame($waiting[0]->bin, self::bin($item));
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testADeliveryIsBegunFromWhatTheySaidIsOnItsWay(): void
    {
        $order = self::sentOrder([
            [self::offer(self::item('A-6'), '12.00'), 5],
            [self::offer(self::item('A-7'), '12.00', 12, $supplier = self::supplier()), 4],
            [self::offer(self::item('A-8'), '12.00', 12, $supplier), 3],
        ], 'PO-A6');
        [$first, $second] = $order->lines();
        $despatch = new Despatch($order, self::now(), self::now()->setTime(0, 0), 'Van & Sons', 'VS-9', [
            $first->id => BigDecimal::of(2), $second->id => BigDecimal::of(9),
        ]);
        self::entities()->persist($despatch);
        self::entities()->flush();
        $despatches = self::get(Despatches::class);
        self::assertSame([$despatch], $despatches->expected($order));
        $delivery = self::get(StartDelivery::class)->start([$order->id], self::site('FERRY'), 'DN-8', false,
            new Problems(), $despatch);
        self::assertNotNull($delivery);
        self::assertSame(['Van & Sons', 'VS-9'], [$delivery->came()->carrier(), $delivery->came()->tracking()]);
        self::assertSame([], $despatches->expected($order), 'it is begun');
        self::get(CountDelivery::class)->count($delivery, [], true, null, new Problems());
        self::assertSame(['2', '4', null], array_map(
            static fn (DeliveryLine $line): ?string => $line->counted()?->strippedOfTrailingZeros()->toString(),
            $delivery->lines(),
        ), 'as advised, and no more than is outstanding; what they did not name is not counted');
    }

    public function testWhatIsKeptColdIsBookedWithItsTemperatureAlone(): void
    {
        $item = self::item('A-9');
        $item->isMeasuredWhenItComes(true);
        $order = self::sentOrder([[self::offer($item, '12.00'), 1]], 'PO-A9');
        $order->supplier->inspect(true);
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::one());
        self::entities()->flush();
        $book = static fn (Delivery $one) => self::get(BookDelivery::class)->book($one->id, self::person('tam'));
        $delivery->cameLike(HowItCame::of('', '', null, null, '', BigDecimal::of(4)));
        self::entities()->flush();
        $book($delivery);
        self::assertSame('in-inspection', self::connection()->fetchOne(
            'SELECT state FROM stock_balance WHERE item_id = ?',
            [$item->id],
        ), 'all of this supplier is looked at first');
        $unmeasured = self::delivery(self::sentOrder([[self::offer($item, '12.00'), 1]], 'PO-A10'));
        $unmeasured->lines()[0]->count(BigDecimal::one());
        self::entities()->flush();
        self::mustRefuse(static fn () => $book($unmeasured), 'A-9: how cold is it?');
    }

    /** Where it is looked for when shelves are counted. */
    private static function bin(Item $item): string
    {
        foreach (self::get(Shelf::class)->of(self::site('FERRY'), '', ShelfPick::All, self::now(), 1000) as $row) {
            if ($row->item === $item->id) {
                return $row->bin;
            }
        }
        self::fail('on no shelf');
    }
}
