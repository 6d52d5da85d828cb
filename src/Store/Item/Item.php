<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Country;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Quantity\Gtin;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\InspectionLevel;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Receiving\SamplingPlan;
use TallBarrel\Store\Business\Picture;
use TallBarrel\Store\Business\TaxRates;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Type\BigDecimalType;

/** A thing stocked or bought. */
#[ORM\Index(name: 'item_words', columns: ['name', 'code', 'further_names', 'category', 'gtin', 'archived_on'])]
#[ORM\Entity]
class Item implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 14, nullable: true, unique: true)]
    private ?string $gtin = null;

    /** False for what is used and not sold: bags, till rolls. */
    #[ORM\Column]
    private bool $sold = true;

    #[ORM\Column]
    private bool $lotTracked = false;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 10, scale: 3, nullable: true)]
    private ?BigDecimal $weightKg = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2, nullable: true)]
    private ?BigDecimal $salesPrice = null;

    /** Of one stock unit, in the home currency; follows receipts. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6, nullable: true)]
    private ?BigDecimal $averageCost = null;

    /** Of one stock unit, in the home currency; changes only when a person says so. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6, nullable: true)]
    private ?BigDecimal $standardCost = null;

    /** The item's own service level, in place of its class's. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 4, scale: 3, nullable: true)]
    private ?BigDecimal $service = null;

    /** Never to be without. */
    #[ORM\Column(options: ['default' => false])]
    private bool $staple = false;

    /** Days after arrival until it can no longer be sold. */
    #[ORM\Column(nullable: true)]
    private ?int $shelfDays = null;

    /** A new item is expected to sell like this one, until it has a history of its own. */
    #[ORM\ManyToOne]
    private ?Item $sellsLike = null;

    /** How much of it, 1.2 for a fifth more. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 6, scale: 3, nullable: true)]
    private ?BigDecimal $likeFactor = null;

    /** False for services and expenses: bought, but never on a shelf. */
    #[ORM\Column(options: ['default' => true])]
    private bool $stocked = true;

    /** When details of a lot are asked for at the dock. */
    #[ORM\Column(length: 6, enumType: LotDetails::class, options: ['default' => 'never'])]
    private LotDetails $lotDetails = LotDetails::Never;

    /** Whether each piece has a number of its own. */
    #[ORM\Column(options: ['default' => false])]
    private bool $serials = false;

    /** How much of what comes in is looked at first. */
    #[ORM\Column(length: 6, enumType: InspectionRule::class, options: ['default' => 'never'])]
    private InspectionRule $inspection = InspectionRule::Never;

    /** How many are looked at, for a sample. */
    #[ORM\Column(length: 3, enumType: InspectionLevel::class, options: ['default' => 'II'])]
    private InspectionLevel $inspectionLevel = InspectionLevel::Two;

    /** What somebody who inspects it looks at, one a line. */
    #[ORM\Column(length: 500, options: ['default' => ''])]
    private string $lookAt = '';

    /** Whether its temperature is measured when it comes. */
    #[ORM\Column(options: ['default' => false])]
    private bool $measured = false;

    /** Percent that may be bad, one of SamplingPlan's; for a sample. */
    #[ORM\Column(length: 4, options: ['default' => '1.5'])]
    private string $qualityLimit = '1.5';

    /** A rate of ours by name; empty for whatever the supplier charges. */
    #[ORM\Column(length: 30, options: ['default' => ''])]
    private string $taxName = '';

    private ?TaxRates $rates = null;

    /** Items that are priced alike; empty for none. */
    #[ORM\Column(length: 40, options: ['default' => ''])]
    private string $priceGroup = '';

    /** Other names people look for it by. */
    #[ORM\Column(length: 300, options: ['default' => ''])]
    private string $furtherNames = '';

    /** Litres taken up by one stock unit. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 12, scale: 3, nullable: true)]
    private ?BigDecimal $volume = null;

    #[ORM\Column(length: 20, options: ['default' => ''])]
    private string $customsNumber = '';

    /** Country of origin, ISO 3166 alpha-2. */
    #[ORM\Column(length: 2, options: ['default' => ''])]
    private string $origin = '';

    #[ORM\Column(length: 2000, options: ['default' => ''])]
    private string $notes = '';

    /** Shown whenever it is ordered. */
    #[ORM\Column(length: 300, options: ['default' => ''])]
    private string $caution = '';

    #[ORM\ManyToOne(fetch: 'LAZY')]
    private ?Picture $picture = null;

    /** Since when it is neither planned nor offered for orders. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $archivedOn = null;

    /** @var Collection<int, ItemPack> */
    #[ORM\OneToMany(targetEntity: ItemPack::class, mappedBy: 'item', cascade: ['persist'], orphanRemoval: true)]
    private Collection $packs;

    public function __construct(
        #[ORM\Column(length: 40, unique: true)] public readonly string $code,
        #[ORM\Column(length: 160)] private string $name,
        #[ORM\Column(length: 60)] private string $category,
        #[ORM\Column(length: 3, enumType: Unit::class)] public readonly Unit $unit,
    ) {
        $this->packs = new ArrayCollection();
        $this->describe($name, $category);
    }

    public function isStocked(): bool
    {
        return $this->stocked;
    }

    /** Services and expenses are not stocked. */
    public function stock(bool $stocked): void
    {
        $this->stocked = $stocked;
    }

    public function isAlsoCalled(string $names): void
    {
        $this->furtherNames = trim($names);
    }

    public function furtherNames(): string
    {
        return $this->furtherNames;
    }

    /** @throws InvalidValue below zero */
    public function takesUp(?BigDecimal $litres): void
    {
        if (true === $litres?->isNegative()) {
            throw InvalidValue::because(sprintf('A volume of %s litres is none; expected 0 or more.', $litres));
        }
        $this->volume = $litres;
    }

    /** Litres of one stock unit. */
    public function volume(): ?BigDecimal
    {
        return $this->volume;
    }

    /** @throws InvalidValue if the number is not 6 to 14 digits, or there is no such country */
    public function crossesBorders(string $customsNumber, string $origin): void
    {
        $this->customsNumber = self::readCustomsNumber($customsNumber);
        $this->origin = '' === trim($origin) ? '' : Country::read($origin);
    }

    /** @throws InvalidValue unless it is 6 to 14 digits, or nothing */
    public static function readCustomsNumber(string $typed): string
    {
        $digits = str_replace([' ', '.'], '', $typed);
        if ('' !== $digits && 1 !== preg_match('/^\d{6,14}$/', $digits)) {
            throw InvalidValue::because(
                sprintf('“%s” is no customs number; expected 6 to 14 digits, such as 0409 00 00.', $typed),
            );
        }

        return $digits;
    }

    public function customsNumber(): string
    {
        return $this->customsNumber;
    }

    public function origin(): string
    {
        return $this->origin;
    }

    public function remember(string $caution, string $notes): void
    {
        $this->caution = trim($caution);
        $this->notes = trim($notes);
    }

    public function caution(): string
    {
        return $this->caution;
    }

    public function notes(): string
    {
        return $this->notes;
    }

    public function show(?Picture $picture): void
    {
        $this->picture = $picture;
    }

    public function picture(): ?Picture
    {
        return $this->picture;
    }

    /** Its own tax as it holds today; null for whatever the supplier charges. */
    public function tax(): ?Tax
    {
        return '' === $this->taxName ? null : $this->rates?->named($this->taxName);
    }

    /** @param string $name of one of our rates; empty for whatever the supplier charges */
    public function isTaxedBy(string $name): void
    {
        $this->taxName = trim($name);
    }

    public function taxName(): string
    {
        return $this->taxName;
    }

    public function lookUpTaxIn(TaxRates $rates): void
    {
        $this->rates = $rates;
    }

    /** @throws InvalidValue if pieces that can be divided would have numbers, or there is no such limit */
    public function isReceived(LotDetails $details, bool $serials, InspectionRule $inspection, string $limit): void
    {
        if ($serials && $this->unit->isDivisible()) {
            throw InvalidValue::because(
                sprintf('What is counted in %s has no serial numbers; single pieces have.', $this->unit->symbol()),
            );
        }
        SamplingPlan::of(2, $limit);
        $this->lotDetails = $details;
        $this->serials = $serials;
        $this->inspection = $inspection;
        $this->qualityLimit = $limit;
    }

    public function isLookedAt(InspectionLevel $level, string $lookAt): void
    {
        $this->inspectionLevel = $level;
        $this->lookAt = trim($lookAt);
    }

    public function inspectionLevel(): InspectionLevel
    {
        return $this->inspectionLevel;
    }

    /** @return list<string> what is looked at when it is inspected */
    public function checklist(): array
    {
        return array_values(array_filter(
            array_map(trim(...), explode("\n", $this->lookAt)),
            static fn (string $line): bool => '' !== $line,
        ));
    }

    public function isMeasuredWhenItComes(bool $measured): void
    {
        $this->measured = $measured;
    }

    public function isMeasured(): bool
    {
        return $this->measured;
    }

    public function lotDetails(): LotDetails
    {
        return $this->lotDetails;
    }

    public function hasSerials(): bool
    {
        return $this->serials;
    }

    public function inspection(): InspectionRule
    {
        return $this->inspection;
    }

    public function qualityLimit(): string
    {
        return $this->qualityLimit;
    }

    public function belongTo(string $priceGroup): void
    {
        $this->priceGroup = trim((string) preg_replace('/\s+/u', ' ', $priceGroup));
    }

    public function priceGroup(): string
    {
        return $this->priceGroup;
    }

    /** @param \DateTimeImmutable|null $on null to take it up again */
    public function archive(?\DateTimeImmutable $on): void
    {
        $this->archivedOn = $on;
    }

    public function isArchived(): bool
    {
        return null !== $this->archivedOn;
    }

    public function archivedOn(): ?\DateTimeImmutable
    {
        return $this->archivedOn;
    }

    /** @return list<ItemPack> */
    public function packs(): array
    {
        return array_values($this->packs->toArray());
    }

    public function addPack(ItemPack $pack): void
    {
        $this->packs->add($pack);
    }

    public function dropPack(ItemPack $pack): void
    {
        $this->packs->removeElement($pack);
    }

    /** @throws InvalidValue */
    public function describe(string $name, string $category): void
    {
        $this->name = '' !== trim($name) ? trim($name) : throw InvalidValue::because('An item needs a name.');
        $this->category = trim($category);
    }

    public function mark(?Gtin $gtin): void
    {
        $this->gtin = $gtin?->digits;
    }

    public function sell(bool $sold, ?BigDecimal $price): void
    {
        $this->sold = $sold;
        $this->salesPrice = $price;
    }

    public function measure(?BigDecimal $weightKg, bool $lotTracked): void
    {
        $this->weightKg = $weightKg;
        $this->lotTracked = $lotTracked;
    }

    /** @throws InvalidValue unless above one half and below one; null for that of its class */
    public function aimAt(?BigDecimal $service): void
    {
        if (null === $service) {
            $this->service = null;

            return;
        }
        if (!$service->isGreaterThanOrEqualTo('0.5') || !$service->isLessThanOrEqualTo('0.999')) {
            throw InvalidValue::because(
                sprintf('A service level of %s is out of range; expected 0.5 to 0.999.', $service),
            );
        }
        $this->service = $service;
    }

    public function keep(bool $staple, ?int $shelfDays): void
    {
        if (null !== $shelfDays && $shelfDays < 1) {
            throw InvalidValue::because(sprintf('A shelf life of %d days is none; expected 1 or more.', $shelfDays));
        }
        $this->staple = $staple;
        $this->shelfDays = $shelfDays;
    }

    /** @throws InvalidValue if it is to sell like itself, or the factor is not above zero */
    public function sellLike(?self $other, ?BigDecimal $factor): void
    {
        if ($other === $this) {
            throw InvalidValue::because(sprintf('%s cannot be expected to sell like itself.', $this->code));
        }
        if (null !== $factor && (!$factor->isPositive() || $factor->isGreaterThan(100))) {
            throw InvalidValue::because(
                sprintf('“%s times as much” makes no sense; expected above 0 and up to 100.', $factor),
            );
        }
        $this->sellsLike = $other;
        $this->likeFactor = null === $other ? null : $factor ?? BigDecimal::one();
    }

    public function costs(?BigDecimal $average, ?BigDecimal $standard): void
    {
        $this->averageCost = $average;
        $this->standardCost = $standard;
    }

    public function averageNow(BigDecimal $cost): void
    {
        $this->averageCost = $cost;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function category(): string
    {
        return $this->category;
    }

    public function gtin(): ?Gtin
    {
        return null === $this->gtin ? null : Gtin::of($this->gtin);
    }

    public function isSold(): bool
    {
        return $this->sold;
    }

    public function isLotTracked(): bool
    {
        return $this->lotTracked;
    }

    public function weightKg(): ?BigDecimal
    {
        return $this->weightKg;
    }

    public function salesPrice(): ?BigDecimal
    {
        return $this->salesPrice;
    }

    public function averageCost(): ?BigDecimal
    {
        return $this->averageCost;
    }

    public function standardCost(): ?BigDecimal
    {
        return $this->standardCost;
    }

    public function service(): ?BigDecimal
    {
        return $this->service;
    }

    public function isStaple(): bool
    {
        return $this->staple;
    }

    public function shelfDays(): ?int
    {
        return $this->shelfDays;
    }

    public function sellsLike(): ?self
    {
        return $this->sellsLike;
    }

    public function likeFactor(): ?BigDecimal
    {
        return $this->likeFactor;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function moves(): Moves
    {
        return Moves::items($this);
    }
}
