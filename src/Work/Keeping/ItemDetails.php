<?php

declare(strict_types=1);

namespace TallBarrel\Work\Keeping;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\InspectionLevel;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Item\ItemPack;

/** What is kept of an item, as plain values: what stands, to be changed. Money is in the home currency. */
final class ItemDetails
{
    public const SOLD = 'sold';
    public const USED = 'used';
    public const SERVICE = 'service';

    public string $code = '';
    public string $name = '';
    public string $furtherNames = '';
    public string $category = '';
    public Unit $unit = Unit::Each;
    /** Sold, used only, or bought without ever being stocked. */
    public string $sort = self::SOLD;
    public string $gtin = '';
    public ?BigDecimal $salesPrice = null;
    public ?BigDecimal $standardCost = null;
    /** Of one stock unit, kg and litres. */
    public ?BigDecimal $weight = null;
    public ?BigDecimal $volume = null;
    public ?int $shelfDays = null;
    public bool $lots = false;
    public LotDetails $lotDetails = LotDetails::Never;
    public bool $serials = false;
    /** Whether its temperature is measured when it comes. */
    public bool $measured = false;
    public InspectionRule $inspection = InspectionRule::Never;
    /** Percent that may be bad, one of SamplingPlan's. */
    public string $qualityLimit = '1.5';
    public InspectionLevel $inspectionLevel = InspectionLevel::Two;
    /** What is looked at when it is inspected, one a line. */
    public string $lookAt = '';
    public bool $staple = false;
    public string $customsNumber = '';
    /** ISO 3166, two letters. */
    public string $origin = '';
    public string $priceGroup = '';
    /** Of one of our rates; empty for whatever the supplier charges. */
    public string $taxName = '';
    public string $caution = '';
    public string $notes = '';
    /** Bytes of a new picture; null to leave it as it is. */
    public ?string $picture = null;
    public bool $dropPicture = false;
    /** @var list<PackDetails> */
    public array $packs = [];
    /** @var list<ItemPlace> */
    public array $places = [];

    public static function of(Item $item): self
    {
        $details = new self();
        $details->code = $item->code;
        $details->name = $item->name();
        $details->furtherNames = $item->furtherNames();
        $details->category = $item->category();
        $details->unit = $item->unit;
        $details->sort = !$item->isStocked() ? self::SERVICE : ($item->isSold() ? self::SOLD : self::USED);
        $details->gtin = $item->gtin()?->short() ?? '';
        $details->salesPrice = $item->salesPrice();
        $details->standardCost = $item->standardCost();
        $details->weight = $item->weightKg();
        $details->volume = $item->volume();
        $details->shelfDays = $item->shelfDays();
        $details->lots = $item->isLotTracked();
        $details->lotDetails = $item->lotDetails();
        $details->serials = $item->hasSerials();
        $details->measured = $item->isMeasured();
        $details->inspection = $item->inspection();
        $details->qualityLimit = $item->qualityLimit();
        $details->inspectionLevel = $item->inspectionLevel();
        $details->lookAt = implode("\n", $item->checklist());
        $details->staple = $item->isStaple();
        $details->customsNumber = $item->customsNumber();
        $details->origin = $item->origin();
        $details->priceGroup = $item->priceGroup();
        $details->taxName = $item->taxName();
        $details->caution = $item->caution();
        $details->notes = $item->notes();
        $details->packs = array_map(
            static fn (ItemPack $pack): PackDetails => new PackDetails($pack->name(), $pack->quantity(), $pack->gtin()),
            $item->packs(),
        );

        return $details;
    }

    /** The same for a similar item: without what belongs to one alone. */
    public static function like(Item $item): self
    {
        $details = self::of($item);
        $details->code = $details->gtin = $details->furtherNames = '';
        $details->standardCost = null;
        $details->packs = array_map(
            static fn (PackDetails $pack): PackDetails => new PackDetails($pack->name, $pack->quantity, null),
            $details->packs,
        );

        return $details;
    }
}
