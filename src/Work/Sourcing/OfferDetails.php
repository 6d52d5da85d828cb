<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Store\Offer\Offer;

/** What is kept of an offer, as plain values: what stands, to be changed. Prices are of one pack, before discounts. */
final class OfferDetails
{
    /** Code of the item, for a new offer. */
    public string $item = '';
    /** What they sell as one, for a new offer: "case". */
    public string $pack = '';
    public string $supplierCode = '';
    public string $description = '';
    public ?BigDecimal $content = null;
    /** Unit the content is stated in; null for the item's stock unit. */
    public ?Unit $contentUnit = null;
    public string $outerPacks = '';
    public ?BigDecimal $minimum = null;
    public ?BigDecimal $multiple = null;
    public bool $split = false;
    /** As typed: "9.30", or with breaks "1=9.30 40=8.97". */
    public string $prices = '';
    public BreakKind $breakKind = BreakKind::AllUnits;
    public BreakBasis $breakBasis = BreakBasis::Quantity;
    /** When other prices begin; null for today. */
    public ?\DateTimeImmutable $pricesFrom = null;
    public string $discounts = '';
    public ?BigDecimal $risePercent = null;
    public ?\DateTimeImmutable $riseOn = null;
    public ?int $leadDays = null;
    public ?int $rank = null;
    public ?\DateTimeImmutable $validFrom = null;
    public ?\DateTimeImmutable $validUntil = null;
    public string $origin = '';
    public string $manufacturer = '';
    public string $packing = '';
    public string $tariffNumber = '';
    public ?BigDecimal $dutyPercent = null;
    public bool $inspected = false;
    public bool $consigned = false;
    public ?int $consignedDays = null;
    public bool $blocked = false;

    public static function of(Offer $offer, \DateTimeImmutable $today): self
    {
        $details = new self();
        $details->supplierCode = $offer->supplierCode();
        $details->description = $offer->description();
        $stated = explode(' ', $offer->statedContent());
        $details->content = isset($stated[1]) ? BigDecimal::of($stated[0]) : $offer->rule()->pack->content;
        $details->contentUnit = isset($stated[1]) ? Unit::from($stated[1]) : null;
        $details->outerPacks = $offer->outerPacks();
        $details->minimum = $offer->rule()->minimum;
        $details->multiple = $offer->rule()->multiple;
        $details->split = $offer->rule()->split;
        $prices = $offer->listPrices();
        $details->prices = $prices->label();
        $details->breakKind = $prices->kind;
        $details->breakBasis = $prices->basis;
        $details->pricesFrom = $today;
        $details->discounts = $offer->discounts()->label();
        $details->risePercent = $offer->rise()[0] ?? null;
        $details->riseOn = $offer->rise()[1] ?? null;
        $details->leadDays = $offer->leadDays();
        $details->rank = $offer->rank();
        $details->validFrom = $offer->validFrom();
        $details->validUntil = $offer->validUntil();
        $details->origin = $offer->origin();
        $details->manufacturer = $offer->manufacturer();
        $details->packing = $offer->packing();
        $details->tariffNumber = $offer->tariffNumber();
        $details->dutyPercent = $offer->dutyPercent();
        $details->inspected = $offer->isInspected();
        $details->consigned = $offer->isConsigned();
        $details->consignedDays = 0 === $offer->consignedDays() ? null : $offer->consignedDays();
        $details->blocked = $offer->isBlocked();

        return $details;
    }
}
