<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Demand\Method\Season;
use TallBarrel\Core\Demand\Method\SeasonalIndex;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\PooledSeason;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Adjustment;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\DemandRecord;
use TallBarrel\Core\Replenish\ItemFacts;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Core\Replenish\ItemWorth;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\SellsLike;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Steering;
use TallBarrel\Core\Replenish\StockNow;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\PriceTerms;
use TallBarrel\Store\Offer\StoredPrices;
use TallBarrel\Store\OfToday;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\OpenLines;
use TallBarrel\Store\Stock\InInspection;

/**
 * Everything a planning run reads, asked for in bulk.
 *
 * @phpstan-type SupplierRow array{id: int, name: string, order_weekdays: string, cut_off: string, shut: string|null,
 *      met: string|null}
 */
final readonly class PlanningData
{
    private const WEEKS = 156;
    private const LEAD_TIMES = 20;
    private const YEAR = 52;
    private const AT_A_TIME = 500;
    /** A category shows a season of its own once so many items bear it out. */
    private const FEWEST_IN_CATEGORY = 3;

    private const SUPPLIERS = 'SELECT s.id, s.name, s.order_weekdays, s.cut_off, '.OfToday::SHUT.' shut, t.met
        FROM supplier s LEFT JOIN (SELECT m.supplier_id, GROUP_CONCAT(m.days ORDER BY m.day DESC) met
            FROM (SELECT DISTINCT o.supplier_id, o.id, r.day, DATEDIFF(r.day, o.sent_at) days
                FROM receipt r JOIN standing_receipt_line rl ON rl.receipt_id = r.id
                JOIN order_line l ON l.id = rl.line_id
                JOIN purchase_order o ON o.id = l.order_id) m GROUP BY m.supplier_id) t ON t.supplier_id = s.id';

    public function __construct(
        private Connection $connection,
        private OfToday $today,
        private Rates $rates,
        private OpenLines $open,
        private InInspection $inspected,
        private PriceTerms $terms,
        private EntityManagerInterface $entities,
    ) {
    }

    /** @return list<int> ids of the items that planning looks at anywhere */
    public function items(): array
    {
        /** @var list<int> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT DISTINCT item_id FROM planned_place ORDER BY item_id');

        return $ids;
    }

    public function countItemSites(): int
    {
        $count = $this->connection->fetchOne('SELECT COUNT(*) FROM planned_place');

        return is_numeric($count) ? (int) $count : 0;
    }

    /**
     * @param list<int> $items
     *
     * @return list<ItemSite> by item code and site
     */
    public function itemSites(\DateTimeImmutable $today, array $items): array
    {
        if ([] === $items) {
            return [];
        }
        /**
         * @var list<array{item: int, code: string, site: int, stocked: int, category: string, unit: string,
         *      service: string|null, cost: string|null, sales_price: string|null, sold: int, weight_kg: string|null,
         *      staple: int,
         *      shelf_days: int|null, like_id: int|null, like_code: string|null, like_factor: string|null,
         *      kind: string|null,
         *      target: string|null, level: float|null, amount: float|null, minimum: float|null, beyond: int|null}>
         *      $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.id item, i.code, t.site_id site, t.stocked, i.category, i.unit, i.service,
                COALESCE(i.average_cost,
                i.standard_cost) cost, i.sales_price, i.sold, i.weight_kg, i.staple, i.shelf_days,
                    i.sells_like_id like_id, l.code like_code, i.like_factor, '.self::ownPolicy().'
             FROM planned_place t JOIN item i ON i.id = t.item_id LEFT JOIN item l ON l.id = i.sells_like_id
             LEFT JOIN item_policy p ON p.item_id = i.id
             LEFT JOIN site_policy q ON q.item_id = i.id AND q.site_id = t.site_id
             WHERE i.id IN (?) ORDER BY i.code, t.site_id',
            [$items],
            [ArrayParameterType::INTEGER],
        );
        $like = array_values(
            array_diff(
                array_filter(array_column($rows, 'like_id'), static fn (?int $id): bool => null !== $id),
                $items,
            ),
        );
        $history = $this->history($today, [...$items, ...$like]);
        $held = $this->perItemSite(
            "SELECT CONCAT(item_id, ':', site_id), units FROM on_hand_soon WHERE item_id IN (?)",
            $items,
        );
        $promised = $this->perItemSite(
            "SELECT CONCAT(item_id, ':', site_id), SUM(quantity) FROM open_promise WHERE item_id IN (?)
                GROUP BY item_id, site_id",
            $items,
        );
        $drafts = $this->perItemSite(
            "SELECT CONCAT(l.item_id, ':', l.site_id), MAX(o.id) FROM order_line l
                JOIN purchase_order o ON o.id = l.order_id
            WHERE l.item_id IN (?) AND o.state IN ('draft', 'awaiting-approval', 'approved')
            GROUP BY l.item_id, l.site_id",
            $items,
        );
        $putOff = $this->perItemSite(
            "SELECT CONCAT(item_id, ':', site_id), 1 FROM put_off WHERE item_id IN (?) AND until_day > '".
                $today->format('Y-m-d').
                "'",
            $items,
        );
        $coming = $this->open->bySite($items, $today);
        foreach ($this->inspected->coming($items, $today) as $key => $here) {
            $coming[$key] = ($coming[$key] ?? Coming::nothing($today))->with($here);
        }
        $planned = $this->planned($today, $items);
        $adjustments = $this->adjustments($today, $items);
        $verdicts = $this->verdicts($today, $items);
        $found = [];
        foreach ($rows as $row) {
            $key = $row['item'].':'.$row['site'];
            $own = $history[$key] ?? WeeklyHistory::of([], []);
            $others = null === $row['like_id'] ? null : $history[$row['like_id'].':'.$row['site']] ?? null;
            $found[] = new ItemSite(
                new ItemFacts(
                    $row['item'],
                    $row['code'],
                    $row['category'],
                    Unit::from($row['unit']),
                    new ItemWorth(
                        (float) $row['cost'],
                        1 === $row['sold'] && null !== $row['sales_price'] ? (float) $row['sales_price'] : null,
                        (float) $row['weight_kg'],
                        $row['shelf_days'],
                    ),
                    1 === $row['staple'],
                ),
                $row['site'],
                new DemandRecord(
                    $own,
                    null === $others
                        ? null
                        : new SellsLike((string) $row['like_code'], $others, (float) ($row['like_factor'] ?? 1)),
                    self::byWeek($verdicts[$key] ?? [], $own->weeks()),
                    [...$adjustments[$row['item'].':'] ?? [], ...$adjustments[$key] ?? []],
                ),
                new StockNow(
                    BigDecimal::of($held[$key] ?? 0),
                    $coming[$key] ?? Coming::nothing($today),
                    BigDecimal::of($promised[$key] ?? 0),
                    $planned[$key] ?? [],
                ),
                new Steering(
                    match (true) {
                        0 === $row['stocked'] => Policy::asAsked(),
                        null === $row['kind'] || null === $row['target'] => null,
                        default => Policy::of(
                            PolicyKind::from($row['kind']),
                            ServiceTarget::of($row['target'], (float) $row['level']),
                            $row['amount'],
                            $row['minimum'],
                            1 === $row['beyond'],
                        ),
                    },
                    null === $row['service'] ? null : (float) $row['service'],
                    isset($drafts[$key]) ? (int) $drafts[$key] : null,
                    isset($putOff[$key]),
                ),
            );
        }

        return $found;
    }

    /** The policy of the item at the site, else of the item everywhere: whole, never mixed. */
    private static function ownPolicy(): string
    {
        return implode(', ', array_map(
            static fn (string $column, string $name): string => sprintf(
                'IF(q.kind IS NULL, p.%1$s, q.%1$s) %2$s',
                $column,
                $name,
            ),
            ['kind', 'target', 'service', 'amount', 'minimum', 'beyond'],
            ['kind', 'target', 'level', 'amount', 'minimum', 'beyond'],
        ));
    }

    /** @return array<int, ValueClass> by item, by the cost of what it sold in a year */
    public function valueClasses(\DateTimeImmutable $today): array
    {
        /** @var array<int, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT t.item_id, COALESCE(SUM(d.quantity), 0) * COALESCE(MAX(i.average_cost), MAX(i.standard_cost), 0)
                FROM (SELECT DISTINCT item_id FROM planned_place) t JOIN item i ON i.id = t.item_id
             LEFT JOIN sales_day d ON d.item_id = t.item_id AND d.day >= ? AND d.day < ? GROUP BY t.item_id',
            [$today->modify('-364 days')->format('Y-m-d'), $today->format('Y-m-d')],
        );

        return ValueClass::of(array_map(floatval(...), $rows));
    }

    /**
     * @param list<float> $series weekly, oldest first; what it leaves out at the end is whole years
     *
     * @return list<float>|null by weeks ago of 0 to 51
     */
    private static function factors(array $series): ?array
    {
        $weeks = count($series);
        $index = $weeks < self::YEAR ? null : SeasonalIndex::found($series, self::YEAR, Season::Multiplicative);

        // The week so many weeks ago stands at that many positions from the end.
        return null === $index
            ? null
            : array_map(
                static fn (int $ago): float => $index->terms[(($weeks - $ago) % self::YEAR + self::YEAR) % self::YEAR],
                range(0, self::YEAR - 1),
            );
    }

    /** Days of expected sales that add up to a value, by the forecasts of the last run; a month where there is none. */
    public function daysForSales(float $value): float
    {
        $perWeek = $this->connection->fetchOne(
            'SELECT SUM(p.forecast_per_week * i.sales_price) FROM proposal p JOIN item i ON i.id = p.item_id
                WHERE i.sold = 1',
        );

        return is_numeric($perWeek) && $perWeek > 0 ? max(1.0, min(365.0, (7 * $value) / (float) $perWeek)) : 28.0;
    }

    /** @return array<string, Policy> by class, such as "A-smooth" */
    public function policies(): array
    {
        $policies = [];
        foreach ($this->entities->getRepository(PolicySetting::class)->findAll() as $setting) {
            $policies[$setting->key()] = $setting->policy();
        }

        return $policies;
    }

    /** What items of each category sell a week at a place, over the last half year; those that sold all through it. */
    public function newcomers(\DateTimeImmutable $today): Newcomers
    {
        $days = 7 * Newcomers::NEW_WEEKS;
        /** @var list<array{category: string, price: string|null, weekly: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.category, i.sales_price price, d.q / :weeks weekly
             FROM (SELECT item_id, site_id, SUM(quantity) q FROM sales_day
                WHERE day < :today AND day >= DATE_SUB(:today, INTERVAL :days DAY)
                GROUP BY item_id, site_id HAVING MIN(day) < DATE_SUB(:today, INTERVAL :most DAY)) d
             JOIN item i ON i.id = d.item_id',
            [
                'today' => $today->format('Y-m-d'),
                'weeks' => Newcomers::NEW_WEEKS,
                'days' => $days,
                'most' => $days - 28,
            ],
        );
        $byCategory = [];
        foreach ($rows as $row) {
            $byCategory[$row['category']][] = [(float) $row['price'], max(0.0, (float) $row['weekly'])];
        }

        return new Newcomers($byCategory);
    }

    /** @return array<string, PooledSeason> by category, only where there are items enough to bear it out */
    public function seasons(\DateTimeImmutable $today): array
    {
        $sums = $this->soldByCategory($today);
        /** @var array<string, int> $items */
        $items = $this->connection->fetchAllKeyValue(
            'SELECT category, COUNT(*) FROM item WHERE id IN (SELECT item_id FROM planned_place) GROUP BY category',
        );
        $seasons = [];
        foreach ($sums as $category => $byWeek) {
            $weeks = max(array_keys($byWeek)) + 1;
            if (($items[$category] ?? 0) < self::FEWEST_IN_CATEGORY || $weeks < self::YEAR) {
                continue;
            }
            $series = [];
            for ($ago = $weeks - 1; $ago >= 0; --$ago) {
                $series[] = max(0.0, round($byWeek[$ago] ?? 0.0, 3));
            }
            $all = self::factors($series);
            if (null !== $all) {
                $seasons[$category] = new PooledSeason(
                    $all,
                    self::factors(array_slice($series, 0, -self::YEAR)) ?? $all,
                );
            }
        }

        return $seasons;
    }

    /**
     * Added up here, since that is quicker than a database's sum of so many groups; some items at a time, in the order
     * in which sales are kept, so that no more is held than a few of them.
     *
     * @return array<string, non-empty-array<int, float>> by category and weeks ago
     */
    private function soldByCategory(\DateTimeImmutable $today): array
    {
        /** @var array<int, string> $categories */
        $categories = $this->connection->fetchAllKeyValue('SELECT id, category FROM item ORDER BY id');
        $sums = [];
        foreach (array_chunk(array_keys($categories), self::AT_A_TIME) as $items) {
            $sales = $this->connection->executeQuery(
                'SELECT item_id, (DATEDIFF(?, day) - 1) DIV 7, quantity FROM sales_day
                    WHERE item_id BETWEEN ? AND ? AND day < ? AND day >= ?',
                [
                    $today->format('Y-m-d'),
                    $items[0],
                    $items[count($items) - 1],
                    $today->format('Y-m-d'),
                    $today->modify(sprintf('-%d days', 7 * self::WEEKS))->format('Y-m-d'),
                ],
            );
            while (false !== ($sold = $sales->fetchNumeric())) {
                /** @var array{int, int, string} $sold */
                $category = $categories[$sold[0]];
                $sums[$category][$sold[1]] = ($sums[$category][$sold[1]] ?? 0.0) + (float) $sold[2];
            }
        }

        return $sums;
    }

    /**
     * @param list<int>|null $items null for all
     *
     * @return array<int, non-empty-list<OfferTerms>> offers in force, by item
     */
    public function offers(\DateTimeImmutable $today, ?array $items = null): array
    {
        $rates = $this->rates->allOn($today);
        /**
         * @var list<array{id: int, supplier_id: int, item_id: int, pack_name: string, pack_content: string,
         *      minimum: string, multiple: string, split: int, lead_days: int, rank: int, currency: string,
         *      prices: string|null,
         *      rise_percent: string|null, rise_on: string|null, break_kind: string, break_basis: string,
         *      discounts: string, duty_percent: string, weight_kg: string|null, price_content: string,
         *      price_supplier: int, price_item: int, price_trade: string, price_group: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT o.id, o.supplier_id, o.item_id, o.pack_name, o.pack_content, o.minimum, o.multiple, o.split,
                o.lead_days, o.rank, s.currency, o.rise_percent, o.rise_on,
                    o.duty_percent, i.weight_kg, '.
                StoredPrices::COLUMNS.
                ' FROM offer_in_force f JOIN offer o ON o.id = f.id JOIN supplier s ON s.id = o.supplier_id
             JOIN item i ON i.id = o.item_id
             WHERE ? BETWEEN f.from_day AND f.until_day'.
                (null === $items ? '' : ' AND o.item_id IN (?)').
                ' ORDER BY o.id',
            [$today->format('Y-m-d'), ...null === $items ? [] : [$items]],
            null === $items ? [] : [1 => ArrayParameterType::INTEGER],
        );
        $offers = [];
        $agreed = $this->terms->today();
        foreach ($rows as $row) {
            $prices = StoredPrices::read($row, $agreed);
            if (null === $prices || !isset($rates[$row['currency']])) {
                continue;
            }
            $offers[$row['item_id']][] = new OfferTerms(
                $row['id'],
                $row['supplier_id'],
                BuyingRule::of(
                    Pack::of($row['pack_name'], $row['pack_content']),
                    $row['minimum'],
                    $row['multiple'],
                    1 === $row['split'],
                ),
                $prices,
                $rates[$row['currency']],
                $row['rank'],
                $row['lead_days'],
                null === $row['rise_percent'] || null === $row['rise_on']
                    ? null
                    : [(float) $row['rise_percent'] / 100, new \DateTimeImmutable($row['rise_on'])],
                (float) $row['duty_percent'],
                (float) $row['weight_kg'],
            );
        }

        return $offers;
    }

    /**
     * @param list<int>|null $suppliers null for all
     *
     * @return array<int, SupplierTerms> by supplier
     */
    public function suppliers(?array $suppliers = null): array
    {
        /** @var list<SupplierRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            self::SUPPLIERS.(null === $suppliers ? '' : ' WHERE s.id IN (?)'),
            null === $suppliers ? [] : [$suppliers],
            null === $suppliers ? [] : [ArrayParameterType::INTEGER],
        );

        return self::supplierTerms($rows);
    }

    /** The same of all suppliers, asked along with other things: see suppliersIn(). */
    public static function askSuppliers(OneTrip $trip): void
    {
        $trip->ask('suppliers', ['id', 'name', 'order_weekdays', 'cut_off', 'shut', 'met'], 'id', self::SUPPLIERS);
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array<int, SupplierTerms> by supplier
     */
    public static function suppliersIn(array $answers): array
    {
        return self::supplierTerms(
            array_map(
                static fn (array $row): array => [
                    'id' => (int) $row['id'],
                    'name' => (string) $row['name'],
                    'order_weekdays' => (string) $row['order_weekdays'],
                    'cut_off' => (string) $row['cut_off'],
                    'shut' => $row['shut'],
                    'met' => $row['met'],
                ],
                $answers['suppliers'],
            ),
        );
    }

    /**
     * @param list<SupplierRow> $rows
     *
     * @return array<int, SupplierTerms> by supplier
     */
    private static function supplierTerms(array $rows): array
    {
        $terms = [];
        foreach ($rows as $row) {
            $met = null === $row['met'] ? [] : array_map(intval(...), explode(',', $row['met']));
            $terms[$row['id']] = new SupplierTerms(
                $row['name'],
                self::takesOrders($row),
                array_slice($met, 0, self::LEAD_TIMES),
            );
        }

        return $terms;
    }

    /** @return array<int, OrderDays> days on which they take orders, by supplier */
    public function orderDays(): array
    {
        /** @var list<array{id: string, order_weekdays: string, cut_off: string, shut: string|null}> $rows */
        $rows = $this->today->read(OfToday::ORDER_DAYS);
        $days = [];
        foreach ($rows as $row) {
            $days[(int) $row['id']] = self::takesOrders($row);
        }

        return $days;
    }

    /** @param array{order_weekdays: string, cut_off: string, shut: string|null, ...} $row */
    private static function takesOrders(array $row): OrderDays
    {
        $shut = ['we' => [], 'they' => []];
        foreach (null === $row['shut'] ? [] : explode(',', $row['shut']) as $closure) {
            [$who, $first, $last] = explode(' ', $closure);
            $shut[$who][] = [$first, $last];
        }

        return OrderDays::of(
            '' === $row['order_weekdays'] ? [] : array_map(intval(...), explode(',', $row['order_weekdays'])),
            $row['cut_off'],
            $shut['they'],
            $shut['we'],
        );
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, WeeklyHistory> by "item:site"
     */
    private function history(\DateTimeImmutable $today, array $items): array
    {
        // In the order they lie in: grouping them by week there takes longer than reading them all.
        $rows = $this->connection->executeQuery(
            'SELECT item_id, site_id, DATEDIFF(?, day) - 1, quantity, out_of_stock FROM sales_day
             WHERE item_id IN (?) AND day < ? AND day >= ? ORDER BY item_id, site_id, day',
            [
                $today->format('Y-m-d'),
                $items,
                $today->format('Y-m-d'),
                $today->modify(sprintf('-%d days', 7 * self::WEEKS))->format('Y-m-d'),
            ],
            [1 => ArrayParameterType::INTEGER],
        );
        $sold = $out = $history = [];
        $item = $site = 0;
        while (false !== ($row = $rows->fetchNumeric())) {
            /** @var array{int, int, int, string, int} $row */
            if ($row[0] !== $item || $row[1] !== $site) {
                if ([] !== $sold) {
                    $history[$item.':'.$site] = self::weekly($sold, $out);
                }
                [$item, $site] = $row;
                $sold = $out = [];
            }
            $ago = intdiv($row[2], 7);
            $sold[$ago] = ($sold[$ago] ?? 0.0) + (float) $row[3];
            $out[$ago] = ($out[$ago] ?? 0) + $row[4];
        }
        if ([] !== $sold) {
            $history[$item.':'.$site] = self::weekly($sold, $out);
        }

        return $history;
    }

    /**
     * @param non-empty-array<int, float> $sold by weeks ago, the longest ago first
     * @param array<int, int>             $out  days without stock, by weeks ago
     */
    private static function weekly(array $sold, array $out): WeeklyHistory
    {
        $quantities = $days = [];
        for ($ago = array_key_first($sold); $ago >= 0; --$ago) {
            $quantities[] = round($sold[$ago] ?? 0.0, 3);
            $days[] = $out[$ago] ?? 0;
        }

        return WeeklyHistory::of($quantities, $days);
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, list<PlannedDemand>> by "item:site", from today on
     */
    private function planned(\DateTimeImmutable $today, array $items): array
    {
        /** @var list<array{k: string, name: string, quantity: string, day: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT CONCAT(item_id, ':', site_id) k, name, quantity, day, id FROM planned_demand
                WHERE item_id IN (:items) AND day >= :today
             UNION ALL SELECT CONCAT(t.item_id, ':', t.source_id), CONCAT(t.number, ' to ', s.name), t.units,
                :today, t.id FROM open_transfer t JOIN site s ON s.id = t.site_id
                WHERE t.item_id IN (:items) AND t.state = 'to-pick'
             ORDER BY day, id",
            ['items' => $items, 'today' => $today->format('Y-m-d')],
            ['items' => ArrayParameterType::INTEGER],
        );
        $planned = [];
        foreach ($rows as $row) {
            $planned[$row['k']][] = new PlannedDemand(
                $row['name'],
                (float) $row['quantity'],
                new \DateTimeImmutable($row['day'], $today->getTimezone()),
            );
        }

        return $planned;
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, list<Adjustment>> by "item:site", or "item:" for all sites
     */
    private function adjustments(\DateTimeImmutable $today, array $items): array
    {
        /** @var list<array{k: string, percent: float, until_day: string, reason: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT CONCAT(item_id, ':', COALESCE(site_id, '')) k, percent, until_day, reason FROM forecast_adjustment
                WHERE item_id IN (?) AND until_day > ? ORDER BY id",
            [$items, $today->format('Y-m-d')],
            [ArrayParameterType::INTEGER],
        );
        $adjustments = [];
        foreach ($rows as $row) {
            $adjustments[$row['k']][] = new Adjustment(
                (float) $row['percent'],
                new \DateTimeImmutable($row['until_day'], $today->getTimezone()),
                $row['reason'],
            );
        }

        return $adjustments;
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, array<int, bool>> by "item:site" and weeks ago
     */
    private function verdicts(\DateTimeImmutable $today, array $items): array
    {
        /** @var list<array{k: string, w: int|string, keep: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT CONCAT(item_id, ':', site_id) k, (DATEDIFF(?, day) - 1) DIV 7 w, keep FROM history_verdict
                WHERE item_id IN (?) AND day < ?",
            [$today->format('Y-m-d'), $items, $today->format('Y-m-d')],
            [1 => ArrayParameterType::INTEGER],
        );
        $verdicts = [];
        foreach ($rows as $row) {
            $verdicts[$row['k']][(int) $row['w']] = 1 === $row['keep'];
        }

        return $verdicts;
    }

    /**
     * @param array<int, bool> $byAgo
     *
     * @return array<int, bool> by position in a history of so many weeks
     */
    private static function byWeek(array $byAgo, int $weeks): array
    {
        $found = [];
        foreach ($byAgo as $ago => $keep) {
            if ($ago < $weeks) {
                $found[$weeks - 1 - $ago] = $keep;
            }
        }

        return $found;
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, string> by "item:site"
     */
    private function perItemSite(string $query, array $items): array
    {
        /** @var array<string, int|string> $rows */
        $rows = $this->connection->fetchAllKeyValue($query, [$items], [ArrayParameterType::INTEGER]);

        return array_map(strval(...), $rows);
    }
}
