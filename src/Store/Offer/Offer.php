<?php

declare(strict_types=1);

namespace TallBarrel\Store\Offer;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\NestedPacks;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\ChainedDiscounts;
use TallBarrel\Core\Sourcing\OfferTerms as CoreOffer;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * What one supplier asks for one item.
 *
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 */
#[ORM\Entity]
#[ORM\Index(name: 'offer_supplier_code', columns: ['supplier_code', 'item_id'])]
#[ORM\UniqueConstraint(name: 'offer_once', columns: ['supplier_id', 'item_id', 'pack_name'])]
class Offer implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $minimum;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $multiple;

    #[ORM\Column]
    private bool $split = false;

    #[ORM\Column]
    private int $leadDays = 7;

    #[ORM\Column]
    private int $rank = 1;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $validFrom = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $validUntil = null;

    /** What they call it. */
    #[ORM\Column(length: 160, options: ['default' => ''])]
    private string $description = '';

    /** The pack's content as they state it, where their unit is not our stock unit: "50 LBR". */
    #[ORM\Column(length: 30, options: ['default' => ''])]
    private string $statedContent = '';

    /** Larger packs made of this one: "layer=8 pallet=6". */
    #[ORM\Column(length: 120, options: ['default' => ''])]
    private string $outerPacks = '';

    #[ORM\Column(length: 12, enumType: BreakKind::class, options: ['default' => 'all-units'])]
    private BreakKind $breakKind = BreakKind::AllUnits;

    #[ORM\Column(length: 12, enumType: BreakBasis::class, options: ['default' => 'quantity'])]
    private BreakBasis $breakBasis = BreakBasis::Quantity;

    /** Taken off one after the other: "10 + 5". */
    #[ORM\Column(length: 40, options: ['default' => ''])]
    private string $discounts = '';

    /** Country of origin, ISO 3166 alpha-2. */
    #[ORM\Column(length: 2, options: ['default' => ''])]
    private string $origin = '';

    #[ORM\Column(length: 12, options: ['default' => ''])]
    private string $tariffNumber = '';

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, options: ['default' => '0.00'])]
    private BigDecimal $dutyPercent;

    /** Who makes it, where that is not who sells it. */
    #[ORM\Column(length: 120, options: ['default' => ''])]
    private string $manufacturer = '';

    /** How it is to be packed; stands on every order. */
    #[ORM\Column(length: 200, options: ['default' => ''])]
    private string $packing = '';

    /** @var list<AllowanceChargeData> what it brings to an order, once */
    #[ORM\Column(type: 'json')]
    private array $usualCharges = [];

    #[ORM\Column(options: ['default' => false])]
    private bool $inspected = false;

    /** Whether what it brings stays the supplier's until it is used. */
    #[ORM\Column(options: ['default' => false])]
    private bool $consigned = false;

    /** After how many days it is ours anyway; 0 for never. */
    #[ORM\Column(options: ['default' => 0])]
    private int $consignedDays = 0;

    #[ORM\Column(options: ['default' => false])]
    private bool $blocked = false;

    /** Percent by which the supplier has announced to raise the price, and from when. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, nullable: true)]
    private ?BigDecimal $risePercent = null;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $riseOn = null;

    /** Given when it is read; a new offer has not been agreed about yet. */
    private ?PriceTerms $terms = null;

    /** @var Collection<int, PriceBreak> */
    #[ORM\OneToMany(targetEntity: PriceBreak::class, mappedBy: 'offer', cascade: ['persist'], orphanRemoval: true)]
    #[ORM\OrderBy(['fromPacks' => 'ASC'])]
    private Collection $breaks;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Item $item,
        #[ORM\Column(length: 40)] private string $supplierCode,
        #[ORM\Column(length: 30)] public readonly string $packName,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 6)] private BigDecimal $packContent,
    ) {
        Pack::of($packName, $packContent);
        $this->minimum = $this->multiple = BigDecimal::one();
        $this->dutyPercent = BigDecimal::zero();
        $this->breaks = new ArrayCollection();
    }

    public function isMadeBy(string $manufacturer, string $packing): void
    {
        $this->manufacturer = trim($manufacturer);
        $this->packing = trim($packing);
    }

    /** @param list<AllowanceCharge> $charges that an order with it begins with, such as for tooling or a crate */
    public function brings(array $charges): void
    {
        $this->usualCharges = array_map(
            static fn (AllowanceCharge $charge): array => $charge->toArray(),
            $charges,
        );
    }

    /** @return list<AllowanceCharge> */
    public function usualCharges(): array
    {
        return array_map(AllowanceCharge::fromArray(...), $this->usualCharges);
    }

    public function manufacturer(): string
    {
        return $this->manufacturer;
    }

    public function packing(): string
    {
        return $this->packing;
    }

    public function sellBy(BuyingRule $rule): void
    {
        $this->packContent = $rule->pack->content;
        $this->minimum = $rule->minimum;
        $this->multiple = $rule->multiple;
        $this->split = $rule->split;
    }

    /** @throws InvalidValue if it would end before it begins */
    public function promise(
        int $leadDays,
        int $rank,
        ?\DateTimeImmutable $validUntil = null,
        ?\DateTimeImmutable $validFrom = null,
    ): void {
        if (null !== $validFrom && null !== $validUntil && $validUntil < $validFrom) {
            throw InvalidValue::because(
                sprintf(
                    'The offer would end on %s, before it begins on %s.',
                    $validUntil->format('j M Y'),
                    $validFrom->format('j M Y'),
                ),
            );
        }
        $this->leadDays = $leadDays;
        $this->rank = $rank;
        $this->validUntil = $validUntil;
        $this->validFrom = $validFrom;
    }

    /** @throws InvalidValue if a larger pack would hold itself */
    public function describe(string $description, string $statedContent = '', string $outerPacks = ''): void
    {
        $this->description = trim($description);
        $this->statedContent = trim($statedContent);
        NestedPacks::read($this->rule()->pack, $outerPacks);
        $this->outerPacks = trim($outerPacks);
    }

    /** @throws InvalidValue */
    public function comesFrom(string $origin, string $tariffNumber, BigDecimal $dutyPercent): void
    {
        if ('' !== $origin && 1 !== preg_match('/^[A-Za-z]{2}$/', $origin)) {
            throw InvalidValue::because(
                sprintf('“%s” is not a country code; expected two letters such as IE.', $origin),
            );
        }
        $number = str_replace([' ', '.'], '', $tariffNumber);
        if ('' !== $number && 1 !== preg_match('/^(\d{4}|\d{6}|\d{8}|\d{10})$/', $number)) {
            throw InvalidValue::because(
                sprintf('“%s” is not a customs tariff number; expected 4, 6, 8 or 10 digits.', $tariffNumber),
            );
        }
        if ($dutyPercent->isNegative() || $dutyPercent->isGreaterThan(200)) {
            throw InvalidValue::because(sprintf('A duty of %s %% is out of range; expected 0 to 200.', $dutyPercent));
        }
        $this->origin = strtoupper($origin);
        $this->tariffNumber = $number;
        $this->dutyPercent = $dutyPercent;
    }

    public function inspect(bool $inspected): void
    {
        $this->inspected = $inspected;
    }

    /**
     * @param int $days after which it is ours anyway; 0 for never
     *
     * @throws InvalidValue unless from 0 to 3650
     */
    public function consign(bool $consigned, int $days): void
    {
        if ($days < 0 || $days > 3650) {
            throw InvalidValue::because(sprintf('Theirs for %d days is out of range; expected 0 to 3650.', $days));
        }
        $this->consigned = $consigned;
        $this->consignedDays = $days;
    }

    public function isConsigned(): bool
    {
        return $this->consigned;
    }

    public function consignedDays(): int
    {
        return $this->consignedDays;
    }

    public function block(bool $blocked): void
    {
        $this->blocked = $blocked;
    }

    public function discount(ChainedDiscounts $discounts): void
    {
        $this->discounts = $discounts->label();
    }

    /** @param PriceBreaks $prices before discounts */
    public function price(PriceBreaks $prices): void
    {
        $this->breakKind = $prices->kind;
        $this->breakBasis = $prices->basis;
        foreach ($prices->steps as $i => $step) {
            $existing = $this->breaks->get($i);
            if (null === $existing) {
                $this->breaks->add(new PriceBreak($this, $step['from'], $step['price']));
            } else {
                $existing->change($step['from'], $step['price']);
            }
        }
        foreach ($this->breaks->slice(count($prices->steps)) as $surplus) {
            $this->breaks->removeElement($surplus);
        }
    }

    public function announce(?BigDecimal $risePercent, ?\DateTimeImmutable $on): void
    {
        $this->risePercent = null === $on ? null : $risePercent;
        $this->riseOn = null === $risePercent ? null : $on;
    }

    /** @return array{BigDecimal, \DateTimeImmutable}|null percent and day */
    public function rise(): ?array
    {
        return null === $this->risePercent || null === $this->riseOn ? null : [$this->risePercent, $this->riseOn];
    }

    public function recode(string $supplierCode): void
    {
        $this->supplierCode = trim($supplierCode);
    }

    public function supplierCode(): string
    {
        return $this->supplierCode;
    }

    public function rule(): BuyingRule
    {
        return BuyingRule::of(
            Pack::of($this->packName, $this->packContent),
            $this->minimum,
            $this->multiple,
            $this->split,
        );
    }

    /** What it costs today: discounts taken off, and what was agreed beyond the offer. */
    public function prices(): PriceBreaks
    {
        return $this->agreed()?->on($this->ownPrices(), $this->packContent) ?? $this->ownPrices();
    }

    /** Discounts taken off. */
    private function ownPrices(): PriceBreaks
    {
        return $this->listPrices()->after($this->discounts());
    }

    public function fallUnder(PriceTerms $terms): void
    {
        $this->terms = $terms;
    }

    /** What was agreed beyond single offers and holds for this one today. */
    public function agreed(): ?AgreedPrice
    {
        $agreed = $this->terms?->today();

        return null === $agreed || $agreed->isEmpty()
            ? null
            : $agreed->holdingFor(
                $this->supplier->id,
                $this->supplier->priceGroup(),
                $this->item->id,
                $this->item->priceGroup(),
                $this->supplier->currency()->code,
            );
    }

    /** Of that, what decides the price when so many packs are bought, with its name; empty where nothing does. */
    public function agreedFor(BigDecimal $packs): string
    {
        $agreed = $this->agreed();

        return true === $agreed?->isReached($packs, $this->ownPrices(), $this->packContent)
            ? $agreed->name.': '.$agreed->label()
            : '';
    }

    /**
     * What their list asks for a pack that is paid so, when so many are bought.
     *
     * @throws InvalidValue where the list does not decide the price
     */
    public function listedFor(BigDecimal $price, BigDecimal $packs): BigDecimal
    {
        return ($this->agreed()?->before($price, $packs, $this->ownPrices(), $this->packContent) ?? $price)
            ->dividedBy($this->discounts()->factor(), 4, RoundingMode::HalfUp);
    }

    public function listPrices(): PriceBreaks
    {
        return PriceBreaks::of(
            array_values(
                $this->breaks
                    ->map(static fn (PriceBreak $break): array => [$break->fromPacks(), $break->price()])
                    ->toArray(),
            ),
            $this->breakKind,
            $this->breakBasis,
        );
    }

    public function discounts(): ChainedDiscounts
    {
        return ChainedDiscounts::read($this->discounts);
    }

    /** Whether it may be bought on a day. */
    public function isInForce(\DateTimeImmutable $day): bool
    {
        return !$this->blocked
            && !$this->supplier->isArchived()
            && (null === $this->validFrom || $this->validFrom->format('Y-m-d') <= $day->format('Y-m-d'))
            && (null === $this->validUntil || $this->validUntil->format('Y-m-d') >= $day->format('Y-m-d'));
    }

    public function description(): string
    {
        return $this->description;
    }

    public function statedContent(): string
    {
        return $this->statedContent;
    }

    /** The pack and the larger ones made of it. */
    public function packs(): NestedPacks
    {
        return NestedPacks::read($this->rule()->pack, $this->outerPacks);
    }

    public function outerPacks(): string
    {
        return $this->outerPacks;
    }

    public function origin(): string
    {
        return $this->origin;
    }

    public function tariffNumber(): string
    {
        return $this->tariffNumber;
    }

    public function dutyPercent(): BigDecimal
    {
        return $this->dutyPercent;
    }

    public function isInspected(): bool
    {
        return $this->inspected;
    }

    public function isBlocked(): bool
    {
        return $this->blocked;
    }

    public function validFrom(): ?\DateTimeImmutable
    {
        return $this->validFrom;
    }

    public function leadDays(): int
    {
        return $this->leadDays;
    }

    public function rank(): int
    {
        return $this->rank;
    }

    public function validUntil(): ?\DateTimeImmutable
    {
        return $this->validUntil;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function at(ExchangeRate $rate): CoreOffer
    {
        return new CoreOffer(
            $this->id,
            $this->supplier->id,
            $this->rule(),
            $this->prices(),
            $rate,
            $this->rank,
            $this->leadDays,
            null === $this->risePercent || null === $this->riseOn
                ? null
                : [$this->risePercent->toFloat() / 100, $this->riseOn],
            $this->dutyPercent->toFloat(),
            $this->item->weightKg()?->toFloat() ?? 0.0,
        );
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
