<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\Common\Collections\ArrayCollection;
use Doctrine\Common\Collections\Collection;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Day;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\Costing;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Ordering\Readiness;
use TallBarrel\Core\Ordering\Shipping;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Ordering\SpentLately;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Sourcing\Incoterm;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\Moves;
use TallBarrel\Store\Planning\PlanningRestsOnIt;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * What we send to a supplier.
 *
 * @phpstan-import-type AllowanceChargeData from AllowanceCharge
 */
#[ORM\Entity]
#[ORM\Index(columns: ['state', 'wanted_on'], name: 'order_by_state')]
class PurchaseOrder implements PlanningRestsOnIt
{
    private const LINK_DAYS_OPEN = 365;
    private const LINK_DAYS_ENDED = 60;

    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\Version, ORM\Column(type: 'integer')]
    private int $version = 1;

    #[ORM\Column(length: 20, enumType: OrderState::class)]
    private OrderState $state = OrderState::Draft;

    #[ORM\Column(length: 3)]
    public readonly string $currency;

    /** How many of the order's currency one of the home currency buys. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 18, scale: 8)]
    private BigDecimal $foreignForOne;

    #[ORM\Column(length: 3)]
    private string $homeCurrency;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 5, scale: 2)]
    private BigDecimal $taxPercent;

    #[ORM\Column(length: 2, enumType: TaxCategory::class)]
    private TaxCategory $taxCategory;

    /** @var list<AllowanceChargeData> charges on all of it and allowances off it */
    #[ORM\Column(type: 'json')]
    private array $adjustments = [];

    /** Where it goes, where that is none of the sites. */
    #[ORM\Column(length: 200)]
    private string $deliverTo = '';

    /** Who carries it, and how. */
    #[ORM\Column(length: 60)]
    private string $carrier = '';

    /** Incoterm 2020 and place; the supplier's usual ones until another is agreed. */
    #[ORM\Column(length: 80, options: ['default' => ''])]
    private string $deliveryTerms;

    /** Who is paid for it, where that is not the supplier. */
    #[ORM\ManyToOne]
    private ?Supplier $paidTo = null;

    /** What it is for; ours alone. */
    #[ORM\Column(length: 60)]
    private string $project = '';

    /** What the supplier calls it. */
    #[ORM\Column(length: 40)]
    private string $theirReference = '';

    /** To ourselves, on a day. */
    #[ORM\Column(length: 200)]
    private string $reminder = '';

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $remindOn = null;

    #[ORM\Column(length: 500)]
    private string $note;

    #[ORM\Column(type: 'date_immutable', nullable: true)]
    private ?\DateTimeImmutable $promisedOn = null;

    #[ORM\Column(nullable: true)]
    private ?bool $countedOn = null;

    #[ORM\ManyToOne]
    private ?Person $approvedBy = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $approvedAt = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $sentAt = null;

    #[ORM\Column(type: 'datetime_immutable', nullable: true)]
    private ?\DateTimeImmutable $acknowledgedAt = null;

    #[ORM\Column]
    private int $revision = 0;

    /** Leads the supplier to the order without a sign-in; null until it is sent. */
    #[ORM\Column(length: 32, unique: true, nullable: true)]
    private ?string $token = null;

    /** While a revision goes in, what is fixed otherwise may change. */
    private bool $beingRevised = false;

    /** @var array<int, list<OrderLine>>|null those that come in several deliveries, by the first one's position */
    private ?array $deliveries = null;

    /** @var Collection<int, OrderLine> */
    #[ORM\OneToMany(targetEntity: OrderLine::class, mappedBy: 'order', cascade: ['persist'], orphanRemoval: true)]
    #[ORM\OrderBy(['position' => 'ASC'])]
    private Collection $lines;

    public function __construct(
        #[ORM\Column(length: 20, unique: true)] public readonly string $number,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Person $buyer,
        ExchangeRate $rate,
        #[ORM\Column(type: 'date_immutable')] private \DateTimeImmutable $wantedOn,
        #[ORM\Column(type: 'datetime_immutable')] private \DateTimeImmutable $createdAt,
    ) {
        $this->currency = $supplier->currency()->code;
        $this->note = $supplier->standingNote();
        $this->deliveryTerms = $supplier->deliveryTerms();
        $this->paidTo = $supplier->paidThrough();
        $this->taxPercent = $supplier->tax()->percent;
        $this->taxCategory = $supplier->tax()->category;
        $this->adjust($supplier->standingAdjustments());
        $this->lines = new ArrayCollection();
        $this->homeCurrency = $rate->home->code;
        $this->foreignForOne = $rate->foreignForOne;
    }

    /** What its offer usually brings along is charged once, however many of its lines there are. */
    public function add(OrderLine $line): void
    {
        $this->mustBeEditable();
        $this->lines->add($line);
        $there = array_map(static fn (AllowanceCharge $one): string => $one->words(), $this->adjustments());
        $this->adjust([
            ...$this->adjustments(),
            ...array_filter(
                $line->offer?->usualCharges() ?? [],
                static fn (AllowanceCharge $one): bool => !in_array($one->words(), $there, true),
            ),
        ]);
    }

    /** What its offer usually brings along goes too, unless another line brings the same or every order has it. */
    public function remove(OrderLine $line): void
    {
        $this->mustBeEditable();
        $parts = array_values(array_filter($line->together(), static fn (OrderLine $one): bool => $one !== $line));
        $this->lines->removeElement($line);
        $this->deliveriesChanged();
        foreach (null === $line->partOf() ? $parts : [] as $part) {
            $part->isPartOf($parts[0]);
        }
        $words = static fn (AllowanceCharge $one): string => $one->words();
        $stays = array_map($words, [
            ...$this->supplier->standingAdjustments(),
            ...array_merge(...array_map(
                static fn (OrderLine $other): array => $other->offer?->usualCharges() ?? [],
                $this->lines(),
            )),
        ]);
        $goes = array_diff(array_map($words, $line->offer?->usualCharges() ?? []), $stays);
        $this->adjust(array_values(array_filter(
            $this->adjustments(),
            static fn (AllowanceCharge $one): bool => !in_array($one->words(), $goes, true),
        )));
    }

    public function change(\DateTimeImmutable $wantedOn, string $note): void
    {
        $this->mustBeEditable();
        $this->wantedOn = $wantedOn;
        $this->note = trim($note);
    }

    /** @throws Refused if it is no longer a draft */
    public function ship(Shipping $shipping): void
    {
        $this->mustBeEditable();
        $this->deliverTo = $shipping->deliverTo;
        $this->carrier = $shipping->carrier;
        $this->project = $shipping->project;
        $this->deliveryTerms = $shipping->deliveryTerms;
    }

    /**
     * @param Supplier|null $payee null for the supplier itself
     *
     * @throws Refused if it is no longer a draft
     */
    public function isPaidTo(?Supplier $payee): void
    {
        $this->mustBeEditable();
        $this->paidTo = $payee === $this->supplier ? null : $payee;
    }

    public function payee(): Supplier
    {
        return $this->paidTo ?? $this->supplier;
    }

    public function deliveryTerms(): string
    {
        return $this->deliveryTerms;
    }

    /**
     * @param list<AllowanceCharge> $adjustments all there are to be
     *
     * @throws Refused if it is no longer a draft
     */
    public function adjust(array $adjustments): void
    {
        $this->mustBeEditable();
        $this->adjustments = array_map(
            static fn (AllowanceCharge $adjustment): array => $adjustment->toArray(),
            $adjustments,
        );
    }

    /** @throws Refused if it is no longer a draft */
    public function taxAs(Tax $tax): void
    {
        $this->mustBeEditable();
        $this->taxPercent = $tax->percent;
        $this->taxCategory = $tax->category;
    }

    /** What only we read, and may change at any time. */
    public function remember(string $theirReference, string $reminder, ?\DateTimeImmutable $remindOn): void
    {
        $this->theirReference = trim($theirReference);
        $this->reminder = trim($reminder);
        $this->remindOn = $remindOn;
    }

    public function awaitApproval(): void
    {
        $this->become(OrderState::AwaitingApproval);
    }

    /**
     * @param SpendingLimit|null $limit null for the person's own
     *
     * @throws Refused if the limit does not reach so far
     */
    public function approve(Person $by, \DateTimeImmutable $at, ?SpendingLimit $limit = null): void
    {
        $limit ??= $by->limit();
        if (null !== $limit->objection($this->homeTotal()->amount, SpentLately::nothing())) {
            throw new Refused(
                sprintf(
                    '%s is over %s’s limit; somebody with a higher one has to approve it.',
                    $this->number,
                    $by->firstName(),
                ),
            );
        }
        $this->become(OrderState::Approved);
        $this->approvedBy = $by;
        $this->approvedAt = $at;
    }

    public function backToDraft(): void
    {
        $this->become(OrderState::Draft);
        $this->approvedBy = $this->approvedAt = null;
    }

    /** @throws Refused if something is missing or it has not been approved */
    public function send(\DateTimeImmutable $at): void
    {
        $readiness = $this->readiness();
        if (!$readiness->isComplete()) {
            throw new Refused(
                sprintf('%s cannot go out yet: %s.', $this->number, lcfirst($readiness->missing[0]['words'])),
            );
        }
        $this->become(OrderState::Sent);
        $this->sentAt = $at;
        $this->token ??= bin2hex(random_bytes(16));
        ++$this->revision;
    }

    /**
     * Changes what has been sent, as a revision that has to be confirmed anew.
     *
     * @param callable(): void $change what of the lines, the day and the words becomes different
     *
     * @throws Refused if nothing is to come on it
     */
    public function revise(callable $change): void
    {
        $this->mustBeOpen();
        $this->beingRevised = true;
        try {
            $change();
        } finally {
            $this->beingRevised = false;
        }
        foreach ($this->lines as $line) {
            $line->promiseFor(null);
        }
        $this->acknowledgedAt = $this->promisedOn = null;
        $this->token ??= bin2hex(random_bytes(16));
        if (OrderState::Acknowledged === $this->state) {
            $this->become(OrderState::Sent);
        }
        ++$this->revision;
        $this->settleState();
    }

    public function isBeingRevised(): bool
    {
        return $this->beingRevised;
    }

    /**
     * @param \DateTimeImmutable             $promisedOn for all of it
     * @param array<int, \DateTimeImmutable> $byLine     days of lines that come on another, by the line's id
     */
    public function acknowledge(\DateTimeImmutable $promisedOn, \DateTimeImmutable $at, array $byLine = []): void
    {
        if (OrderState::Acknowledged !== $this->state && OrderState::PartReceived !== $this->state) {
            $this->become(OrderState::Acknowledged);
        }
        $this->acknowledgedAt = $at;
        $this->promisedOn = $promisedOn;
        foreach ($this->lines as $line) {
            $day = $byLine[$line->id] ?? null;
            $line->promiseFor(Day::isSame($day, $promisedOn) ? null : $day);
        }
    }

    /**
     * They have not said yes after all.
     *
     * @throws Refused if they have not, or something has come since
     */
    public function isUnconfirmed(): void
    {
        if (OrderState::Acknowledged !== $this->state) {
            throw new Refused(
                sprintf('%s is %s; there is no yes of theirs to take back.', $this->number, $this->state->words()),
            );
        }
        foreach ($this->lines as $line) {
            $line->promiseFor(null);
        }
        $this->become(OrderState::Sent);
        $this->acknowledgedAt = $this->promisedOn = null;
    }

    /**
     * Takes back its end: what was closed short is outstanding again, what was cancelled is where it was.
     *
     * @throws Refused if it has not ended
     */
    public function reopen(): void
    {
        if (OrderState::Cancelled === $this->state && null === $this->sentAt) {
            $this->become(OrderState::Draft);

            return;
        }
        $ended = [OrderState::Cancelled, OrderState::Closed];
        $closed = array_filter($this->lines(), static fn (OrderLine $line): bool => $line->closedShort()->isPositive());
        if (!in_array($this->state, $ended, true) && [] === $closed) {
            throw new Refused(
                sprintf('%s is %s; there is nothing to open again.', $this->number, $this->state->words()),
            );
        }
        foreach ($closed as $line) {
            $line->reopen();
        }
        $came = array_filter($this->lines(), static fn (OrderLine $line): bool => $line->received()->isPositive());
        $next = match (true) {
            [] !== $came => OrderState::PartReceived,
            null !== $this->acknowledgedAt => OrderState::Acknowledged,
            default => OrderState::Sent,
        };
        if ($next !== $this->state) {
            $this->become($next);
        }
    }

    /** A person says whether planning may count on it although it is late; null leaves it to the rule. */
    public function countOn(?bool $counted): void
    {
        $this->mustBeOpen();
        $this->countedOn = $counted;
    }

    public function isCountedOn(): ?bool
    {
        return $this->countedOn;
    }

    /** After lines were received or closed short: the state follows from what is outstanding. */
    public function settleState(): void
    {
        $lines = $this->lines();
        $outstanding = array_filter($lines, static fn (OrderLine $line): bool => $line->outstanding()->isPositive());
        $received = array_filter($lines, static fn (OrderLine $line): bool => $line->received()->isPositive());
        $state = match (true) {
            [] !== $outstanding && [] !== $received => OrderState::PartReceived,
            [] !== $outstanding => $this->state,
            [] !== $received => OrderState::Received,
            default => OrderState::Closed,
        };
        if ($state !== $this->state) {
            $this->become($state);
        }
    }

    /** Something of it went back and comes once more. */
    public function isExpectedAgain(): void
    {
        $came = array_filter($this->lines(), static fn (OrderLine $line): bool => $line->received()->isPositive());
        $state = match (true) {
            [] !== $came => OrderState::PartReceived,
            null !== $this->acknowledgedAt => OrderState::Acknowledged,
            default => OrderState::Sent,
        };
        if ($state !== $this->state) {
            $this->become($state);
        }
    }

    /** @throws Refused if something has been received */
    public function cancel(): void
    {
        foreach ($this->lines as $line) {
            if ($line->received()->isPositive()) {
                throw new Refused(
                    sprintf('%s has been received in part; close what is outstanding instead.', $this->number),
                );
            }
        }
        $this->become(OrderState::Cancelled);
    }

    private function become(OrderState $next): void
    {
        if (!$this->state->canBecome($next)) {
            throw new Refused(
                sprintf('%s is %s and cannot become %s.', $this->number, $this->state->words(), $next->words()),
            );
        }
        $this->state = $next;
    }

    /**
     * Gives up what is outstanding.
     *
     * @param list<int>|null $lines ids of the lines; null for all
     *
     * @throws Refused if nothing is
     */
    public function closeShort(?array $lines = null): void
    {
        if (!$this->state->isOpen()) {
            throw new Refused(
                sprintf('%s is %s; there is nothing outstanding to close.', $this->number, $this->state->words()),
            );
        }
        foreach ($this->lines as $line) {
            if (null === $lines || in_array($line->id, $lines, true)) {
                $line->closeShort();
            }
        }
        $this->settleState();
    }

    /** @throws Refused if nothing is to come on it */
    public function mustBeOpen(): void
    {
        if (!$this->state->isOpen()) {
            throw new Refused(sprintf('%s is %s; nothing is to come on it.', $this->number, $this->state->words()));
        }
    }

    /** @throws Refused if it is no longer a draft */
    public function mustBeEditable(): void
    {
        if (!$this->state->isEditable() && !$this->beingRevised) {
            throw new Refused(sprintf('%s is %s; its lines are fixed.', $this->number, $this->state->words()));
        }
    }

    /** @return list<OrderLine> */
    public function lines(): array
    {
        $lines = array_values($this->lines->toArray());
        if (!$this->isShared()) {
            return $lines;
        }

        return array_merge(...array_map(
            $this->deliveriesOf(...),
            array_values(array_filter($lines, static fn (OrderLine $line): bool => null === $line->partOf())),
        ));
    }

    /** Whether any line comes in several deliveries. */
    public function isShared(): bool
    {
        return [] !== ($this->deliveries ??= $this->deliveries());
    }

    /** @return list<OrderLine> the line and its later deliveries */
    public function deliveriesOf(OrderLine $first): array
    {
        return ($this->deliveries ??= $this->deliveries())[$first->position] ?? [$first];
    }

    /** @return array<int, list<OrderLine>> */
    private function deliveries(): array
    {
        $deliveries = [];
        foreach ($this->lines as $line) {
            $first = $line->partOf();
            if (null !== $first) {
                $deliveries[$first->position] ??= [$first];
                $deliveries[$first->position][] = $line;
            }
        }

        return $deliveries;
    }

    /** To be said whenever a line has become part of another one, or is it no longer. */
    public function deliveriesChanged(): void
    {
        $this->deliveries = null;
    }

    public function totals(): DocumentSums
    {
        $tax = $this->tax();

        return DocumentSums::of(
            $this->currency,
            array_map(
                static fn (OrderLine $line): array => [$line->total(), $line->hasOwnTax() ? $line->tax() : $tax],
                $this->lines(),
            ),
            $this->adjustments(),
        );
    }

    /** Its lines, without what is charged or taken off and without tax; the same as the totals say. */
    public function goods(): Money
    {
        return Money::sum(
            $this->currency,
            array_map(static fn (OrderLine $line): Money => $line->total(), $this->lines()),
        )->rounded();
    }

    /** All of it without tax, in the home currency. */
    public function homeTotal(): Money
    {
        return $this->rate()->toHome($this->totals()->net)->rounded();
    }

    /** Its lines of one category of goods, without tax, in the home currency. */
    public function homeTotalOf(string $category): Money
    {
        $sum = Money::zero($this->currency);
        foreach ($this->lines as $line) {
            if (0 === strcasecmp($line->item?->category() ?? '', $category)) {
                $sum = $sum->plus($line->total());
            }
        }

        return $this->rate()->toHome($sum)->rounded();
    }

    public function rate(): ExchangeRate
    {
        return ExchangeRate::of($this->homeCurrency, $this->currency, $this->foreignForOne);
    }

    /** What it lacks of the supplier's minimum, in words; null where it reaches it. */
    public function belowMinimum(): ?string
    {
        $packs = 0.0;
        foreach ($this->lines as $line) {
            $packs += $line->packs()->toFloat();
        }

        return $this->supplier
            ->orderMinimum()
            ->shortfall($this->goods()->amount->toFloat(), $this->weightKg(), $packs);
    }

    public function readiness(): Readiness
    {
        return Readiness::of(
            $this->supplier->facts(),
            array_map(
                static fn (OrderLine $line): array => [
                    'line' => $line->position,
                    'item' => $line->item?->code,
                    'supplierCode' => $line->supplierCode(),
                ],
                $this->lines(),
            ),
        );
    }

    /** @return list<Site> where its lines are to be delivered, each once */
    public function sites(): array
    {
        $sites = [];
        foreach ($this->lines as $line) {
            $sites[$line->site->id] = $line->site;
        }

        return array_values($sites);
    }

    /** When the first of what is outstanding is due. */
    public function dueOn(): \DateTimeImmutable
    {
        $days = array_map(
            static fn (OrderLine $line): \DateTimeImmutable => $line->dueOn(),
            array_filter($this->lines(), static fn (OrderLine $line): bool => $line->outstanding()->isPositive()),
        );

        return [] === $days ? $this->promisedOn ?? $this->wantedOn : min($days);
    }

    public function token(): ?string
    {
        return $this->token;
    }

    /** The link that was sent leads nowhere from now on. */
    public function withdrawLink(): void
    {
        $this->mustBeOpen();
        $this->token = bin2hex(random_bytes(16));
    }

    /** When the supplier's link ends: some time after the goods are due, later while they are not here. */
    public function linkEnds(): \DateTimeImmutable
    {
        $days = $this->state->isOpen() ? self::LINK_DAYS_OPEN : self::LINK_DAYS_ENDED;

        return $this->dueOn()->modify(sprintf('+%d days', $days));
    }

    public function state(): OrderState
    {
        return $this->state;
    }

    public function createdAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    public function wantedOn(): \DateTimeImmutable
    {
        return $this->wantedOn;
    }

    public function promisedOn(): ?\DateTimeImmutable
    {
        return $this->promisedOn;
    }

    public function tax(): Tax
    {
        return Tax::percent($this->taxPercent, $this->taxCategory);
    }

    /** @return list<AllowanceCharge> */
    public function adjustments(): array
    {
        return array_map(AllowanceCharge::fromArray(...), $this->adjustments);
    }

    /** Litres; what is not known of an item counts nothing. */
    public function volumeLitres(): float
    {
        return array_reduce(
            $this->lines(),
            static fn (float $sum, OrderLine $line): float => $sum
                + $line->pack()->toStockUnits($line->packs())->toFloat()
                * ($line->item?->volume()?->toFloat() ?? 0.0),
            0.0,
        );
    }

    /** Pallets by weight; null where it is not known what one of the supplier's holds. */
    public function pallets(): ?int
    {
        $holds = $this->supplier->palletKg()?->toFloat() ?? 0.0;

        return $holds > 0.0 ? (int) ceil($this->weightKg() / $holds - 1e-9) : null;
    }

    public function weightKg(): float
    {
        return array_reduce(
            $this->lines(),
            static fn (float $sum, OrderLine $line): float => $sum + $line->weightKg()->toFloat(),
            0.0,
        );
    }

    /** What the terms let the supplier ask before the goods come, before tax. */
    public function depositAgreed(): Money
    {
        $net = $this->totals()->net;

        return $this->supplier->terms()?->deposit($net) ?? Money::zero($this->currency);
    }

    /** What carriage costs by the supplier's tariff, in their currency. */
    public function freight(): Money
    {
        $goods = $this->goods();

        return Money::of(
            (string) round($this->supplier->freightTariff()->of($goods->amount->toFloat(), $this->weightKg()), 6),
            $this->currency,
        )->rounded();
    }

    /** Freight by their tariff that nobody has typed as a charge. */
    public function untypedFreight(): Money
    {
        $typed = array_filter(
            $this->adjustments(),
            static fn (AllowanceCharge $one): bool => $one->isFreight(),
        );

        return [] === $typed ? $this->freight() : Money::zero($this->currency);
    }

    /** Freight as somebody typed it, or else by their tariff. */
    public function expectedFreight(): Money
    {
        $freight = $this->untypedFreight();
        foreach ($this->totals()->adjustments as $sum) {
            if ($sum->adjustment->isCharge && $sum->adjustment->isFreight()) {
                $freight = $freight->plus($sum->amount);
            }
        }

        return $freight;
    }

    /** Charges that are no freight, less allowances; never below nothing. */
    public function otherCharges(): Money
    {
        $sums = $this->totals();
        $typedFreight = $this->expectedFreight()->minus($this->untypedFreight());
        $others = $sums->charges->minus($sums->allowances)->minus($typedFreight);
        $zero = Money::zero($this->currency);

        return $others->isGreaterThan($zero) ? $others : $zero;
    }

    /** Customs duty on a line, where it is ours to pay. */
    public function dutyPercent(OrderLine $line): BigDecimal
    {
        $rule = Incoterm::tryFrom(strtoupper(explode(' ', $this->deliveryTerms)[0]));

        return true === $rule?->sellerPaysDuty() || null === $line->offer
            ? BigDecimal::zero()
            : $line->offer->dutyPercent();
    }

    /** What its lines will have cost on the shelf, in the home currency, by position. */
    public function costing(): Costing
    {
        $lines = [];
        foreach ($this->lines() as $line) {
            if ($line->packs()->isPositive()) {
                $lines[$line->position] = [
                    'goods' => $this->rate()->toHome($line->total())->rounded(),
                    'units' => $line->pack()->toStockUnits($line->packs()),
                    'dutyPercent' => $this->dutyPercent($line),
                    'soFar' => $line->item?->averageCost() ?? $line->item?->standardCost(),
                ];
            }
        }
        $sums = $this->totals();
        $charges = $sums->charges->minus($sums->allowances)->plus($this->untypedFreight());

        return Costing::of($lines, $this->rate()->toHome($charges)->rounded());
    }

    public function deliverTo(): string
    {
        return $this->deliverTo;
    }

    public function carrier(): string
    {
        return $this->carrier;
    }

    public function project(): string
    {
        return $this->project;
    }

    public function theirReference(): string
    {
        return $this->theirReference;
    }

    public function reminder(): string
    {
        return $this->reminder;
    }

    public function remindOn(): ?\DateTimeImmutable
    {
        return $this->remindOn;
    }

    public function note(): string
    {
        return $this->note;
    }

    public function approvedBy(): ?Person
    {
        return $this->approvedBy;
    }

    public function approvedAt(): ?\DateTimeImmutable
    {
        return $this->approvedAt;
    }

    public function sentAt(): ?\DateTimeImmutable
    {
        return $this->sentAt;
    }

    public function acknowledgedAt(): ?\DateTimeImmutable
    {
        return $this->acknowledgedAt;
    }

    public function revision(): int
    {
        return $this->revision;
    }

    public function version(): int
    {
        return $this->version;
    }

    public function moves(): Moves
    {
        return Moves::items(...array_map(static fn (OrderLine $line): ?Item => $line->item, $this->lines()));
    }
}
