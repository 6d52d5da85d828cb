<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\Usage;
use TallBarrel\Store\Offer\PriceTerms;
use TallBarrel\Store\Offer\StoredPrices;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\AgreedTerms;
use TallBarrel\Store\Supplier\Freight;
use TallBarrel\Store\Supplier\Supplier;

/**
 * What of the proposals stands on the board: added up, in order, and a page of it at a time.
 *
 * @phpstan-import-type Row from BoardLine
 */
final readonly class Board
{
    /** Words that find what no name has: lines the budget left out, and items gone before an order could be here. */
    public const LEFT_OUT = 'left out';
    public const RUNS_OUT = 'runs out';
    /** Orders of the rows, by name. */
    private const ORDERS = [
        'rush' => "FIELD(p.reason, 'rush', 'out', 'below-safety-stock', 'below-reorder-point', 'below-minimum', ".
            "'planned', 'price-rise', 'asked', 'fills-order', 'covered'), p.cover_days IS NULL, p.cover_days, ".
            'i.code, p.id',
        'money' => 'p.home_value DESC, i.code, p.id',
        'risk' => 'p.at_risk DESC, i.code, p.id',
        'doubt' => 'p.doubt DESC, i.code, p.id',
        'code' => 'i.code, p.id',
    ];

    public function __construct(
        private Connection $connection,
        private Proposals $proposals,
        private PriceTerms $terms,
        private ClockInterface $clock,
    ) {
    }

    /** Ticks or unticks all that is listed of one supplier and not drafted yet. */
    public function chooseAll(Supplier $supplier, ?Site $site, bool $chosen): void
    {
        $this->connection->executeStatement(
            'UPDATE proposal p JOIN offer o ON o.id = p.offer_id
                SET p.chosen = ?, p.touched = 1, p.cut = IF(?, 0, p.cut)
             WHERE o.supplier_id = ? AND p.listed = 1 AND p.draft_id IS NULL AND (p.packs > 0 OR p.split_packs > 0)
             AND (? IS NULL OR p.site_id = ?)',
            [(int) $chosen, (int) $chosen, $supplier->id, $site?->id, $site?->id],
        );
    }

    /**
     * What is listed and what is chosen, added up by supplier.
     *
     * @return array<int, SupplierSum> by supplier, 0 where nobody sells it
     */
    public function sums(?Site $site, string $words = ''): array
    {
        /**
         * @var list<array{supplier: int|null, code: string|null, name: string|null, currency: string|null,
         *      minimum: string|null, minimum_kg: string|null, minimum_packs: int|null, free_from: string|null,
         *      freight_kind: string|null, freight: string|null, freight_steps: string|null, pallet_kg: string|null,
         *      full_load_kg: string|null,
         *      listed: int, rush: int, risk: float|null, chosen: string, value: string|null, home: string|null,
         *      weight: float|null, packs: string|null, at_risk: float|null, cut: string, cut_home: string|null,
         *      cut_risk: float|null, cut_best: float|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.supplier_id supplier, MAX(u.code) code, MAX(u.name) name, MAX(u.currency) currency,
                MAX(u.minimum_value) minimum, MAX(u.minimum_kg) minimum_kg, MAX(u.minimum_packs) minimum_packs,
                MAX(u.free_freight_from) free_from, MAX(u.freight_kind) freight_kind, MAX(u.freight) freight,
                MAX(u.freight_steps) freight_steps, MAX(u.pallet_kg) pallet_kg, MAX(u.full_load_kg) full_load_kg,
                COUNT(*) listed, MAX(p.reason = 'rush') rush,
                    SUM(p.at_risk) risk,
                    SUM(p.chosen = 1 AND p.draft_id IS NULL AND p.offer_id IS NOT NULL) chosen,
                    SUM(IF(p.chosen = 1 AND p.draft_id IS NULL, p.value, 0)) value,
                    SUM(IF(p.chosen = 1 AND p.draft_id IS NULL, p.home_value, 0)) home,
                    SUM(IF(p.chosen = 1 AND p.draft_id IS NULL, p.weight_kg, 0)) weight,
                    SUM(IF(p.chosen = 1 AND p.draft_id IS NULL, p.packs, 0)) packs,
                    SUM(IF(p.chosen = 1 AND p.draft_id IS NULL, p.at_risk, 0)) at_risk,
                    SUM(p.cut = 1 AND p.draft_id IS NULL) cut,
                    SUM(IF(p.cut = 1 AND p.draft_id IS NULL, p.home_value, 0)) cut_home,
                    SUM(IF(p.cut = 1 AND p.draft_id IS NULL, p.at_risk, 0)) cut_risk,
                    MAX(IF(p.cut = 1 AND p.draft_id IS NULL, p.at_risk / NULLIF(p.home_value, 0), 0)) cut_best
             FROM ".
                self::listed($words).
                ' GROUP BY o.supplier_id',
            $this->where($site, $words),
        );
        $sums = [];
        foreach ($rows as $row) {
            $number = static fn (string|int|null $least): ?float => null === $least ? null : (float) $least;
            $sums[$row['supplier'] ?? 0] = new SupplierSum(
                $row['code'] ?? '',
                $row['name'] ?? '',
                $row['currency'] ?? '',
                OrderMinimum::of(
                    $number($row['minimum']),
                    $number($row['minimum_kg']),
                    $number($row['minimum_packs']),
                ),
                $number($row['free_from']),
                Freight::tariffOf(
                    $row['freight_kind'] ?? FreightTariff::NONE,
                    $number($row['freight']),
                    $row['freight_steps'] ?? '',
                    $number($row['pallet_kg']),
                    $number($row['free_from']),
                ),
                $number($row['full_load_kg']),
                (int) $row['listed'],
                1 === (int) $row['rush'],
                (float) $row['risk'],
                (int) $row['chosen'],
                (float) $row['value'],
                (float) $row['home'],
                (float) $row['weight'],
                (float) $row['packs'],
                (float) $row['at_risk'],
                (int) $row['cut'],
                (float) $row['cut_home'],
                (float) $row['cut_risk'],
                (float) $row['cut_best'],
            );
        }

        return $sums;
    }

    /**
     * Ids of what the board lists of one supplier, in order.
     *
     * @param int    $supplier 0 for what nobody sells
     * @param string $order    one of the constants of ORDERS
     *
     * @return list<int>
     */
    public function page(
        int $supplier,
        ?Site $site,
        string $order,
        string $words = '',
        int $from = 0,
        int $most = \PHP_INT_MAX,
    ): array {
        /** @var list<int> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT p.id FROM '.
                self::listed($words).
                ' AND o.supplier_id <=> :supplier ORDER BY '.
                self::ORDERS[$order].
                sprintf(' LIMIT %d OFFSET %d', $most, $from),
            $this->where($site, $words) + ['supplier' => 0 === $supplier ? null : $supplier],
        );

        return $ids;
    }

    /**
     * The first rows of several suppliers, from one query.
     *
     * @param list<int> $suppliers 0 for what nobody sells
     * @param string    $order     one of the constants of ORDERS
     * @param int       $most      of each
     *
     * @return array<int, list<BoardLine>> in order, by supplier
     */
    public function firstLines(array $suppliers, ?Site $site, string $order, string $words, int $most): array
    {
        if ([] === $suppliers) {
            return [];
        }
        $lines = [];
        foreach (
            $this->rows(
                '(SELECT p.id, ROW_NUMBER() OVER (PARTITION BY o.supplier_id ORDER BY '.
                    self::ORDERS[$order].
                    ') place FROM '.
                    self::listed($words).
                    ' AND COALESCE(o.supplier_id, 0) IN (:suppliers)) page JOIN proposal p ON p.id = page.id',
                'page.place <= :most ORDER BY page.place',
                $this->where($site, $words) + ['suppliers' => $suppliers, 'most' => $most],
            ) as $row
        ) {
            $lines[$row['supplier_id'] ?? 0][] = new BoardLine($row, $this->terms->today());
        }

        return $lines;
    }

    /** @return list<int> ids of what is chosen, not drafted, and has these words */
    public function chosenWith(?Site $site, string $words): array
    {
        /** @var list<int> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT p.id FROM '.
                self::listed($words).
                ' AND p.chosen = 1 AND p.draft_id IS NULL AND p.offer_id IS NOT NULL ORDER BY p.id',
            $this->where($site, $words),
        );

        return $ids;
    }

    /** @return list<OutlineRow> what is chosen and not drafted, at all sites */
    public function chosen(): array
    {
        /**
         * @var list<array{id: int, reason: string, home_value: string, at_risk: float, category: string,
         *      arrival: string, terms: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT p.id, p.reason, p.home_value, p.at_risk, i.category, p.arrival, JSON_ARRAY('.
                str_replace('s.', 'u.', AgreedTerms::COLUMNS).
                ') terms FROM '.
                self::listed('').
                ' AND p.chosen = 1 AND p.draft_id IS NULL AND p.offer_id IS NOT NULL ORDER BY p.id',
            $this->where(null, ''),
        );

        return array_map(
            fn (array $row): OutlineRow => new OutlineRow(
                $row['id'],
                $row['reason'],
                (float) $row['home_value'],
                (float) $row['at_risk'],
                $row['category'],
                new \DateTimeImmutable($row['arrival'], $this->clock->now()->getTimezone()),
                self::terms($row['terms']),
            ),
            $rows,
        );
    }

    /** @return list<ContestedLine> those on the board whose item more than one supplier offers, the dearest first */
    public function withSeveralSuppliers(?Site $site, int $most): array
    {
        /**
         * @var list<array{id: int, item_id: int, code: string, name: string, unit: string, site: string, units: string,
         *      offer_id: int|null, per_week: float, held: float, price: string|null, cost: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT p.id, p.item_id, i.code, i.name, i.unit, t.name site, p.packs * COALESCE(o.pack_content, 0) units,
                p.offer_id, p.forecast_per_week per_week, p.on_hand - p.promised + p.coming held,
                IF(i.sold, i.sales_price, NULL) price, COALESCE(i.average_cost, i.standard_cost) cost
             FROM site t JOIN '.
                self::listed('').
                ' AND p.site_id = t.id AND p.draft_id IS NULL AND p.item_id IN (SELECT item_id FROM offer_in_force
                    WHERE :today BETWEEN from_day AND until_day GROUP BY item_id
                    HAVING COUNT(DISTINCT supplier_id) > 1) ORDER BY p.home_value DESC, p.id LIMIT '.
                $most,
            $this->where($site, ''),
        );

        return array_map(
            static fn (array $row): ContestedLine => new ContestedLine(
                $row['id'],
                $row['item_id'],
                $row['code'],
                $row['name'],
                Unit::from($row['unit']),
                $row['site'],
                BigDecimal::of($row['units']),
                $row['offer_id'],
                Usage::of(
                    $row['per_week'] / 7,
                    $row['held'],
                    null === $row['price'] ? null : (float) $row['price'],
                    null === $row['cost'] ? null : (float) $row['cost'],
                ),
            ),
            $rows,
        );
    }

    /**
     * What a basket is made of: what is chosen, or all that is proposed of the items on a list.
     *
     * @param array<int, true>|null $items null for what is chosen
     *
     * @return list<SavedProposal>
     */
    public function basket(?Site $site, ?array $items, int $most): array
    {
        /** @var list<array{id: int, item_id: int, chosen: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT p.id, p.item_id, p.chosen FROM '.
                self::listed('').
                ' AND p.draft_id IS NULL AND p.packs > 0 ORDER BY p.home_value DESC, p.id',
            $this->where($site, ''),
        );
        $rows = array_filter(
            $rows,
            static fn (array $row): bool => null === $items ? 1 === $row['chosen'] : isset($items[$row['item_id']]),
        );

        return $this->proposals->load(array_slice(array_column($rows, 'id'), 0, $most));
    }

    private static function terms(string $columns): ?PaymentTerms
    {
        /** @var array{int|null, string, int, int, string, string} $row */
        $row = json_decode($columns, true, flags: \JSON_THROW_ON_ERROR);

        return AgreedTerms::read($row);
    }

    private static function listed(string $words): string
    {
        return 'proposal p JOIN item i ON i.id = p.item_id LEFT JOIN offer o ON o.id = p.offer_id
            LEFT JOIN supplier u ON u.id = o.supplier_id'.
            ('' === $words ? '' : ' JOIN site s ON s.id = p.site_id').
            '
            WHERE p.listed = 1 AND (:site IS NULL OR p.site_id = :site)
              AND NOT EXISTS (SELECT 1 FROM put_off f WHERE f.item_id = p.item_id AND f.site_id = p.site_id
              AND f.until_day > :today)'.
            ('' === $words
                ? ''
                : "
              AND (i.code LIKE :like OR i.name LIKE :like OR i.category LIKE :like OR s.name LIKE :like
                OR u.name LIKE :like OR p.class LIKE :like
                OR (:words = '".self::LEFT_OUT."' AND p.cut = 1)
                OR (:words = '".self::RUNS_OUT."' AND p.out_in_days IS NOT NULL)
                OR (:words = 'changed' AND p.proposed_before IS NOT NULL) OR (:words = 'odd' AND p.odd <> '[]'))");
    }

    /** @return array<string, int|string|null> */
    private function where(?Site $site, string $words): array
    {
        return ['site' => $site?->id, 'today' => $this->clock->now()->format('Y-m-d')] +
            ('' === $words ? [] : ['words' => $words, 'like' => '%'.addcslashes($words, '%_\\').'%']);
    }

    /**
     * What the board shows of these, from one query.
     *
     * @param list<int> $ids
     *
     * @return array<int, BoardLine> by id
     */
    public function lines(array $ids): array
    {
        if ([] === $ids) {
            return [];
        }
        $lines = [];
        foreach ($this->rows('proposal p', 'p.id IN (:ids)', ['ids' => $ids]) as $row) {
            $lines[$row['id']] = new BoardLine($row, $this->terms->today());
        }

        return $lines;
    }

    /**
     * @param string                                   $from   where proposals come from, as p
     * @param string                                   $where  which, and in what order
     * @param array<string, int|string|list<int>|null> $values
     *
     * @return list<Row>
     */
    private function rows(string $from, string $where, array $values): array
    {
        /** @var list<Row> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT p.id, i.code item_code, i.name item_name, i.category, t.name site, p.reason, p.packs,
                    p.proposed_before, p.split_packs, SUBSTRING_INDEX(v.name, ' ', 1) split_supplier, p.chosen, p.cut,
                    p.odd, p.moves, p.value, p.cover_days, p.forecast_per_week, p.safety_stock, p.reorder_point,
                    p.order_up_to, p.on_hand, p.coming, p.arrival, DATEDIFF(p.arrival, :now) arrives_in, p.facts,
                    p.forecast, p.offer_id, o.supplier_id, o.pack_name, o.pack_content, s.currency,
                    d.number draft, ".
                StoredPrices::COLUMNS.
                ', '.
                Spending::LAST_PAID.
                " last_paid FROM $from JOIN item i ON i.id = p.item_id JOIN site t ON t.id = p.site_id
             LEFT JOIN offer o ON o.id = p.offer_id LEFT JOIN supplier s ON s.id = o.supplier_id
             LEFT JOIN offer w ON w.id = p.split_offer_id LEFT JOIN supplier v ON v.id = w.supplier_id
             LEFT JOIN purchase_order d ON d.id = p.draft_id
             WHERE $where",
            $values + ['now' => $this->clock->now()->format('Y-m-d')],
            array_map(
                static fn (): ArrayParameterType => ArrayParameterType::INTEGER,
                array_filter($values, is_array(...)),
            ),
        );

        return $rows;
    }
}
