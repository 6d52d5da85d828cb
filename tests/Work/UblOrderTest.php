<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\KeepDocuments;
use TallBarrel\Work\Ordering\OrderPaper;

final class UblOrderTest extends StoreTestCase
{
    /** Children of Order and of LineItem as UBL-Order-2.1.xsd puts them, those that are written here; from memory. */
    private const SEQUENCES = [
        '/o:Order' => ['UBLVersionID', 'ID', 'IssueDate', 'Note', 'DocumentCurrencyCode', 'BuyerCustomerParty',
            'SellerSupplierParty', 'Delivery', 'DeliveryTerms', 'AllowanceCharge', 'TaxTotal',
            'AnticipatedMonetaryTotal', 'OrderLine'],
        '//cac:LineItem' => ['ID', 'Note', 'Quantity', 'LineExtensionAmount', 'Delivery', 'Price', 'Item'],
        '//cac:Item' => ['Name', 'BuyersItemIdentification', 'SellersItemIdentification', 'StandardItemIdentification',
            'ClassifiedTaxCategory'],
        '//cac:AnticipatedMonetaryTotal' => ['LineExtensionAmount', 'TaxExclusiveAmount', 'TaxInclusiveAmount',
            'AllowanceTotalAmount', 'ChargeTotalAmount', 'PayableAmount'],
    ];

    private static function order(): PurchaseOrder
    {
        $item = self::item('U-1');
        $item->mark(Gtin::of('09506000134352'));
        $order = new PurchaseOrder(
            'PO-U1',
            self::supplier(),
            self::person('rowan'),
            ExchangeRate::of('EUR', 'EUR', 1),
            self::now()->modify('+3 days'),
            self::now(),
        );
        OrderLine::fromOffer($order, self::offer($item, '12.35'), self::site('FERRY'), BigDecimal::of(3));
        $words = "Lids <gold> & \"silver\"\x07";
        OrderLine::ofText($order, $words, self::site('FERRY'), BigDecimal::of(2), BigDecimal::of('0.5'));
        $order->taxAs(Tax::percent(23));
        $order->adjust([AllowanceCharge::of(true, 'packing', BigDecimal::of('4.5'), null, Tax::percent(23))]);
        self::entities()->persist($order);
        self::entities()->flush();

        return $order;
    }

    private static function read(string $xml): \DOMXPath
    {
        $document = new \DOMDocument();
        self::assertTrue('' !== $xml && $document->loadXML($xml));
        $path = new \DOMXPath($document);
        $path->registerNamespace('o', 'urn:oasis:names:specification:ubl:schema:xsd:Order-2');
        $common = 'urn:oasis:names:specification:ubl:schema:xsd:Common';
        $path->registerNamespace('cac', $common.'AggregateComponents-2');
        $path->registerNamespace('cbc', $common.'BasicComponents-2');

        return $path;
    }

    private static function value(\DOMXPath $path, string $query): string
    {
        $value = $path->evaluate('string('.$query.')');

        return is_string($value) ? $value : '';
    }

    public function testItSaysWhatTheOrderSaysAndAddsUp(): void
    {
        $path = self::read(self::get(OrderPaper::class)->xml(self::order()));
        foreach ([
            '/o:Order/cbc:ID' => 'PO-U1',
            '//cac:OrderLine[1]//cbc:Quantity' => '36',
            '//cac:OrderLine[1]//cbc:Quantity/@unitCode' => 'EA',
            '//cac:OrderLine[1]//cbc:PriceAmount' => '12.35',
            '//cac:OrderLine[1]//cbc:BaseQuantity' => '12',
            '//cac:OrderLine[1]//cac:StandardItemIdentification/cbc:ID' => '09506000134352',
            '//cac:OrderLine[2]//cbc:Name' => 'Lids <gold> & "silver"',
            '//cac:AnticipatedMonetaryTotal/cbc:LineExtensionAmount' => '38.05',
            '//cac:AnticipatedMonetaryTotal/cbc:ChargeTotalAmount' => '4.50',
            '//cac:AnticipatedMonetaryTotal/cbc:TaxExclusiveAmount' => '42.55',
            // 23 % of 42.55 is 9.7865.
            '/o:Order/cac:TaxTotal/cbc:TaxAmount' => '9.79',
            '//cac:AnticipatedMonetaryTotal/cbc:PayableAmount' => '52.34',
            '//cac:OrderLine[1]//cac:ClassifiedTaxCategory/cbc:ID' => 'S',
        ] as $query => $expected) {
            self::assertSame($expected, self::value($path, $query), $query);
        }
        // Quantity by price for its base quantity is what the line comes to.
        self::assertTrue(BigDecimal::of(36)->multipliedBy('12.35')->dividedBy(12, 2)->isEqualTo('37.05'));
        self::assertSame('37.05', self::value($path, '//cac:OrderLine[1]//cbc:LineExtensionAmount'));
    }

    public function testElementsFollowEachOtherAsTheSchemaHasThem(): void
    {
        $path = self::read(self::get(OrderPaper::class)->xml(self::order()));
        foreach (self::SEQUENCES as $query => $sequence) {
            $found = $path->query($query);
            self::assertInstanceOf(\DOMNodeList::class, $found);
            self::assertGreaterThan(0, $found->length, $query);
            foreach ($found as $element) {
                $at = [];
                self::assertInstanceOf(\DOMElement::class, $element);
                foreach ($element->childNodes as $child) {
                    if ($child instanceof \DOMElement) {
                        $place = array_search($child->localName, $sequence, true);
                        self::assertIsInt($place, $query.': '.$child->localName);
                        $at[] = $place;
                    }
                }
                $sorted = $at;
                sort($sorted);
                self::assertSame($sorted, $at, $query);
            }
        }
    }

    public function testItGoesWithTheOrderWhereTheSupplierReadsIt(): void
    {
        $order = self::order();
        $kinds = fn (): array => array_map(
            static fn ($one): string => $one->mediaType,
            self::get(KeepDocuments::class)->of($order),
        );
        self::assertSame(['application/pdf'], $kinds());
        $order->supplier->wantsOrders(false, true);
        self::assertSame(['application/pdf', 'application/xml'], $kinds());
    }
}
