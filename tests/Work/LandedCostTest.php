<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\PriceVerdict;
use TallBarrel\Core\Settling\SpreadBasis;
use TallBarrel\Desk\Compare\ItemComparison;
use TallBarrel\Store\Dock\Receipt;
use TallBarrel\Store\Settle\BillingHistory;
use TallBarrel\Store\Settle\Invoice;
use TallBarrel\Store\Settle\InvoiceLine;
use TallBarrel\Store\Settle\Landed;
use TallBarrel\Store\Settle\LandedExperience;
use TallBarrel\Store\Supplier\SupplierRecord;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Receiving\BookDelivery;
use TallBarrel\Work\Settling\AskedCharge;
use TallBarrel\Work\Settling\SpreadCharge;

/**
 * Worked by hand: 10 packs of 12 ordered at 22.00 USD and booked in when 1.10 were one: 20.00 each, 200.00 together;
 * freight of 15.00 later; invoiced at 23.10 when 1.05 were one: the price adds 10 × 1.10 / 1.05 = 10.48, the rate
 * 220 / 1.05 − 200 = 9.52. Landed 235.00.
 */
final class LandedCostTest extends StoreTestCase
{
    private static function received(): Receipt
    {
        self::connection()->executeStatement("UPDATE exchange_rate SET foreign_for_one = 1.1 WHERE currency = 'USD'");
        $supplier = self::supplier('USD');
        $order = self::sentOrder(
            [[self::offer(self::item('LC-1'), '22.00', 12, $supplier), 10]],
            'PO-LC',
            ExchangeRate::of('EUR', 'USD', '1.20'),
        );
        $delivery = self::delivery($order);
        $delivery->lines()[0]->count(BigDecimal::of(10));
        self::entities()->flush();

        return self::get(BookDelivery::class)->book($delivery->id, self::person('tam'));
    }

    private static function invoiced(Receipt $receipt): Invoice
    {
        $line = $receipt->lines()[0]->line;
        $invoice = new Invoice($line->order->supplier, 'V-LC', self::now(), ExchangeRate::of('EUR', 'USD', '1.05'),
            self::person('iris'), self::now(), 'lc');
        $asked = new InvoiceLine($invoice, 1, $line, 'Goods', BigDecimal::of(10), BigDecimal::of('23.10'),
            BigDecimal::zero());
        $asked->decide(null, PriceVerdict::Accepted);
        $invoice->release(self::person('rowan'), self::now());
        self::entities()->persist($invoice);
        self::entities()->flush();

        return $invoice;
    }

    /**
     * @return array<string, string>
     *
     * @phpstan-impure
     */
    private static function landed(Receipt $receipt): array
    {
        $rows = array_filter(
            self::get(Landed::class)->by('receipt', self::now()->modify('-1 day')),
            static fn (array $row): bool => $row['key'] === $receipt->number,
        );
        $row = array_values($rows)[0] ?? self::fail('It is not listed.');

        unset($row['key'], $row['name'], $row['receipts']);

        return $row;
    }

    public function testWhatWasPlannedStandsBesideWhatItCost(): void
    {
        $receipt = self::received();
        self::assertSame([
            'planned' => '200.00', 'charges' => '0.00', 'price' => '0.00', 'exchange' => '0.00',
            'uninvoiced' => '200.00', 'landed' => '200.00',
        ], self::landed($receipt));
        $charge = self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('15', 'EUR'), SpreadBasis::Value, [$receipt], []),
            self::person('iris'),
            'lc',
        );
        self::invoiced($receipt);
        self::assertSame([
            'planned' => '200.00', 'charges' => '15.00', 'price' => '10.48', 'exchange' => '9.52',
            'uninvoiced' => '0.00', 'landed' => '235.00',
        ], self::landed($receipt));
        self::get(SpreadCharge::class)->takeBack($charge, 'twice', self::person('iris'));
        self::assertSame('220.00', self::landed($receipt)['landed'], 'a charge taken back counts no more');
    }

    /** 235.00 for what was expected to cost 200.00: 17.5 % dearer. */
    public function testASuppliersRecordAndTheNextComparisonSaySo(): void
    {
        $receipt = self::received();
        $line = $receipt->lines()[0]->line;
        $supplier = $line->order->supplier;
        $item = $line->item;
        self::assertNotNull($item);
        $says = static fn (?int $of, ?int $from): string => (self::get(Landed::class)->experience(
            self::now()->modify('-1 year'),
            $of,
            $from,
        )[$supplier->id] ?? null)?->words() ?? 'nothing';
        self::assertSame('as expected, 1 receipt', $says($item->id, null));
        self::get(SpreadCharge::class)->book(
            new AskedCharge(ChargeKind::Freight, null, 'F', Money::of('15', 'EUR'), SpreadBasis::Value, [$receipt], []),
            self::person('iris'),
            'lc',
        );
        self::invoiced($receipt);
        self::assertSame('17.5 % dearer than expected, 1 receipt', $says($item->id, null));
        self::assertSame('nothing', $says($item->id + 1, $supplier->id));
        self::assertSame(
            '17.5 % dearer than expected, 1 receipt',
            self::get(SupplierRecord::class)->of($supplier, self::now())['facts']['What it cost in the end'],
        );
        $cards = self::get(ItemComparison::class)->of($item, null, BigDecimal::of(12))['cards'];
        self::assertIsArray($cards);
        self::assertCount(1, $cards);
        self::assertIsArray($cards[0]);
        $experience = $cards[0]['experience'];
        self::assertInstanceOf(LandedExperience::class, $experience);
        self::assertSame(17.5, round($experience->percent(), 4));
    }

    public function testWhatBecameOfAnOrder(): void
    {
        $receipt = self::received();
        $figures = static fn (): array => array_map(
            static fn (string $name): string => (string) BigDecimal::of(
                (string) self::get(BillingHistory::class)->of('receipt', $receipt->number)[0][$name],
            )->strippedOfTrailingZeros(),
            ['received', 'invoiced', 'paid', 'ordered_value', 'invoiced_value', 'paid_value', 'open_value'],
        );
        self::assertSame(['10', '0', '0', '220', '0', '0', '220'], $figures());
        $invoice = self::invoiced($receipt);
        self::assertSame(['10', '10', '0', '220', '231', '0', '231'], $figures());
        $invoice->pay(self::now(), $invoice->rate(), null);
        self::entities()->flush();
        self::assertSame(['10', '10', '10', '220', '231', '231', '0'], $figures());
        foreach (['order' => 'PO-LC', 'item' => 'LC-1', 'supplier' => $invoice->supplier->code] as $of => $which) {
            self::assertCount(1, self::get(BillingHistory::class)->of($of, $which), $of);
        }
        self::assertSame([], self::get(BillingHistory::class)->of('order', 'PO-NONE'));
    }
}
