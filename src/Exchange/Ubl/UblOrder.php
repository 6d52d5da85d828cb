<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Ubl;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Store\Business\Business;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;

/**
 * A purchase order as OASIS UBL 2.1 XML (ISO/IEC 19845:2015), document type Order; which element follows which is from
 * its schema UBL-Order-2.1.xsd and the common components it refers to. Tax categories are those of UNTDID 5305, units
 * those of UN/ECE recommendation 20.
 *
 * Quantities are in stock units; the price is that of a pack, with what is in a pack as its base quantity.
 */
final class UblOrder
{
    private const ORDER = 'urn:oasis:names:specification:ubl:schema:xsd:Order-2';
    private const AGGREGATE = 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2';
    private const BASIC = 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2';

    /** What XML 1.0 has no place for. */
    private const NOT_IN_XML = '/[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u';

    private \XMLWriter $xml;

    private function __construct(private readonly PurchaseOrder $order, private readonly Business $business)
    {
        $this->xml = new \XMLWriter();
    }

    public static function of(PurchaseOrder $order, Business $business): string
    {
        return (new self($order, $business))->write();
    }

    private function write(): string
    {
        $order = $this->order;
        $this->xml->openMemory();
        $this->xml->setIndent(true);
        $this->xml->startDocument('1.0', 'UTF-8');
        $this->xml->startElementNs(null, 'Order', self::ORDER);
        $this->xml->writeAttribute('xmlns:cac', self::AGGREGATE);
        $this->xml->writeAttribute('xmlns:cbc', self::BASIC);
        $this->basic('UBLVersionID', '2.1');
        $this->basic('ID', $order->number);
        $this->basic('IssueDate', ($order->sentAt() ?? $order->createdAt())->format('Y-m-d'));
        if ('' !== $order->note()) {
            $this->basic('Note', $order->note());
        }
        $this->basic('DocumentCurrencyCode', $order->currency);
        $this->within('BuyerCustomerParty', $this->buyer(...));
        $this->within('SellerSupplierParty', $this->seller(...));
        $this->within('Delivery', $this->delivery(...));
        if ('' !== $order->deliveryTerms()) {
            $this->within('DeliveryTerms', fn () => $this->basic('SpecialTerms', $order->deliveryTerms()));
        }
        $this->sums();
        foreach ($order->lines() as $line) {
            if ($line->packs()->isPositive()) {
                $this->within('OrderLine', fn () => $this->within('LineItem', fn () => $this->line($line)));
            }
        }
        $this->xml->endElement();
        $this->xml->endDocument();

        return $this->xml->outputMemory();
    }

    private function buyer(): void
    {
        $this->within('Party', function (): void {
            $this->within('PartyName', fn () => $this->basic('Name', $this->business->name()));
            $this->within(
                'PostalAddress',
                fn () => $this->address($this->business->address(), $this->business->country()),
            );
            if ('' !== $this->business->taxNumber()) {
                $this->within('PartyTaxScheme', function (): void {
                    $this->basic('CompanyID', $this->business->taxNumber());
                    $this->scheme();
                });
            }
            $this->within('Contact', function (): void {
                $this->basic('Name', $this->order->buyer->name());
                $this->basic('ElectronicMail', $this->order->buyer->email());
            });
        });
    }

    private function seller(): void
    {
        $this->within('Party', function (): void {
            $supplier = $this->order->supplier;
            $this->within('PartyName', fn () => $this->basic('Name', $supplier->name()));
            $address = $supplier->address();
            if (null !== $address) {
                $this->within('PostalAddress', function () use ($address): void {
                    $this->basic('StreetName', $address->street());
                    $this->basic('CityName', $address->city());
                    $this->basic('PostalZone', $address->postcode());
                    $this->within('Country', fn () => $this->basic('IdentificationCode', $address->country()));
                });
            }
        });
    }

    private function delivery(): void
    {
        $sites = $this->order->sites();
        if ('' !== $this->order->deliverTo() || 1 === count($sites)) {
            $this->within('DeliveryAddress', fn () => $this->address(
                $this->order->deliverTo() ?: $sites[0]->address(),
                $this->business->country(),
            ));
        }
        $this->within(
            'RequestedDeliveryPeriod',
            fn () => $this->basic('EndDate', $this->order->wantedOn()->format('Y-m-d')),
        );
    }

    private function sums(): void
    {
        $sums = $this->order->totals();
        foreach ($sums->adjustments as $adjusted) {
            if ($adjusted->amount->isZero()) {
                continue;
            }
            $this->within('AllowanceCharge', function () use ($adjusted): void {
                $this->basic('ChargeIndicator', $adjusted->adjustment->isCharge ? 'true' : 'false');
                $this->basic('AllowanceChargeReason', $adjusted->adjustment->reason);
                $this->amount('Amount', $adjusted->amount);
                $this->within('TaxCategory', fn () => $this->category($adjusted->adjustment->tax));
            });
        }
        $this->within('TaxTotal', fn () => $this->amount('TaxAmount', $sums->tax));
        $this->within('AnticipatedMonetaryTotal', function () use ($sums): void {
            $this->amount('LineExtensionAmount', $sums->goods);
            $this->amount('TaxExclusiveAmount', $sums->net);
            $this->amount('TaxInclusiveAmount', $sums->total);
            $this->amount('AllowanceTotalAmount', $sums->allowances);
            $this->amount('ChargeTotalAmount', $sums->charges);
            $this->amount('PayableAmount', $sums->total);
        });
    }

    private function line(OrderLine $line): void
    {
        $unit = $line->item->unit->value ?? 'C62';
        $this->basic('ID', $line->number());
        if ('' !== $line->noteToThem()) {
            $this->basic('Note', $line->noteToThem());
        }
        $this->quantity('Quantity', $line->pack()->toStockUnits($line->packs()), $unit);
        $this->amount('LineExtensionAmount', $line->total());
        $this->within('Delivery', fn () => $this->within(
            'RequestedDeliveryPeriod',
            fn () => $this->basic('EndDate', $line->wantedOn()->format('Y-m-d')),
        ));
        $this->within('Price', function () use ($line, $unit): void {
            $price = $line->price()->strippedOfTrailingZeros();
            $this->basic('PriceAmount', (string) $price, ['currencyID' => $this->order->currency]);
            $this->quantity('BaseQuantity', $line->pack()->content, $unit);
        });
        $this->within('Item', function () use ($line): void {
            $this->basic('Name', $line->description);
            $ids = [
                'BuyersItemIdentification' => [$line->item->code ?? '', []],
                'SellersItemIdentification' => [$line->supplierCode(), []],
                'StandardItemIdentification' => [$line->item?->gtin()->digits ?? '', ['schemeID' => '0160']],
            ];
            foreach ($ids as $name => [$id, $scheme]) {
                if ('' !== $id) {
                    $this->within($name, fn () => $this->basic('ID', $id, $scheme));
                }
            }
            $this->within('ClassifiedTaxCategory', fn () => $this->category($line->tax()));
        });
    }

    private function category(Tax $tax): void
    {
        $this->basic('ID', $tax->category->value);
        $this->basic('Percent', (string) $tax->percent);
        $this->scheme();
    }

    private function scheme(): void
    {
        $this->within('TaxScheme', fn () => $this->basic('ID', 'VAT'));
    }

    private function address(string $lines, string $country): void
    {
        foreach (preg_split('/\s*\R\s*/', trim($lines), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $line) {
            $this->within('AddressLine', fn () => $this->basic('Line', $line));
        }
        $this->within('Country', fn () => $this->basic('IdentificationCode', $country));
    }

    private function amount(string $name, Money $amount): void
    {
        $this->basic($name, (string) $amount->rounded()->amount, ['currencyID' => $amount->currency->code]);
    }

    private function quantity(string $name, BigDecimal $quantity, string $unit): void
    {
        $this->basic($name, (string) $quantity->strippedOfTrailingZeros(), ['unitCode' => $unit]);
    }

    /** @param array<string, string> $attributes */
    private function basic(string $name, string $content, array $attributes = []): void
    {
        $this->xml->startElement('cbc:'.$name);
        foreach ($attributes as $attribute => $value) {
            $this->xml->writeAttribute($attribute, $value);
        }
        $this->xml->text((string) preg_replace(self::NOT_IN_XML, '', $content));
        $this->xml->endElement();
    }

    /** @param callable(): mixed $content */
    private function within(string $name, callable $content): void
    {
        $this->xml->startElement('cac:'.$name);
        $content();
        $this->xml->endElement();
    }
}
