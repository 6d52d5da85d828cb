<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Replenish\SupplierOrder;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;

/** Whether a supplier's order should be filled up, sent as it is, or wait for the next chance. */
final class FillUpOrder
{
    private const CANDIDATES = 60;
    /** Nothing is bought more than so long before it is due. */
    private const AT_MOST_DAYS_EARLY = 56;
    private const MOST_PACKS = 40;

    /** @var array<string, ExchangeRate>|null */
    private ?array $inForce = null;

    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly Proposals $proposals,
        private readonly Rates $rates,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    /**
     * @param float $value    of what is chosen, in the supplier's currency
     * @param float $weightKg of it
     * @param float $atRisk   margin lost, expected, if nothing is sent until the next chance
     *
     * @return array{what: string, order: SupplierOrder}|null null where nothing is asked for, or it is reached
     */
    public function advice(Supplier $supplier, ?Site $site, float $value, float $weightKg, float $atRisk): ?array
    {
        $minimum = $supplier->minimum()?->amount->toFloat() ?? 0.0;
        $free = $supplier->freeFreightFrom()?->amount->toFloat() ?? 0.0;
        $load = $supplier->fullLoadKg()?->toFloat() ?? 0.0;
        $share = $this->business->get()->holdingPercent->toFloat() / 100;
        $rate = ($this->inForce()[$supplier->currency()->code] ?? null)?->foreignForOne->toFloat() ?? 1.0;
        $freight = $supplier->freight()?->amount->toFloat() ?? 0.0;
        [$what, $order] = match (true) {
            $value < $minimum => [
                'minimum',
                SupplierOrder::complete(
                    $value,
                    $minimum,
                    $this->candidates($supplier, $site, false),
                    INF,
                    $atRisk * $rate,
                    $share,
                ),
            ],
            $value < $free && $freight > 0 => [
                'free freight',
                SupplierOrder::complete(
                    $value,
                    $free,
                    $this->candidates($supplier, $site, false),
                    $freight,
                    $atRisk * $rate,
                    $share,
                ),
            ],
            $weightKg < $load && $freight > 0 => [
                'full load',
                SupplierOrder::complete(
                    $weightKg,
                    $load,
                    $this->candidates($supplier, $site, true),
                    $freight,
                    $atRisk * $rate,
                    $share,
                ),
            ],
            default => ['', null],
        };

        return null === $order || SupplierOrder::SEND === $order->advice ? null : ['what' => $what, 'order' => $order];
    }

    /**
     * Puts what the advice adds on the board, ticked.
     *
     * @return int how many lines were added or raised
     */
    public function fill(SupplierOrder $order): int
    {
        $rates = $this->inForce();
        foreach ($this->proposals->load(array_keys($order->fill)) as $proposal) {
            $offer = $proposal->offer();
            if (null !== $offer && null === $proposal->draft()) {
                $packs = $proposal->packs()->plus(BigDecimal::of((string) round($order->fill[$proposal->id])));
                $proposal->order(
                    $offer->rule()->packsFor($offer->rule()->pack->toStockUnits($packs)),
                    $rates[$offer->supplier->currency()->code] ?? null,
                );
            }
        }
        $this->entities->flush();
        $this->connection->executeStatement(
            "UPDATE proposal SET listed = 1, reason = IF(reason = 'covered', 'fills-order', reason) WHERE id IN (?)",
            [array_keys($order->fill)],
            [\Doctrine\DBAL\ArrayParameterType::INTEGER],
        );

        return count($order->fill);
    }

    /** @return array<string, ExchangeRate> read once a request */
    private function inForce(): array
    {
        return $this->inForce ??= $this->rates->allOn($this->clock->now());
    }

    /**
     * @return array<int, array{measure: float, cost: float, dueIn: float|null, perDay: float, most: int}> by proposal:
     *      one pack of each
     */
    private function candidates(Supplier $supplier, ?Site $site, bool $byWeight): array
    {
        /**
         * @var list<array{id: int, due: float, per_week: float, content: string, price: string|null,
         *      weight: string|null, multiple: string, shelf_days: int|null, cover: float|null, chosen: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT p.id, CASE WHEN p.chosen = 1 THEN COALESCE(p.due_in_days,
                0) + 7 * p.packs * o.pack_content / NULLIF(p.forecast_per_week, 0) ELSE p.due_in_days END due,
                p.forecast_per_week per_week, o.pack_content content, o.multiple,
                    (SELECT b.price FROM price_break b WHERE b.offer_id = o.id ORDER BY b.from_packs
                    LIMIT 1) price, i.weight_kg weight, i.shelf_days, p.cover_days cover, p.chosen
             FROM proposal p JOIN offer o ON o.id = p.offer_id JOIN item i ON i.id = p.item_id
             WHERE o.supplier_id = :supplier AND p.draft_id IS NULL AND p.cut = 0 AND p.forecast_per_week > 0
             AND p.due_in_days IS NOT NULL AND (:site IS NULL OR p.site_id = :site) AND p.stage <> 'dead'
               AND NOT EXISTS (SELECT 1 FROM put_off f WHERE f.item_id = p.item_id AND f.site_id = p.site_id
               AND f.until_day > :today)
             ORDER BY due LIMIT ".self::CANDIDATES,
            ['supplier' => $supplier->id, 'site' => $site?->id, 'today' => $this->clock->now()->format('Y-m-d')],
        );
        $candidates = [];
        foreach ($rows as $row) {
            $content = (float) $row['content'] * max(1.0, (float) $row['multiple']);
            $perDay = $row['per_week'] / 7 / $content;
            $most = (int) floor(
                (min(self::AT_MOST_DAYS_EARLY, ($row['shelf_days'] ?? 9999) - (float) $row['cover']) - $row['due']) *
                    $perDay +
                    1,
            );
            if ($row['due'] <= self::AT_MOST_DAYS_EARLY && $most > 0) {
                $cost = (float) $row['price'] * max(1.0, (float) $row['multiple']);
                $candidates[$row['id']] = [
                    'measure' => $byWeight ? (float) $row['weight'] * $content : $cost,
                    'cost' => $cost,
                    'dueIn' => (float) $row['due'],
                    'perDay' => $perDay,
                    'most' => min(self::MOST_PACKS, $most),
                ];
            }
        }

        return $candidates;
    }
}
