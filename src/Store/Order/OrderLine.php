<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Day;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/** One item (or free text) on a purchase order, for one site. */
#[ORM\Entity]
#[ORM\Index(name: 'order_line_billed', columns: ['received', 'invoiced'])]
class OrderLine implements PlanningRestsOnIt
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $received;

    /** Packs that are owed for on invoices; kept by InvoicedPacks. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, insertable: false, updatable: false,
        options: ['default' => '0.000'])]
    private BigDecimal $invoiced;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $closedShort;

    /** On consignment: what comes stays the supplier's until it is used. */
    #[ORM\Column(options: ['default' => false])]
    private bool $consigned = false;

    /** Packs that came and are the supplier's yet. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, options: ['default' => '0.000'])]
    private BigDecimal $stillTheirs;

    /** A day of its own; null for the order's. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $wantedOn = null;

    /** As the supplier confirmed it for this line alone; null for what holds for the order. */
    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $promisedOn = null;

    /** Before the discount; the price itself is after it. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)]
    private BigDecimal $listPrice;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 7, scale: 4)]
    private BigDecimal $discountPercent;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)]
    private BigDecimal $discountEach;

    /** Null for the order's tax. */
    #[ORM\Column(length: 2, nullable: true, enumType: TaxCategory::class)]
    private ?TaxCategory $taxCategory = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2, nullable: true)]
    private ?BigDecimal $taxPercent = null;

    #[ORM\Column(length: 200)]
    private string $noteToThem = '';

    #[ORM\Column(length: 200)]
    private string $noteToUs = '';

    /** The customer who waits for it. */
    #[ORM\ManyToOne]
    private ?CustomerPromise $promise = null;

    /** Of what is bought for use and not for stock: where its cost goes, and whom it is for. */
    #[ORM\Column(length: 20, options: ['default' => ''])]
    private string $costAccount = '';

    #[ORM\Column(length: 80, options: ['default' => ''])]
    private string $forWhom = '';

    /** What beyond the offer decides its price, by name; empty where nothing does. */
    #[ORM\Column(length: 300, options: ['default' => ''])]
    private string $pricedBy = '';

    /** The agreement it draws on. */
    #[ORM\ManyToOne]
    private ?Agreement $agreement = null;

    /** The line it is a later delivery of: bought together with it, at the price of the whole. */
    #[ORM\ManyToOne]
    private ?OrderLine $partOf = null;

    private function __construct(
        #[ORM\ManyToOne(inversedBy: 'lines'), ORM\JoinColumn(nullable: false)] public readonly PurchaseOrder $order,
        #[ORM\Column] public readonly int $position,
        #[ORM\ManyToOne] public readonly ?Item $item,
        #[ORM\ManyToOne] public readonly ?Offer $offer,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 200)] public readonly string $description,
        #[ORM\Column(length: 40)] private string $supplierCode,
        #[ORM\Column(length: 30)] public readonly string $packName,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 6)] private BigDecimal $packContent,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)] private BigDecimal $packs,
        #[ORM\Column(type: BigDecimalType::NAME, precision: 16, scale: 6)] private BigDecimal $price,
    ) {
        $this->received = $this->invoiced = $this->closedShort = $this->stillTheirs = BigDecimal::zero();
        $this->discountPercent = $this->discountEach = BigDecimal::zero();
        $this->listPrice = $price;
        $this->pricedBy = $offer?->agreedFor($packs) ?? '';
    }

    public static function fromOffer(PurchaseOrder $order, Offer $offer, Site $site, BigDecimal $packs): self
    {
        $line = new self(
            $order,
            self::nextPosition($order),
            $offer->item,
            $offer,
            $site,
            $offer->item->name(),
            $offer->supplierCode(),
            $offer->packName,
            $offer->rule()->pack->content,
            $packs,
            $offer->prices()->priceFor($packs),
        );
        // How it is to be packed stands on every order.
        $line->noteToThem = $offer->packing();
        $line->consigned = $offer->isConsigned();
        $order->add($line);
        $own = $offer->item->tax();
        // Where the supplier charges no tax, for a reason, no goods of theirs have one.
        if (null !== $own && TaxCategory::Standard === $order->tax()->category) {
            $line->taxAs($own);
        }

        return $line;
    }

    /** An item its supplier has no standing offer for, as quoted: single stock units. */
    public static function ofItem(
        PurchaseOrder $order,
        Item $item,
        string $supplierCode,
        Site $site,
        BigDecimal $units,
        BigDecimal $price,
    ): self {
        $line = new self(
            $order,
            self::nextPosition($order),
            $item,
            null,
            $site,
            $item->name(),
            $supplierCode,
            'each',
            BigDecimal::one(),
            $units,
            $price,
        );
        $order->add($line);

        return $line;
    }

    /**
     * At the agreement's price, where it has one.
     *
     * @throws InvalidValue if the price is below 0
     * @throws Refused      if the order is no longer a draft
     */
    public function drawOn(?Agreement $agreement, ?BigDecimal $price): void
    {
        $this->order->mustBeEditable();
        if (true === $price?->isNegative()) {
            throw InvalidValue::negative((string) $price, 'a price of 0 or more');
        }
        $this->agreement = $agreement;
        if (null !== $price) {
            $this->priceAt($price, PriceDiscount::none());
        }
    }

    public function agreement(): ?Agreement
    {
        return $this->agreement;
    }

    public static function ofText(
        PurchaseOrder $order,
        string $text,
        Site $site,
        BigDecimal $packs,
        BigDecimal $price,
    ): self {
        $line = new self(
            $order,
            self::nextPosition($order),
            null,
            null,
            $site,
            $text,
            '',
            'each',
            BigDecimal::one(),
            $packs,
            $price,
        );
        $order->add($line);

        return $line;
    }

    /** What another order's line asks for, with its price, discount, day, tax and notes. */
    public static function likeOf(PurchaseOrder $order, self $other): self
    {
        return self::some($order, $other, $other->packs, $other->site);
    }

    private static function some(PurchaseOrder $order, self $other, BigDecimal $packs, Site $site): self
    {
        $line = new self(
            $order,
            self::nextPosition($order),
            $other->item,
            $other->offer,
            $site,
            $other->description,
            $other->supplierCode,
            $other->packName,
            $other->packContent,
            $packs,
            $other->listPrice,
        );
        $order->add($line);
        $line->priceAt($other->listPrice, $other->discount());
        $line->agreement = $other->agreement;
        $line->wantFor($other->wantedOn);
        $line->taxAs($other->hasOwnTax() ? $other->tax() : null);
        $line->say($other->noteToThem, $other->noteToUs);
        $line->isFor(null, $other->costAccount, $other->forWhom);

        return $line;
    }

    /**
     * Some of it on another day or to another place, on a line of its own under this one.
     *
     * @param BigDecimal $packs of those that stand here
     *
     * @throws InvalidValue if nothing would be left, or they do not sell it so
     * @throws Refused      if the order is no longer a draft
     */
    public function sharedOut(BigDecimal $packs, \DateTimeImmutable $day, Site $site): self
    {
        $this->order->mustBeEditable();
        if (!$packs->isPositive() || !$packs->isLessThan($this->packs)) {
            throw InvalidValue::because(
                sprintf(
                    '%s of %s cannot be set to another day; fewer than all of them can.',
                    $packs,
                    $this->packs->strippedOfTrailingZeros(),
                ),
            );
        }
        if ($site === $this->site && Day::isSame($day, $this->wantedOn())) {
            throw InvalidValue::because('That is the day and the place it is wanted for anyway.');
        }
        $objection = $this->offer?->rule()->objectionToPart($packs);
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        $this->packs = $this->packs->minus($packs);
        foreach ($this->together() as $other) {
            if ($other->site === $site && Day::isSame($day, $other->wantedOn())) {
                $other->packs = $other->packs->plus($packs);

                return $other;
            }
        }
        $part = self::some($this->order, $this, $packs, $site);
        $part->isPartOf($this->partOf ?? $this);
        $part->wantFor($day);
        $part->priceAt($this->listPrice, $this->discount());

        return $part;
    }

    public function partOf(): ?self
    {
        return $this->partOf;
    }

    /** Where the line it was a part of goes, it is part of another one, or of none. */
    public function isPartOf(?self $line): void
    {
        $this->partOf = $line === $this ? null : $line;
        $this->order->deliveriesChanged();
    }

    /** @return list<self> it and all it is bought together with, the first of them leading */
    public function together(): array
    {
        return $this->order->deliveriesOf($this->partOf ?? $this);
    }

    /** Packs on all lines it is bought together with: they decide the price. */
    public function boughtTogether(): BigDecimal
    {
        return array_reduce(
            $this->together(),
            static fn (BigDecimal $sum, self $line): BigDecimal => $sum->plus($line->packs),
            BigDecimal::zero(),
        );
    }

    /** "3", or "3.1" for its first later delivery. */
    public function number(): string
    {
        return null === $this->partOf
            ? (string) $this->position
            : $this->partOf->position.'.'.array_search($this, $this->together(), true);
    }

    private static function nextPosition(PurchaseOrder $order): int
    {
        return 1 + max([0, ...array_map(static fn (self $line): int => $line->position, $order->lines())]);
    }

    /**
     * @param BigDecimal         $price    of a pack, before the discount
     * @param PriceDiscount|null $discount null for as it was
     *
     * @throws InvalidValue if the supplier does not sell such a quantity, or a figure is below zero
     * @throws Refused      if the order is no longer a draft
     */
    public function change(BigDecimal $packs, BigDecimal $price, ?PriceDiscount $discount = null): void
    {
        $this->order->mustBeEditable();
        $objection = match (true) {
            $packs->isPositive() => $this->objectionTo($packs),
            $this->order->isBeingRevised() => null,
            default => 'An order line needs a quantity above 0; remove the line instead.',
        };
        if (null === $objection && $packs->isLessThan($this->received->plus($this->closedShort))) {
            $objection = sprintf(
                '%s have come or were closed; it cannot be less.',
                $this->received->plus($this->closedShort)->strippedOfTrailingZeros(),
            );
        }
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        if ($price->isNegative()) {
            throw InvalidValue::negative((string) $price, 'a price of 0 or more');
        }
        $this->packs = self::kept($this->packs, $packs);
        $this->priceAt($price, $discount ?? $this->discount());
    }

    /** An equal figure stays the one it was, so that only what is different is written and planned again. */
    private static function kept(BigDecimal $was, BigDecimal $is): BigDecimal
    {
        return $was->isEqualTo($is) ? $was : $is;
    }

    private function objectionTo(BigDecimal $packs): ?string
    {
        $rule = $this->offer?->rule();
        $others = $this->boughtTogether()->minus($this->packs);

        return $others->isZero()
            ? $rule?->objectionTo($packs)
            : $rule?->objectionToPart($packs) ?? $rule?->objectionTo($packs->plus($others));
    }

    /** @throws InvalidValue if more is taken off than it is */
    private function priceAt(BigDecimal $listPrice, PriceDiscount $discount): void
    {
        $this->price = self::kept($this->price, $discount->off($listPrice));
        $this->listPrice = self::kept($this->listPrice, $listPrice);
        $this->discountPercent = self::kept($this->discountPercent, $discount->percent);
        $this->discountEach = self::kept($this->discountEach, $discount->each);
        $packs = $this->boughtTogether();
        $agreed = true === $this->offer?->prices()->priceFor($packs)->isEqualTo($listPrice);
        $this->pricedBy = $agreed ? $this->offer->agreedFor($packs) : '';
    }

    /** "Winter co-op: 5 %", or empty. */
    public function pricedBy(): string
    {
        return $this->pricedBy;
    }

    /**
     * @param Tax|null $tax null for the order's
     *
     * @throws Refused if the order is no longer a draft
     */
    public function taxAs(?Tax $tax): void
    {
        $this->order->mustBeEditable();
        $own = null === $tax || $tax->key() === $this->order->tax()->key() ? null : $tax;
        $this->taxCategory = $own?->category;
        $this->taxPercent = $own?->percent;
    }

    /** @throws Refused if the order is no longer a draft */
    public function say(string $toThem, string $toUs): void
    {
        $this->order->mustBeEditable();
        $this->noteToThem = trim($toThem);
        $this->noteToUs = trim($toUs);
    }

    /**
     * Whom it is for; goods are for a customer who was promised them, what is not stocked for somebody here.
     *
     * @throws InvalidValue if other goods were promised
     * @throws Refused      if the order is no longer a draft
     */
    public function isFor(?CustomerPromise $promise, string $costAccount, string $forWhom): void
    {
        $this->order->mustBeEditable();
        if (null !== $promise && $promise->item !== $this->item) {
            throw InvalidValue::because(
                sprintf('%s was promised %s.', $promise->customer(), $promise->item->name()),
            );
        }
        $this->promise = $promise;
        $this->costAccount = trim($costAccount);
        $this->forWhom = trim($forWhom);
    }

    public function promise(): ?CustomerPromise
    {
        return $this->promise;
    }

    public function costAccount(): string
    {
        return $this->costAccount;
    }

    public function forWhom(): string
    {
        return $this->forWhom;
    }

    /** Whether it goes into stock; else its cost goes to somebody. */
    public function isStocked(): bool
    {
        return true === $this->item?->isStocked();
    }

    /**
     * As the supplier offered to deliver it: their own rules need not be kept.
     *
     * @throws InvalidValue if more has come
     * @throws Refused      unless the order is being revised
     */
    public function agreeTo(BigDecimal $packs, BigDecimal $price): void
    {
        $this->order->mustBeEditable();
        if ($packs->isLessThan($this->received->plus($this->closedShort))) {
            throw InvalidValue::because(sprintf('More than %s of %s have come.', $packs, $this->description));
        }
        $this->packs = $packs;
        $this->priceAt($price, PriceDiscount::none());
    }

    /**
     * @param \DateTimeImmutable|null $day null for the order's
     *
     * @throws Refused if the order is no longer a draft
     */
    public function wantFor(?\DateTimeImmutable $day): void
    {
        $this->order->mustBeEditable();
        $this->wantedOn = Day::isSame($day, $this->order->wantedOn()) ? null : $day;
    }

    /**
     * @param \DateTimeImmutable|null $day null for the one that holds for the order
     *
     * @throws Refused if nothing is to come on the order
     */
    public function promiseFor(?\DateTimeImmutable $day): void
    {
        $this->order->mustBeOpen();
        $this->promisedOn = $day;
    }

    public function wantedOn(): \DateTimeImmutable
    {
        return $this->wantedOn ?? $this->order->wantedOn();
    }

    public function hasOwnDay(): bool
    {
        return null !== $this->wantedOn;
    }

    public function promisedOn(): ?\DateTimeImmutable
    {
        return $this->promisedOn ?? $this->order->promisedOn();
    }

    /** The view open_line says the same. */
    public function dueOn(): \DateTimeImmutable
    {
        return $this->promisedOn() ?? $this->wantedOn();
    }

    /**
     * The supplier's code, on the line and on the offer it comes from.
     *
     * @throws Refused if the order is no longer a draft
     */
    public function recode(string $supplierCode): void
    {
        $this->order->mustBeEditable();
        $this->supplierCode = trim($supplierCode);
        $this->offer?->recode($supplierCode);
    }

    /**
     * @throws InvalidValue if it is not above 0
     * @throws Refused      if nothing is to come on the order
     */
    public function receive(BigDecimal $packs): void
    {
        $this->order->mustBeOpen();
        if (!$packs->isPositive()) {
            throw InvalidValue::because(
                sprintf('%s %s were received of %s; expected above 0.', $packs, $this->packName, $this->description),
            );
        }
        $this->received = $this->received->plus($packs);
        if ($this->consigned) {
            $this->stillTheirs = $this->stillTheirs->plus($packs);
        }
    }

    public function isConsigned(): bool
    {
        return $this->consigned;
    }

    public function stillTheirs(): BigDecimal
    {
        return $this->stillTheirs;
    }

    /**
     * Packs become ours, or go back to whose they are.
     *
     * @throws InvalidValue if no more are theirs
     */
    public function takeOver(BigDecimal $packs): void
    {
        if ($packs->isNegative() || $packs->isGreaterThan($this->stillTheirs)) {
            throw InvalidValue::because(
                sprintf('%s of %s are not theirs; %s are.', $packs, $this->description, $this->stillTheirs),
            );
        }
        $this->stillTheirs = $this->stillTheirs->minus($packs);
    }

    /**
     * Of what came some went back and is to be sent once more: it is expected again.
     *
     * @throws InvalidValue if no more came
     */
    public function comesAgain(BigDecimal $packs): void
    {
        if (!$packs->isPositive() || $packs->isGreaterThan($this->received)) {
            throw InvalidValue::because(
                sprintf('%s of %s cannot come again; %s came.', $packs, $this->description, $this->received),
            );
        }
        $this->received = $this->received->minus($packs);
        $this->stillTheirs = BigDecimal::max($this->stillTheirs->minus($packs), BigDecimal::zero());
        $this->order->isExpectedAgain();
    }

    /**
     * Gives up what is outstanding.
     *
     * @throws Refused if nothing is to come on the order
     */
    public function closeShort(): void
    {
        $this->order->mustBeOpen();
        $this->closedShort = $this->closedShort->plus($this->outstanding());
    }

    /** Takes back what was given up. */
    public function reopen(): void
    {
        $this->closedShort = BigDecimal::zero();
    }

    /** Packs still to come. */
    public function outstanding(): BigDecimal
    {
        return BigDecimal::max($this->packs->minus($this->received)->minus($this->closedShort), BigDecimal::zero());
    }

    public function pack(): Pack
    {
        return Pack::of($this->packName, $this->packContent);
    }

    public function total(): Money
    {
        return Money::of($this->packs->multipliedBy($this->price), $this->order->currency)->rounded();
    }

    /** As the offer says, else as the item does. */
    public function customsNumber(): string
    {
        return $this->offer?->tariffNumber() ?: $this->item?->customsNumber() ?? '';
    }

    /** ISO 3166 of where it comes from: as the offer says, else as the item does. */
    public function origin(): string
    {
        return $this->offer?->origin() ?: $this->item?->origin() ?? '';
    }

    public function weightKg(): BigDecimal
    {
        return ($this->item?->weightKg() ?? BigDecimal::zero())
            ->multipliedBy($this->packContent)
            ->multipliedBy($this->packs);
    }

    public function supplierCode(): string
    {
        return $this->supplierCode;
    }

    public function packs(): BigDecimal
    {
        return $this->packs;
    }

    /** Of one pack, after the discount. */
    public function price(): BigDecimal
    {
        return $this->price;
    }

    public function listPrice(): BigDecimal
    {
        return $this->listPrice;
    }

    public function discount(): PriceDiscount
    {
        return $this->discountEach->isZero()
            ? PriceDiscount::percent($this->discountPercent)
            : PriceDiscount::each($this->discountEach);
    }

    public function tax(): Tax
    {
        return null === $this->taxCategory || null === $this->taxPercent
            ? $this->order->tax()
            : Tax::of($this->taxCategory, $this->taxPercent);
    }

    public function hasOwnTax(): bool
    {
        return null !== $this->taxCategory;
    }

    public function noteToThem(): string
    {
        return $this->noteToThem;
    }

    public function noteToUs(): string
    {
        return $this->noteToUs;
    }

    public function received(): BigDecimal
    {
        return $this->received;
    }

    /** Packs that are owed for on invoices. */
    public function invoiced(): BigDecimal
    {
        return $this->invoiced;
    }

    public function closedShort(): BigDecimal
    {
        return $this->closedShort;
    }

    public function moves(): Moves
    {
        return Moves::items($this->item);
    }
}
