<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\PaperLanguage;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Contact;
use TallBarrel\Store\Supplier\Supplier;

/** What is kept of a supplier, as plain values: what stands, to be changed. Money is in the supplier's currency. */
final class SupplierDetails
{
    public string $name = '';
    public PartyDetails $orders;
    public PartyDetails $quotes;
    public PartyDetails $accounts;
    public PlaceDetails $at;
    public PlaceDetails $paidAt;
    public PlaceDetails $shipsFrom;
    public string $deliveryTerms = '';
    /** One a line. */
    public string $otherDeliveryTerms = '';
    public string $priceGroup = '';
    /** Of one of our rates; empty for a figure of its own. */
    public string $taxName = '';
    public ?BigDecimal $tax = null;
    /** Why there is none, where the rate is 0. */
    public TaxCategory $untaxed = TaxCategory::ZeroRated;
    /** Null where no terms were agreed. */
    public ?int $netDays = null;
    public ?BigDecimal $discountPercent = null;
    public ?int $discountDays = null;
    public bool $endOfMonth = false;
    public ?BigDecimal $deposit = null;
    public string $instalments = '';
    public ?BigDecimal $minimum = null;
    public ?BigDecimal $minimumKg = null;
    public ?int $minimumPacks = null;
    public ?BigDecimal $freeFreight = null;
    public string $freightKind = '';
    public ?BigDecimal $freight = null;
    public string $freightSteps = '';
    public ?BigDecimal $palletKg = null;
    /** @var list<int> ISO weekdays */
    public array $weekdays = [];
    public string $cutOff = '';
    /** What invoices may ask beyond what was agreed; null for the usual. */
    public ?BigDecimal $tolerancePercent = null;
    public ?BigDecimal $toleranceAmount = null;
    public string $caution = '';
    public string $note = '';
    public string $notes = '';
    public ?Supplier $paidThrough = null;
    public ?Person $buyer = null;
    public bool $wantsCsv = false;
    public bool $wantsXml = false;
    public bool $inspected = false;
    public string $csvColumns = '';
    public string $csvDelimiter = ',';
    public string $csvFilename = '';
    public PaperLanguage $language = PaperLanguage::English;
    public bool $seesPrices = true;

    public static function of(Supplier $supplier): self
    {
        $details = new self();
        $details->name = $supplier->name();
        $details->orders = PartyDetails::of($supplier->contact());
        $details->quotes = PartyDetails::of($supplier->contactFor(Contact::QUOTES, true));
        $details->accounts = PartyDetails::of($supplier->contactFor(Contact::ACCOUNTS, true));
        $details->at = PlaceDetails::of($supplier->address());
        $details->paidAt = PlaceDetails::of($supplier->addressFor(Address::PAY, true));
        $details->shipsFrom = PlaceDetails::of($supplier->addressFor(Address::SHIP_FROM, true));
        $details->deliveryTerms = $supplier->deliveryTerms();
        $details->otherDeliveryTerms = implode("\n", $supplier->otherDeliveryTerms());
        $details->priceGroup = $supplier->priceGroup();
        $details->taxName = $supplier->taxName();
        $details->tax = $supplier->tax()->percent;
        $details->untaxed = $supplier->tax()->percent->isZero()
            ? $supplier->tax()->category
            : TaxCategory::ZeroRated;
        $terms = $supplier->terms();
        $details->netDays = $terms?->netDays;
        $details->discountPercent = $terms?->discountPercent;
        $details->discountDays = $terms?->discountDays;
        $details->endOfMonth = $terms->endOfMonth ?? false;
        $details->deposit = $terms?->depositPercent;
        $details->instalments = $terms?->instalmentsLabel() ?? '';
        $details->minimum = $supplier->minimum()?->amount;
        $details->minimumKg = $supplier->minimumKg();
        $details->minimumPacks = $supplier->minimumPacks();
        $details->freeFreight = $supplier->freeFreightFrom()?->amount;
        $details->freightKind = $supplier->freightKind();
        $details->freight = $supplier->freight()?->amount;
        $details->freightSteps = $supplier->freightSteps();
        $details->palletKg = $supplier->palletKg();
        $details->weekdays = $supplier->orderDays()->weekdays;
        $details->cutOff = $supplier->orderDays()->cutOff;
        $details->tolerancePercent = $supplier->tolerance()->percent();
        $details->toleranceAmount = $supplier->tolerance()->amount();
        $details->caution = $supplier->caution();
        $details->note = $supplier->standingNote();
        $details->notes = $supplier->notes();
        $details->paidThrough = $supplier->paidThrough();
        $details->buyer = $supplier->buyer();
        $details->wantsCsv = $supplier->wantsCsv();
        $details->wantsXml = $supplier->wantsXml();
        $details->inspected = $supplier->isInspected();
        [$details->csvColumns, $details->csvDelimiter, $details->csvFilename] = $supplier->csvAsTyped();
        $details->language = $supplier->paperLanguage();
        $details->seesPrices = $supplier->seesPrices();

        return $details;
    }
}
