<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Stage;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\Evidence;
use TallBarrel\Core\Replenish\Explanation;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;
use TallBarrel\Store\Type\JsonTextType;

/**
 * What the last planning run found for one item at one site, with its explanation, and what a person made of it.
 *
 * @phpstan-import-type Data from Explanation
 * @phpstan-import-type ForecastData from Forecast
 * @phpstan-import-type EvidenceData from Evidence
 * @phpstan-import-type NoteData from Note
 * @phpstan-type Move array{site: int, units: float, saves: float, risks: float}
 */
#[ORM\Entity]
#[ORM\Table(name: 'proposal')]
#[ORM\UniqueConstraint(name: 'proposal_once', columns: ['item_id', 'site_id'])]
#[ORM\Index(
    name: 'proposal_outline',
    columns: [
        'listed',
        'site_id',
        'item_id',
        'offer_id',
        'draft_id',
        'reason',
        'chosen',
        'cut',
        'cover_days',
        'home_value',
        'value',
        'weight_kg',
        'doubt',
        'at_risk',
    ],
),]
#[ORM\Index(name: 'proposal_leaning', columns: ['leaning'])]
#[ORM\Index(name: 'proposal_out', columns: ['out_in_days', 'sales_at_risk'])]
class SavedProposal
{
    #[ORM\Id, ORM\Column, ORM\GeneratedValue]
    public readonly int $id;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
    public readonly PlanningRun $run;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
    public readonly Item $item;

    #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)]
    public readonly Site $site;

    #[ORM\ManyToOne]
    private ?Offer $offer = null;

    /** A second supplier, where somebody split it between two. */
    #[ORM\ManyToOne]
    private ?Offer $splitOffer = null;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    private ?BigDecimal $splitPacks = null;

    #[ORM\Column(length: 30, enumType: Reason::class)]
    public readonly Reason $reason;

    /** What the rule came to, in packs. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    public readonly BigDecimal $proposed;

    /** What will be ordered, in packs: as proposed until a person types another quantity. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3)]
    private BigDecimal $packs;

    #[ORM\Column]
    private bool $chosen;

    /** Whether it stands on the board. */
    #[ORM\Column]
    public readonly bool $listed;

    /** Somebody changed the quantity, the supplier or the tick. */
    #[ORM\Column(options: ['default' => false])]
    private bool $touched = false;

    /** What the rule came to in the run before, where that was something else. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 3, nullable: true)]
    public readonly ?BigDecimal $proposedBefore;

    /** Of the packs to be ordered, in the supplier's currency. */
    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)]
    private BigDecimal $value;

    #[ORM\Column(type: BigDecimalType::NAME, precision: 14, scale: 2)]
    private BigDecimal $homeValue;

    #[ORM\Column]
    private float $weightKg;

    /** Deviation of four weeks' forecast error over what is expected in them. */
    #[ORM\Column]
    public readonly float $doubt;

    /** Margin lost, expected, if it is not ordered now but at the next chance; home currency. */
    #[ORM\Column]
    public readonly float $atRisk;

    #[ORM\Column(nullable: true)]
    public readonly ?float $dueInDays;

    /** Days until nothing is left, if that is before an order sent now could be here. */
    #[ORM\Column(nullable: true)]
    public readonly ?int $outInDays;

    /** Sales that would be missed until then, home currency. */
    #[ORM\Column]
    public readonly float $salesAtRisk;

    /** Money a week by which a forecast that leans one way goes astray, home currency; null where it does not lean. */
    #[ORM\Column(nullable: true)]
    public readonly ?float $leaning;

    /** Class of value and pattern of demand, such as "A-smooth". */
    #[ORM\Column(length: 20)]
    public readonly string $class;

    #[ORM\Column(length: 10, enumType: Stage::class)]
    public readonly Stage $stage;

    #[ORM\Column(length: 20, enumType: PolicyKind::class)]
    public readonly PolicyKind $policy;

    /** @var list<NoteData> what to look at twice */
    #[ORM\Column(type: JsonTextType::NAME)]
    private array $odd = [];

    /** @var list<Move> what other sites could give */
    #[ORM\Column(type: JsonTextType::NAME)]
    private array $moves = [];

    /** Left out to stay within the month's budget. */
    #[ORM\Column(options: ['default' => false])]
    private bool $cut = false;

    #[ORM\Column(length: 40, options: ['default' => ''])]
    public readonly string $forecastKey;

    /** Days the stock on hand lasts; null where nothing sells. */
    #[ORM\Column(nullable: true)]
    public readonly ?float $coverDays;

    #[ORM\Column]
    public readonly float $forecastPerWeek;

    #[ORM\Column(options: ['default' => 0])]
    public readonly float $safetyStock;
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $reorderPoint;
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $orderUpTo;
    /** Available stock units when it was planned. */
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $onHand;
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $promised;
    /** Stock units on open orders that are counted on. */
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $coming;
    /** When an order sent now would be here. */
    #[ORM\Column(type: 'date_immutable', options: ['default' => '1000-01-01'])]
    public readonly \DateTimeImmutable $arrival;
    /** Share by which the forecast has been too high; below zero, too low. */
    #[ORM\Column(options: ['default' => 0])]
    public readonly float $bias;
    /** @var Data */
    #[ORM\Column(type: JsonTextType::NAME)]
    private array $explanation;

    /** @var ForecastData */
    #[ORM\Column(type: JsonTextType::NAME)]
    private array $forecast;

    /** @var EvidenceData */
    #[ORM\Column(name: 'facts', type: JsonTextType::NAME)]
    private array $evidence;

    /** The draft this proposal went into. */
    #[ORM\ManyToOne]
    private ?PurchaseOrder $draft = null;

    private function __construct()
    {
        throw new \LogicException('Proposals are written in bulk by the planning run.');
    }

    /**
     * @throws InvalidValue if the supplier does not sell such a quantity, or there is no rate for its currency
     * @throws Refused      if it has been drafted already
     */
    public function order(BigDecimal $packs, ?ExchangeRate $rate): void
    {
        $this->mustBeOpen();
        $objection = $this->offer?->rule()->objectionTo($packs);
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        $this->packs = $packs;
        $this->touched = true;
        $this->cut = false;
        $this->chosen = $packs->isPositive() || null !== $this->splitPacks;
        $this->weigh($rate);
    }

    public function choose(bool $chosen): void
    {
        $this->mustBeOpen();
        $this->touched = true;
        $this->cut = $this->cut && !$chosen;
        $this->chosen = $chosen && ($this->packs->isPositive() || null !== $this->splitPacks);
    }

    /** Buys from somebody else: the need in what that supplier sells. */
    public function buyFrom(Offer $offer, ?ExchangeRate $rate): void
    {
        $this->mustBeOpen();
        if ($offer->item !== $this->item) {
            throw new Refused(sprintf('%s does not offer %s.', $offer->supplier->name(), $this->item->code));
        }
        $units = $this->units();
        $this->offer = $offer;
        $this->splitOffer = $this->splitPacks = null;
        $this->packs = $offer->rule()->packsFor($units);
        $this->touched = true;
        $this->weigh($rate);
    }

    /** Part of it from a second supplier; 0 packs ends the split. */
    public function split(Offer $other, BigDecimal $packs, ?ExchangeRate $rate): void
    {
        $this->mustBeOpen();
        if ($other->item !== $this->item || $other === $this->offer) {
            throw new Refused(
                sprintf('%s cannot be the second supplier of %s.', $other->supplier->name(), $this->item->code),
            );
        }
        $objection = $other->rule()->objectionTo($packs);
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        if (null !== $this->offer && $packs->isPositive()) {
            // The first supplier keeps the rest.
            $rest = $this->units()->minus($other->rule()->pack->toStockUnits($packs));
            $this->packs = $this->offer->rule()->packsFor($rest);
        }
        $this->splitOffer = $packs->isPositive() ? $other : null;
        $this->splitPacks = $packs->isPositive() ? $packs : null;
        $this->touched = true;
        $this->chosen = $this->packs->isPositive() || $packs->isPositive();
        $this->weigh($rate);
    }

    private function weigh(?ExchangeRate $rate): void
    {
        $money =
            null === $this->offer
                ? null
                : Money::of($this->offer->prices()->priceFor($this->packs), $this->offer->supplier->currency())
                    ->multipliedBy($this->packs)
                    ->rounded();
        $this->value = $money->amount ?? BigDecimal::zero();
        $this->homeValue =
            null === $money || null === $rate
                ? BigDecimal::zero()
                : $rate->toHome($money)->rounded()->amount->toScale(2, RoundingMode::HalfUp);
        $this->weightKg = ($this->item->weightKg()?->toFloat() ?? 0.0) * $this->units()->toFloat();
    }

    public function drafted(PurchaseOrder $order): void
    {
        $this->mustBeOpen();
        $this->draft = $order;
        $this->chosen = false;
    }

    private function mustBeOpen(): void
    {
        if (null !== $this->draft) {
            throw new Refused(sprintf('%s is already on %s.', $this->item->code, $this->draft->number));
        }
    }

    public function packs(): BigDecimal
    {
        return $this->packs;
    }

    /** Stock units of the packs from the first supplier. */
    public function units(): BigDecimal
    {
        return $this->offer?->rule()->pack->toStockUnits($this->packs) ?? BigDecimal::zero();
    }

    public function offer(): ?Offer
    {
        return $this->offer;
    }

    /** @return array{Offer, BigDecimal}|null the second supplier's offer, and the packs to buy there */
    public function splitOff(): ?array
    {
        return null === $this->splitOffer || null === $this->splitPacks ? null : [$this->splitOffer, $this->splitPacks];
    }

    public function line(): ?Money
    {
        return null === $this->offer ? null : Money::of($this->value, $this->offer->supplier->currency());
    }

    public function isCut(): bool
    {
        return $this->cut;
    }

    /** @return list<Note> */
    public function odd(): array
    {
        return array_map(Note::fromArray(...), $this->odd);
    }

    /** @return list<Move> */
    public function moves(): array
    {
        return $this->moves;
    }

    public function weightKg(): float
    {
        return $this->weightKg;
    }

    public function isChosen(): bool
    {
        return $this->chosen;
    }

    public function draft(): ?PurchaseOrder
    {
        return $this->draft;
    }

    public function explanation(): Explanation
    {
        return Explanation::fromArray($this->explanation);
    }

    public function forecast(): Forecast
    {
        return Forecast::fromArray($this->forecast);
    }

    /** What was to come when it was planned, counted on as of a day. */
    public function comingOn(\DateTimeImmutable $today): Coming
    {
        return Coming::of($this->evidence($today)->arrivals, $today);
    }

    /** What the run saw. */
    public function evidence(\DateTimeImmutable $today): Evidence
    {
        return Evidence::fromArray($this->evidence, $today->getTimezone());
    }
}
