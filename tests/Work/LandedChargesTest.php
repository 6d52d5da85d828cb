<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\TakeBackReceipt;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\LandedShare;
use TallBarrel\Work\Settling\SpreadCharge;

/** Freight, duty and the like, known weeks after the goods. */
final class LandedChargesTest extends StoreTestCase
{
    /** @param list<array{Item, int}> $goods packs of 10 at 50.00 each */
    private static function receipt(array $goods, string $number = 'PO-L1'): Receipt
    {
        $supplier = self::supplier();
        $delivery = self::delivery(self::sentOrder(array_map(
            static fn (array $one): array => [self::offer($one[0], '50.00', 10, $supplier), $one[1]],
            $goods,
        ), $number));
        foreach ($delivery->lines() as $n => $line) {
            $line->count(BigDecimal::of($goods[$n][1]));
        }
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function sell(Item $item, int $units): void
    {
        self::get(Ledger::class)->enter([
            new Posting($item->id, self::site('FERRY')->id, MovementKind::Sale, BigDecimal::of(-$units), null,
                self::now(), 'till', null),
        ], null);
    }

    /** @param array<int, BigDecimal> $typed */
    private static function freight(
        Receipt $receipt,
        string $amount,
        SpreadBasis $basis = SpreadBasis::Value,
        array $typed = [],
        string $currency = 'EUR',
    ): AskedCharge {
        $money = Money::of($amount, $currency);

        return new AskedCharge(ChargeKind::Freight, null, 'F-1', $money, $basis, [$receipt], $typed);
    }

    private static function book(AskedCharge $asked, string $key = 'k'): LandedCharge
    {
        return self::get(SpreadCharge::class)->book($asked, self::person('iris'), $key);
    }

    private static function average(Item $item): string
    {
        $cost = self::connection()->fetchOne('SELECT average_cost FROM item WHERE id = ?', [$item->id]);
        self::assertIsString($cost);

        return (string) BigDecimal::of($cost)->strippedOfTrailingZeros();
    }

    /** By hand: 100 at 5.00, 40 sold, freight of 50 later: 30 into stock, 5.50 each of 60; 20 cost of sales. */
    public function testWhatWasSoldMeanwhileIsCostOfSales(): void
    {
        $item = self::item('L-1');
        $receipt = self::receipt([[$item, 10]]);
        self::sell($item, 40);
        self::assertSame('5', self::average($item));
        $charge = self::book(self::freight($receipt, '50.00'));
        $line = $charge->lines()[0];
        self::assertSame(['50.00', '30.00', '20.00'], [
            (string) $line->share, (string) $line->toStock, (string) $line->toSales(),
        ]);
        self::assertSame('5.5', self::average($item));
        self::assertSame($charge, self::book(self::freight($receipt, '50.00')), 'pressed twice, booked once');
        self::assertSame('5.5', self::average($item));
        self::assertSame([], self::get(Verification::class)->differences(), 'the ledger proves the average');
        self::mustRefuse(
            static fn () => self::get(TakeBackReceipt::class)->takeBack(
                $receipt,
                [$receipt->lines()[0]->id],
                'slip',
                self::person('tam'),
            ),
            'bears a share of '.$charge->number,
        );
    }

    public function testTakenBackWhatIsLeftCostsWhatItDid(): void
    {
        $item = self::item('L-2');
        $charge = self::book(self::freight(self::receipt([[$item, 10]]), '50.00'));
        self::assertSame('5.5', self::average($item));
        self::sell($item, 30);
        $spread = self::get(SpreadCharge::class);
        self::mustRefuse(static fn () => $spread->takeBack($charge, ' ', self::person('iris')), 'Say why');
        $charge = self::get(LandedCharges::class)->byNumber($charge->number);
        self::assertNotNull($charge);
        $spread->takeBack($charge, 'not ours', self::person('iris'));
        self::assertSame('5', self::average($item));
        self::mustRefuse(static fn () => $spread->takeBack($charge, 'again', self::person('iris')), 'already');
        self::assertSame([], self::get(Verification::class)->differences());
    }

    public function testSharesAddUpToTheCentByEachBasis(): void
    {
        [$light, $heavy, $bulky] = [self::item('L-3'), self::item('L-4'), self::item('L-5')];
        $heavy->measure(BigDecimal::of(3), false);
        $bulky->takesUp(BigDecimal::of(2));
        $receipt = self::receipt([[$light, 1], [$heavy, 1], [$bulky, 1]]);
        $by = static fn (SpreadBasis $basis, array $typed = []): array => array_map(
            static fn (LandedShare $share): string => (string) $share->share->amount,
            self::get(SpreadCharge::class)->shares(self::freight($receipt, '10.00', $basis, $typed)),
        );
        self::assertSame(['3.34', '3.33', '3.33'], $by(SpreadBasis::Value), 'largest remainder');
        self::assertSame(['3.34', '3.33', '3.33'], $by(SpreadBasis::Quantity));
        self::assertSame(['2.00', '6.00', '2.00'], $by(SpreadBasis::Weight));
        self::assertSame(['0.00', '0.00', '10.00'], $by(SpreadBasis::Volume));
        [$first, $second, $third] = array_map(static fn ($line): int => $line->id, $receipt->lines());
        $typed = [$first => BigDecimal::of('1.00'), $second => BigDecimal::of('2.50')];
        self::mustRefuse(
            static fn () => $by(SpreadBasis::Typed, $typed),
            'The shares are 3.5 in all, the charge is 10.00',
        );
        self::assertSame(
            ['1.00', '2.50', '6.50'],
            $by(SpreadBasis::Typed, $typed + [$third => BigDecimal::of('6.50')]),
        );
    }

    public function testASpreadOverNothingIsRefused(): void
    {
        $item = self::item('L-6');
        $receipt = self::receipt([[$item, 1]]);
        self::mustRefuse(
            static fn () => self::book(self::freight($receipt, '10.00', SpreadBasis::Volume)),
            'cannot be spread',
        );
        self::mustRefuse(static fn () => self::book(self::freight($receipt, '0.00')), 'A charge of nothing');
        $receipt = self::entities()->find(Receipt::class, $receipt->id) ?? self::fail('no receipt');
        self::get(TakeBackReceipt::class)->takeBack(
            $receipt,
            array_map(static fn ($line): int => $line->id, $receipt->lines()),
            'slip',
            self::person('tam'),
        );
        self::mustRefuse(static fn () => self::book(self::freight($receipt, '10.00')), 'Nothing for the stock came');
    }

    public function testAForeignChargeIsBornAtTheRateOfTheDay(): void
    {
        $item = self::item('L-7');
        $receipt = self::receipt([[$item, 10]]);
        $charge = self::book(self::freight($receipt, '50.00', SpreadBasis::Value, [], 'GBP'));
        $home = self::get(SpreadCharge::class)->home(Money::of('50.00', 'GBP'))->amount;
        self::assertTrue($charge->home->isEqualTo($home));
        self::assertFalse($home->isEqualTo('50.00'));
        self::assertTrue($charge->lines()[0]->share->isEqualTo($home));
    }
}
