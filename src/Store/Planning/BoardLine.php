<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Sourcing\AgreedPrices;
use TallBarrel\Store\Offer\StoredPrices;

/**
 * A proposal as it stands on the board: read only, from one row.
 *
 * @phpstan-type Row array{id: int, item_code: string, item_name: string, category: string, site: string,
 *      reason: string, packs: string, proposed_before: string|null, split_packs: string|null,
 *      split_supplier: string|null, chosen: int, cut: int, odd: string, moves: string, value: string,
 *      cover_days: float|null, forecast_per_week: float, safety_stock: float, reorder_point: float, order_up_to: float,
 *      on_hand: float, coming: float, arrival: string, arrives_in: int, facts: string, forecast: string,
 *      offer_id: int|null, supplier_id: int|null, pack_name: string|null, pack_content: string|null,
 *      currency: string|null, draft: string|null, break_kind: string|null, break_basis: string|null,
 *      discounts: string|null, prices: string|null, price_content: string|null, price_supplier: int|null,
 *      price_item: int|null, price_trade: string|null, price_group: string|null, last_paid: string|null}
 * @phpstan-import-type Move from SavedProposal
 * @phpstan-import-type EvidenceData from \TallBarrel\Core\Replenish\Evidence
 * @phpstan-import-type NoteData from Note
 * @phpstan-import-type ForecastData from Forecast
 */
final readonly class BoardLine
{
    public int $id;
    public string $itemCode;
    public string $itemName;
    public string $category;
    public string $site;
    public Reason $reason;
    /** What will be ordered, in packs. */
    public BigDecimal $packs;
    public ?BigDecimal $proposedBefore;
    public ?int $offerId;
    public ?int $supplierId;
    /** Number of the draft it went into. */
    public ?string $draft;
    public ?float $coverDays;
    public float $forecastPerWeek;
    public float $safetyStock;
    public float $reorderPoint;
    public float $orderUpTo;
    public float $onHand;
    public float $coming;
    /** When an order sent now would be here, and in how many days. */
    public \DateTimeImmutable $arrival;
    public int $arrivesIn;
    public bool $isCut;

    /** @param Row $row */
    public function __construct(private array $row, private AgreedPrices $agreed)
    {
        $this->id = $row['id'];
        $this->itemCode = $row['item_code'];
        $this->itemName = $row['item_name'];
        $this->category = $row['category'];
        $this->site = $row['site'];
        $this->reason = Reason::from($row['reason']);
        $this->packs = BigDecimal::of($row['packs'])->strippedOfTrailingZeros();
        $this->proposedBefore = BigDecimal::ofNullable($row['proposed_before']);
        $this->offerId = $row['offer_id'];
        $this->supplierId = $row['supplier_id'];
        $this->draft = $row['draft'];
        $this->coverDays = $row['cover_days'];
        $this->forecastPerWeek = $row['forecast_per_week'];
        $this->safetyStock = $row['safety_stock'];
        $this->reorderPoint = $row['reorder_point'];
        $this->orderUpTo = $row['order_up_to'];
        $this->onHand = $row['on_hand'];
        $this->coming = $row['coming'];
        $this->arrival = new \DateTimeImmutable($row['arrival']);
        $this->arrivesIn = $row['arrives_in'];
        $this->isCut = 1 === $row['cut'];
    }

    /** Whether its quantity can still be changed here. */
    public function isOpen(): bool
    {
        return null === $this->draft && null !== $this->offerId;
    }

    public function isChosen(): bool
    {
        return $this->isOpen() && 1 === $this->row['chosen'];
    }

    public function pack(): ?Pack
    {
        return null === $this->row['pack_name'] || null === $this->row['pack_content']
            ? null
            : Pack::of($this->row['pack_name'], $this->row['pack_content']);
    }

    /** What the packs cost, in the supplier's currency. */
    public function value(): ?Money
    {
        return null === $this->row['currency'] ? null : Money::of($this->row['value'], $this->row['currency']);
    }

    /** Of one pack at this quantity. */
    public function price(): ?Money
    {
        $prices = StoredPrices::read($this->row, $this->agreed);

        return null === $prices || null === $this->row['currency']
            ? null
            : Money::of($prices->priceFor($this->packs), $this->row['currency']);
    }

    /** For one pack, the last time. */
    public function lastPaid(): ?BigDecimal
    {
        return BigDecimal::ofNullable($this->row['last_paid']);
    }

    /** @return array{BigDecimal, string}|null packs bought from a second supplier, and its name */
    public function splitOff(): ?array
    {
        return null === $this->row['split_packs'] || null === $this->row['split_supplier']
            ? null
            : [BigDecimal::of($this->row['split_packs']), $this->row['split_supplier']];
    }

    /** @return list<Note> what to look at twice */
    public function odd(): array
    {
        /** @var list<NoteData> $odd */
        $odd = json_decode($this->row['odd'], true, flags: \JSON_THROW_ON_ERROR);

        return array_map(Note::fromArray(...), $odd);
    }

    /** @return list<Move> what other sites could give */
    public function moves(): array
    {
        /** @var list<Move> $moves */
        $moves = json_decode($this->row['moves'], true, flags: \JSON_THROW_ON_ERROR);

        return $moves;
    }

    /** @return EvidenceData what the run saw */
    public function seen(): array
    {
        /** @var EvidenceData $seen */
        $seen = json_decode($this->row['facts'], true, flags: \JSON_THROW_ON_ERROR);

        return $seen;
    }

    public function forecast(): Forecast
    {
        /** @var ForecastData $data */
        $data = json_decode($this->row['forecast'], true, flags: \JSON_THROW_ON_ERROR);

        return Forecast::fromArray($data);
    }
}
