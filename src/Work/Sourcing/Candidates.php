<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Core\Settling\ExpectedCharges;
use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Settle\LandedCharges;
use TallBarrel\Store\Supplier\Supplier;

/** Finds who could be bought from, and how what is bought is used up. */
final class Candidates
{
    /** @var array<int, SupplierTerms>|null */
    private ?array $suppliers = null;
    /** @var array<string, ExchangeRate>|null */
    private ?array $inForce = null;
    /** @var array<int, array{int, BigDecimal, BigDecimal}> what freight came to, by supplier */
    private array $freight = [];
    /** @var array<int, Seller> by supplier */
    private array $sellers = [];
    /** @var array<int, list<Offer>> all that is offered, by item */
    private array $offered = [];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Connection $connection,
        private readonly Rates $rates,
        private readonly PlanningData $planning,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * Offers in force today, in a currency there is a rate for.
     *
     * @param list<int> $items
     * @param bool      $withOthers whether what is chosen on Reorder for a supplier goes on the same order
     *
     * @return array<int, list<Candidate>> by item
     */
    public function of(array $items, bool $withOthers = true): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $rates = $this->inForce ??= $this->rates->allOn($today);
        $others = $this->readSuppliers($withOthers ? $items : null);
        $found = [];
        $this->offered = array_fill_keys($items, []) + $this->offered;
        foreach ($this->offers($items) as $offer) {
            $this->offered[$offer->item->id][] = $offer;
            $rate = $rates[$offer->supplier->currency()->code] ?? null;
            if (null !== $rate && $offer->isInForce($today)) {
                $found[$offer->item->id][] = new Candidate(
                    $offer,
                    $offer->at($rate),
                    $this->seller($offer->supplier),
                    $others[$offer->supplier->id] ?? new Alongside(),
                );
            }
        }

        return $found;
    }

    /**
     * The same of many items, to compare what they cost and nothing else.
     *
     * @param list<int> $items
     *
     * @return array<int, list<array{OfferTerms, Seller, Alongside}>> by item
     */
    public function bids(array $items): array
    {
        $offers = $this->planning->offers($this->clock->now()->setTime(0, 0), $items);
        $others = $this->readSuppliers($items);
        $ids = array_map(static fn (OfferTerms $offer): int => $offer->supplierId, array_merge(...$offers));
        $sellers = [];
        foreach ($this->entities->getRepository(Supplier::class)->findBy(['id' => array_unique($ids)]) as $supplier) {
            $sellers[$supplier->id] = $this->seller($supplier);
        }

        return array_map(
            static fn (array $those): array => array_map(
                static fn (OfferTerms $offer): array => [
                    $offer,
                    $sellers[$offer->supplierId],
                    $others[$offer->supplierId] ?? new Alongside(),
                ],
                $those,
            ),
            $offers,
        );
    }

    /** @return list<array{offer: Offer, why: string}> offers that cannot be compared, with the reason */
    public function leftOut(Item $item): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $rates = $this->inForce ??= $this->rates->allOn($today);
        $left = [];
        foreach ($this->offered[$item->id] ?? $this->offers([$item->id]) as $offer) {
            $why = match (true) {
                $offer->isBlocked() => 'blocked',
                !isset($rates[$offer->supplier->currency()->code]) => sprintf(
                    'no exchange rate for %s on or before today',
                    $offer->supplier->currency()->code,
                ),
                null !== $offer->validUntil() && $offer->validUntil() < $today => 'held until '.
                    $offer->validUntil()->format('j M Y'),
                !$offer->isInForce($today) => 'holds from '.($offer->validFrom()?->format('j M Y') ?? ''),
                default => null,
            };
            if (null !== $why) {
                $left[] = ['offer' => $offer, 'why' => $why];
            }
        }

        return $left;
    }

    /**
     * How an item is used up where these proposals look: all of its sites, or one.
     *
     * @param list<SavedProposal> $places
     */
    public function usage(Item $item, array $places): Usage
    {
        $perDay = $held = 0.0;
        foreach ($places as $place) {
            $perDay += $place->forecastPerWeek / 7;
            $held += $place->onHand - $place->promised + $place->coming;
        }

        return Usage::of(
            $perDay,
            $held,
            $item->isSold() ? $item->salesPrice()?->toFloat() : null,
            ($item->averageCost() ?? $item->standardCost())?->toFloat(),
        );
    }

    /**
     * @param list<int> $items
     *
     * @return list<Offer>
     */
    private function offers(array $items): array
    {
        // Who looks at one item has it already, and few sell it: then all comes in one query.
        $one = 1 === count($items);
        if (!$one) {
            InBatches::ahead($this->entities, Offer::class, 'e.item IN (:i)', ['i' => $items], 'supplier', 'item');
        }
        $query = $this->entities
            ->createQuery(sprintf(
                'SELECT %s FROM %s o JOIN o.supplier s %s WHERE o.item IN (:items) ORDER BY o.rank, s.name%s',
                $one ? 'o, s, b' : 'o',
                Offer::class,
                $one ? 'LEFT JOIN o.breaks b' : '',
                $one ? ', o.id, b.fromPacks' : '',
            ))
            ->setParameter('items', $items);
        /** @var list<Offer> $offers */
        $offers = ($one ? $query : InBatches::read($query, Offer::class, 'breaks'))->getResult();

        return $offers;
    }

    /** What counts of a supplier, with what its freight came to before. */
    public function seller(Supplier $supplier): Seller
    {
        return $this->sellers[$supplier->id] ??= $supplier
            ->asSeller($this->suppliers()[$supplier->id]->leadTimesMet ?? [])
            ->whoseFreightCameTo($this->freightCame($supplier->id));
    }

    /** What a supplier's freight came to within a year, beside what the tariff said; 1 where that is not known. */
    private function freightCame(int $supplier): float
    {
        return isset($this->freight[$supplier])
            ? ExpectedCharges::factor(...$this->freight[$supplier])->toFloat()
            : 1.0;
    }

    /** @return array<int, SupplierTerms> */
    private function suppliers(): array
    {
        if (null === $this->suppliers) {
            $this->readSuppliers(null);
        }

        return $this->suppliers ?? [];
    }

    /**
     * How suppliers take orders and what their freight came to, once; and what goes on an order of theirs besides.
     *
     * @param list<int>|null $without items that are being compared themselves; null where nothing else goes along
     *
     * @return array<int, Alongside> what is chosen on Reorder, by supplier
     */
    private function readSuppliers(?array $without): array
    {
        $trip = new OneTrip();
        if (null === $this->suppliers) {
            PlanningData::askSuppliers($trip);
            LandedCharges::askExperiences($trip, ChargeKind::Freight, $this->clock->now()->modify('today -1 year'));
        }
        if (null !== $without) {
            $trip->ask(
                'alongside',
                ['supplier', 'value', 'kg', 'packs'],
                'supplier',
                'SELECT o.supplier_id supplier, SUM(p.value) value, SUM(p.weight_kg) kg, SUM(p.packs) packs
                 FROM proposal p JOIN offer o ON o.id = p.offer_id
                 WHERE p.chosen = 1 AND p.draft_id IS NULL AND p.listed = 1 AND p.item_id NOT IN (0'.
                    str_repeat(', ?', count($without)).') GROUP BY o.supplier_id',
                $without,
            );
        }
        $answers = $trip->answers($this->connection);
        if (null === $this->suppliers) {
            $this->suppliers = PlanningData::suppliersIn($answers);
            $this->freight = LandedCharges::experiencesIn($answers);
        }
        $alongside = [];
        foreach ($answers['alongside'] ?? [] as $row) {
            $alongside[(int) $row['supplier']] = new Alongside(
                (float) $row['value'],
                (float) $row['kg'],
                (float) $row['packs'],
            );
        }

        return $alongside;
    }
}
