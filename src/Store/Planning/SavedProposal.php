<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Doctrine\ORM\Mapping as ORM;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Refused;
use TallBarrel\Core\Replenish\Explanation;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Type\BigDecimalType;

/**
 * What the last planning run found for one item at one site, with its explanation, and what a person made of it.
 *
 * @phpstan-import-type Data from Explanation
 *
 * @phpstan-type ForecastData array{method: string, weeks: list<float>, sigma: float, offBy: float|null}
 * @phpstan-type Facts array{sold: list<float>, onHand: float, promised: float, arrivals: list<array{string, float, string}>, arrival: string}
 */
#[ORM\Entity]
#[ORM\Table(name: 'proposal')]
#[ORM\UniqueConstraint(name: 'proposal_once', columns: ['item_id', 'site_id'])]
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
    public readonly ?Offer $offer;

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

    /** Days the stock on hand lasts; null where nothing sells. */
    #[ORM\Column(nullable: true)]
    public readonly ?float $coverDays;

    #[ORM\Column]
    public readonly float $forecastPerWeek;

    /** @var Data */
    #[ORM\Column(type: 'json')]
    private array $explanation;

    /** @var ForecastData */
    #[ORM\Column(type: 'json')]
    private array $forecast;

    /** @var Facts */
    #[ORM\Column(type: 'json')]
    private array $facts;

    /** The draft this proposal went into. */
    #[ORM\ManyToOne]
    private ?PurchaseOrder $draft = null;

    private function __construct()
    {
        throw new \LogicException('Proposals are written in bulk by the planning run.');
    }

    /**
     * @throws InvalidValue if the supplier does not sell such a quantity
     * @throws Refused      if it has been drafted already
     */
    public function order(BigDecimal $packs): void
    {
        $this->mustBeOpen();
        $objection = $this->offer?->rule()->objectionTo($packs);
        if (null !== $objection) {
            throw InvalidValue::because($objection);
        }
        $this->packs = $packs;
        $this->chosen = $packs->isPositive();
    }

    public function choose(bool $chosen): void
    {
        $this->mustBeOpen();
        $this->chosen = $chosen && $this->packs->isPositive();
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
        return new Forecast($this->forecast['method'], array_map(floatval(...), $this->forecast['weeks']), (float) $this->forecast['sigma'], $this->forecast['offBy']);
    }

    /**
     * @param Facts $facts
     *
     * @return list<OpenOrder>
     */
    public static function openOrders(array $facts): array
    {
        return array_map(static fn (array $order): OpenOrder => new OpenOrder($order[0], BigDecimal::of(number_format($order[1], 3, '.', '')), new \DateTimeImmutable($order[2])), $facts['arrivals']);
    }

    /** @return Facts the stock the run saw: weekly sales, on hand, promised, open orders (number, stock units, day), arrival */
    public function facts(): array
    {
        return $this->facts;
    }
}
