<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Core\Sourcing\CostPart;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Core\Sourcing\Usage;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Settle\Landed;
use TallBarrel\Store\Settle\LandedCharge;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Stock\Ledger;
use TallBarrel\Store\Stock\MovementKind;
use TallBarrel\Store\Stock\Posting;
use TallBarrel\Store\Stock\Verification;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Receiving\TakeBackReceipt;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\GoodsEntries;
use TallBarrel\Work\Settling\SpreadCharge;
use TallBarrel\Work\Sourcing\Candidate;
use TallBarrel\Work\Sourcing\Candidates;

/**
 * What freight, duty and handling will cost is on the goods from the day they come. Worked by hand: 100 at 5.00 with
 * freight of 50.00 by the supplier's tariff cost 5.50 each.
 */
final class ExpectedChargesTest extends StoreTestCase
{
    private static function carrier(): Supplier
    {
        $supplier = self::supplier();
        $supplier->reckonsFreight(FreightTariff::FLAT);
        $supplier->ships(BigDecimal::of(50), null);

        return $supplier;
    }

    /** @param list<array{Item, int}> $goods packs of 10 at 50.00 each */
    private static function receipt(array $goods, ?Supplier $supplier = null): Receipt
    {
        $supplier ??= self::carrier();
        $delivery = self::delivery(self::sentOrder(array_map(
            static fn (array $one): array => [self::offer($one[0], '50.00', 10, $supplier), $one[1]],
            $goods,
        ), 'PO-X1'));
        foreach ($delivery->lines() as $n => $line) {
            $line->count(BigDecimal::of($goods[$n][1]));
        }
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function average(Item $item): string
    {
        $cost = self::connection()->fetchOne('SELECT average_cost FROM item WHERE id = ?', [$item->id]);

        return is_string($cost) ? (string) BigDecimal::of($cost)->strippedOfTrailingZeros() : 'none';
    }

    /** @return list<string> */
    private static function standing(Receipt $receipt): array
    {
        return array_map(
            static fn (LandedCharge $one): string => $one->kind->value.' '.$one->home,
            array_reverse(self::get(LandedCharges::class)->of($receipt)),
        );
    }

    private static function bill(Receipt $receipt, string $amount, bool $isPart = false): LandedCharge
    {
        return self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F-1', Money::of($amount, 'EUR'), SpreadBasis::Value, [$receipt],
                [], $isPart),
            self::person('iris'),
            'bill-'.$amount,
        );
    }

    /** By hand: 40 sold, 30.00 of the 50.00 are left; the bill of 40.00 puts 24.00 there instead: 60 at 5.40. */
    public function testTheBillTakesThePlaceOfWhatWasExpected(): void
    {
        $item = self::item('X-1');
        $receipt = self::receipt([[$item, 10]]);
        self::assertSame('5.5', self::average($item));
        self::assertSame(['freight 50.00'], self::standing($receipt));
        self::get(Ledger::class)->enter([
            new Posting($item->id, self::site('FERRY')->id, MovementKind::Sale, BigDecimal::of(-40), null, self::now(),
                'till', null),
        ], null);
        $expected = self::get(LandedCharges::class)->of($receipt)[0];
        $charge = self::bill($receipt, '40.00');
        self::assertSame('5.4', self::average($item));
        self::assertSame(['freight 40.00'], self::standing($receipt));
        self::assertSame([], self::get(Verification::class)->differences(), 'the ledger proves the average');
        $landed = array_values(array_filter(
            self::get(Landed::class)->by('receipt', self::now()->modify('-1 day')),
            static fn (array $row): bool => $row['key'] === $receipt->number,
        ))[0];
        self::assertSame(['550.00', '-10.00', '540.00'], [$landed['planned'], $landed['charges'], $landed['landed']]);
        self::assertSame('-40.00', self::booked(LedgerAccount::Charges, $expected, $charge), 'its invoice takes off');
    }

    /** What charges booked on an account, what was taken off again with it. */
    private static function booked(LedgerAccount $account, LandedCharge ...$charges): string
    {
        $numbers = array_map(static fn (LandedCharge $one): string => $one->number, $charges);
        $sum = BigDecimal::zero();
        $first = self::now()->modify('first day of this month');
        foreach (self::get(GoodsEntries::class)->until($first, self::now()) as $entry) {
            foreach (in_array($entry->document, $numbers, true) ? $entry->lines : [] as $line) {
                $sum = $line->account === $account ? $sum->plus($line->amount) : $sum;
            }
        }

        return (string) $sum;
    }

    /** By hand: three times 75.00 came where 50.00 was reckoned with: the fourth time 75.00 is expected. */
    public function testASuppliersRecordPutsWhatIsExpectedRight(): void
    {
        $supplier = self::carrier();
        $item = self::item('X-8');
        $offer = self::offer($item, '50.00', 10, $supplier);
        foreach (['50.00', '50.00', '50.00', '75.00'] as $n => $expected) {
            $delivery = self::delivery(self::sentOrder([[$offer, 10]], 'PO-X8'.$n));
            $delivery->lines()[0]->count(BigDecimal::of(10));
            self::entities()->flush();
            $receipt = self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
            self::assertSame(['freight '.$expected], self::standing($receipt), (string) $n);
            $asked = new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('75', 'EUR'), SpreadBasis::Value,
                [$receipt], []);
            self::get(SpreadCharge::class)->book($asked, self::person('iris'), 'x8-'.$n);
        }
        self::assertSame([], self::get(Verification::class)->differences());
        // The next comparison reckons with it, too: 50.00 by the tariff are 75.00.
        self::offer($item, '50.00', 10, self::supplier());
        self::entities()->flush();
        $came = [];
        foreach (self::get(Candidates::class)->of([$item->id])[$item->id] as $one) {
            $came[$one->offer->supplier->id] = $one;
        }
        $candidate = $came[$supplier->id];
        self::assertSame(1.5, $candidate->seller->freightCame);
        unset($came[$supplier->id]);
        self::assertSame([1.0], array_map(
            static fn (Candidate $one): float => $one->seller->freightCame,
            array_values($came),
        ), 'of whom nothing is known');
        $cost = LandedCost::of($candidate->asked, $candidate->seller, 100, new Usage(0.0, null, 0.0),
            new CostRates(0, 0, 0), self::now());
        self::assertEqualsWithDelta(75.0, $cost->part(CostPart::Freight), 1e-9);
    }

    public function testABillForPartOfItLeavesWhatIsExpected(): void
    {
        $item = self::item('X-2');
        $receipt = self::receipt([[$item, 10]]);
        self::bill($receipt, '20.00', true);
        self::assertSame(['freight 50.00', 'freight 20.00'], self::standing($receipt));
        self::assertSame('5.7', self::average($item));
    }

    /** By hand: duty of 10 % on 500.00 and freight of 50.00 is 55.00; handling of 2 % and 5.00 is 15.00: 6.20 each. */
    public function testDutyAndHandlingAreExpectedToo(): void
    {
        self::get(CurrentBusiness::class)->get()->expectCharges(true, BigDecimal::of(2), BigDecimal::of(5));
        $item = self::item('X-3');
        $supplier = self::carrier();
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '50.00', 10, $supplier), 10]], 'PO-X3'));
        $line = $delivery->lines()[0];
        $line->line->offer?->comesFrom('TR', '', BigDecimal::of(10));
        $line->count(BigDecimal::of(10));
        self::entities()->flush();
        $receipt = self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame(['freight 50.00', 'duty 55.00', 'handling 15.00'], self::standing($receipt));
        self::assertSame('6.2', self::average($item));
    }

    public function testWhoExpectsNothingBooksNothing(): void
    {
        self::get(CurrentBusiness::class)->get()->expectCharges(false, BigDecimal::of(2), BigDecimal::of(5));
        $item = self::item('X-4');
        self::assertSame([], self::standing(self::receipt([[$item, 10]])));
        self::assertSame('5', self::average($item));
    }

    /** By hand: of 200 units at 5.00 half is taken back; 100 bear half of the freight of 50.00: 5.25 each. */
    public function testTakenBackAReceiptTakesItsChargesAlongAndWhatStaysBearsItsPart(): void
    {
        [$item, $other] = [self::item('X-5'), self::item('X-6')];
        $receipt = self::receipt([[$item, 10], [$other, 10]]);
        self::assertSame(['5.25', '5.25'], [self::average($item), self::average($other)]);
        self::get(TakeBackReceipt::class)->takeBack($receipt, [$receipt->lines()[0]->id], 'slip', self::person('tam'));
        self::assertSame(['freight 25.00'], self::standing($receipt));
        self::assertSame('5.25', self::average($other));
        self::assertSame([], self::get(Verification::class)->differences());
    }

    /** By hand: 100 with freight of 50.00 taken back after 100 more came at 5.00 without: those cost 5.00 again. */
    public function testTakenBackAfterMoreCameItIsAsIfItHadNeverCome(): void
    {
        $item = self::item('X-7');
        $receipt = self::receipt([[$item, 10]]);
        $supplier = self::supplier();
        $delivery = self::delivery(self::sentOrder([[self::offer($item, '50.00', 10, $supplier), 10]], 'PO-X7'));
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();
        self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
        self::assertSame('5.25', self::average($item));
        self::get(TakeBackReceipt::class)->takeBack($receipt, [$receipt->lines()[0]->id], 'slip', self::person('tam'));
        self::assertSame('5', self::average($item));
        self::assertSame([], self::get(Verification::class)->differences());
    }
}
