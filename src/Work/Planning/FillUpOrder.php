<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\FillStep;
use TallBarrel\Core\Replenish\SupplierOrder;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\PriceTerms;
use TallBarrel\Store\Offer\StoredPrices;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SupplierSum;
use TallBarrel\Store\Site\Site;

/**
 * Whether a supplier's order should be filled up, sent as it is, or wait for the next chance.
 *
 * @phpstan-type Row array{id: int, supplier_id: int, due: float, per_week: float, packs: string, shelf_days: int|null,
 *      cover: float|null, weight_kg: string|null, pack_name: string, pack_content: string, minimum: string,
 *      multiple: string, split: int, break_kind: string, break_basis: string, discounts: string, prices: string|null,
 *      price_content: string, price_supplier: int, price_item: int, price_trade: string, price_group: string}
 */
final readonly class FillUpOrder
{
    private const CANDIDATES = 40;
    /** Nothing is bought more than so long before it is due. */
    private const AT_MOST_DAYS_EARLY = 56;
    private const MOST_STEPS = 40;

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Proposals $proposals,
        private Rates $rates,
        private PriceTerms $terms,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param array<int, SupplierSum> $sums by supplier
     *
     * @return array<int, FillUpAdvice> by supplier; none where nothing is asked for, or it is reached, or it is best
     *      sent as it is
     */
    public function advise(array $sums, ?Site $site): array
    {
        $thresholds = [];
        foreach ($sums as $supplier => $sum) {
            $threshold = $sum->value <= 0 ? null : Threshold::of($sum);
            if (null !== $threshold) {
                $thresholds[$supplier] = $threshold;
            }
        }
        $share = [] === $thresholds ? 0.0 : $this->business->get()->holdingPercent()->toFloat() / 100;
        $candidates = [] === $thresholds ? [] : $this->candidates($thresholds, $site);
        $advice = [];
        foreach ($thresholds as $id => $threshold) {
            $order = SupplierOrder::complete(
                $threshold->reached,
                $threshold->asked,
                $candidates[$id] ?? [],
                $threshold->saved,
                $sums[$id]->atRisk * $sums[$id]->rate(),
                $share,
            );
            if (SupplierOrder::SEND !== $order->advice) {
                $advice[$id] = new FillUpAdvice($threshold, $order);
            }
        }

        return $advice;
    }

    /**
     * Puts what the advice adds on the board, ticked.
     *
     * @return int how many lines were added or raised
     */
    public function fill(SupplierOrder $order): int
    {
        $rates = $this->rates->allOn($this->clock->now());
        foreach ($this->proposals->load(array_keys($order->fill)) as $proposal) {
            $offer = $proposal->offer();
            if (null !== $offer && null === $proposal->draft()) {
                $ticked = $proposal->isChosen() ? $proposal->packs() : BigDecimal::zero();
                $proposal->order(
                    $ticked->plus(BigDecimal::of((string) $order->fill[$proposal->id])),
                    $rates[$offer->supplier->currency()->code] ?? null,
                );
            }
        }
        $this->entities->flush();
        $this->connection->executeStatement(
            "UPDATE proposal SET listed = 1, reason = IF(reason = 'covered', 'fills-order', reason) WHERE id IN (?)",
            [array_keys($order->fill)],
            [ArrayParameterType::INTEGER],
        );

        return count($order->fill);
    }

    /**
     * @param array<int, Threshold> $thresholds by supplier
     *
     * @return array<int, array<int, iterable<FillStep>>> by supplier and proposal
     */
    private function candidates(array $thresholds, ?Site $site): array
    {
        /** @var list<Row> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT soonest.*, o.pack_name, o.pack_content, o.minimum, o.multiple, o.split, '.
                StoredPrices::COLUMNS.
                " FROM (
                SELECT p.id, p.offer_id, o.supplier_id, p.forecast_per_week per_week, i.shelf_days, i.weight_kg,
                    p.cover_days cover, IF(p.chosen = 1, p.packs, 0) packs,
                    p.due_in_days + IF(p.chosen = 1, 7 * p.packs * o.pack_content / p.forecast_per_week, 0) due,
                    ROW_NUMBER() OVER (PARTITION BY o.supplier_id ORDER BY p.due_in_days
                        + IF(p.chosen = 1, 7 * p.packs * o.pack_content / p.forecast_per_week, 0), p.id) place
                FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN item i ON i.id = p.item_id
                WHERE o.supplier_id IN (:suppliers) AND p.draft_id IS NULL AND p.cut = 0 AND p.forecast_per_week > 0
                  AND p.due_in_days IS NOT NULL AND (:site IS NULL OR p.site_id = :site) AND p.stage <> 'dead'
                  AND NOT EXISTS (SELECT 1 FROM put_off f WHERE f.item_id = p.item_id AND f.site_id = p.site_id
                      AND f.until_day > :today)
             ) soonest JOIN offer o ON o.id = soonest.offer_id
             WHERE place <= ".
                self::CANDIDATES.
                ' AND due <= '.
                self::AT_MOST_DAYS_EARLY,
            [
                'suppliers' => array_keys($thresholds),
                'site' => $site?->id,
                'today' => $this->clock->now()->format('Y-m-d'),
            ],
            ['suppliers' => ArrayParameterType::INTEGER],
        );
        $candidates = [];
        foreach ($rows as $row) {
            $prices = StoredPrices::read($row, $this->terms->today());
            if (null !== $prices) {
                $candidates[$row['supplier_id']][$row['id']] = self::steps(
                    $row,
                    $prices,
                    $thresholds[$row['supplier_id']],
                );
            }
        }

        return $candidates;
    }

    /**
     * What could be added of one item, as much at a time as its supplier allows, at the prices that hold then.
     *
     * @param Row $row
     *
     * @return iterable<FillStep>
     */
    private static function steps(array $row, PriceBreaks $prices, Threshold $threshold): iterable
    {
        $rule = BuyingRule::of(
            Pack::of($row['pack_name'], $row['pack_content']),
            $row['minimum'],
            $row['multiple'],
            1 === $row['split'],
        );
        $content = $rule->pack->content->toFloat();
        $perDay = $row['per_week'] / 7;
        $early = min(self::AT_MOST_DAYS_EARLY, ($row['shelf_days'] ?? 9999) - (float) $row['cover']);
        $value = static fn (BigDecimal $packs): float => $packs->isZero()
            ? 0.0
            : $packs->toFloat() * $prices->priceFor($packs)->toFloat();
        $measured = $added = 0.0;
        $packs = $from = BigDecimal::of($row['packs']);
        $spent = $value($from);
        for ($step = 0; $step < self::MOST_STEPS; ++$step) {
            if ($row['due'] + $added / $perDay > $early || $measured >= $threshold->asked - $threshold->reached) {
                break;
            }
            $next = $rule->packsFor($rule->pack->toStockUnits($packs->plus(1)));
            $units = $next->minus($packs)->toFloat() * $content;
            $days = $row['due'] + ($added + $units / 2) / $perDay;
            $new = $next->minus($from)->toFloat();
            $worth = $value($next);
            $measure = match ($threshold->measure) {
                Threshold::VALUE => $worth - $spent,
                Threshold::WEIGHT => $new * $content * (float) $row['weight_kg'],
                default => $new,
            };
            $added += $units;
            $packs = $next;
            // Just before a price break more packs can cost less: such a step goes together with the next.
            if ($worth > $spent && $measure > 0) {
                yield new FillStep($new, $measure, $worth - $spent, $days);
                $measured += $measure;
                $from = $next;
                $spent = $worth;
            }
        }
    }
}
