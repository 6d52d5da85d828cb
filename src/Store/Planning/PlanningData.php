<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Sourcing\Offer;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Order\Orders;

/** Everything a planning run reads, asked for once and in bulk. */
final readonly class PlanningData
{
    private const WEEKS = 156;
    private const LEAD_TIMES = 20;

    public function __construct(private Connection $connection, private Rates $rates)
    {
    }

    /** @return list<ItemSite> */
    public function itemSites(\DateTimeImmutable $today): array
    {
        $history = $this->history($today);
        $held = $this->perItemSite("SELECT CONCAT(item_id, ':', site_id), SUM(quantity) FROM stock_balance WHERE state = 'available' GROUP BY item_id, site_id");
        $promised = $this->perItemSite("SELECT CONCAT(item_id, ':', site_id), SUM(quantity) FROM customer_promise GROUP BY item_id, site_id");
        $drafts = $this->perItemSite("SELECT CONCAT(l.item_id, ':', l.site_id), MAX(o.id) FROM order_line l JOIN purchase_order o ON o.id = l.order_id
            WHERE l.item_id IS NOT NULL AND o.state IN ('draft', 'awaiting-approval', 'approved') GROUP BY l.item_id, l.site_id");
        $onOrder = $this->openOrders();
        /** @var list<array{item: int, code: string, site: int, unit: string, service: string, cost: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.id item, i.code, t.site_id site, i.unit, i.service, COALESCE(i.average_cost, i.standard_cost) cost
             FROM stocking t JOIN item i ON i.id = t.item_id ORDER BY i.code, t.site_id',
        );
        $found = [];
        foreach ($rows as $row) {
            $key = $row['item'].':'.$row['site'];
            $found[] = new ItemSite(
                $row['item'], $row['code'], $row['site'], Unit::from($row['unit']), (float) $row['service'], (float) $row['cost'],
                $history[$key] ?? WeeklyHistory::of([], []), BigDecimal::of($held[$key] ?? 0), $onOrder[$key] ?? [],
                BigDecimal::of($promised[$key] ?? 0), isset($drafts[$key]) ? (int) $drafts[$key] : null,
            );
        }

        return $found;
    }

    /** @return array<int, non-empty-list<Offer>> offers in force, by item */
    public function offers(\DateTimeImmutable $today): array
    {
        $rates = $this->rates->allOn($today);
        /** @var list<array{id: int, supplier_id: int, item_id: int, pack_name: string, pack_content: string, minimum: string, multiple: string, split: int, lead_days: int, rank: int, currency: string, prices: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.id, o.supplier_id, o.item_id, o.pack_name, o.pack_content, o.minimum, o.multiple, o.split, o.lead_days, o.rank, s.currency,
                    GROUP_CONCAT(CONCAT(b.from_packs, '=', b.price) ORDER BY b.from_packs SEPARATOR ';') prices
             FROM offer o JOIN supplier s ON s.id = o.supplier_id JOIN price_break b ON b.offer_id = o.id
             WHERE o.valid_until IS NULL OR o.valid_until >= ? GROUP BY o.id",
            [$today->format('Y-m-d')],
        );
        $offers = [];
        foreach ($rows as $row) {
            if (!isset($rates[$row['currency']])) {
                continue;
            }
            $steps = array_map(static function (string $step): array {
                [$from, $price] = explode('=', $step);

                return [$from, $price];
            }, explode(';', $row['prices']));
            $offers[$row['item_id']][] = new Offer(
                $row['id'], $row['supplier_id'],
                BuyingRule::of(Pack::of($row['pack_name'], $row['pack_content']), $row['minimum'], $row['multiple'], 1 === $row['split']),
                PriceBreaks::of($steps), $rates[$row['currency']], $row['rank'], $row['lead_days'],
            );
        }

        return $offers;
    }

    /** @return array<int, SupplierTerms> by supplier */
    public function suppliers(): array
    {
        /** @var list<array{id: int, name: string, order_weekdays: string, cut_off: string, met: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT s.id, s.name, s.order_weekdays, s.cut_off, GROUP_CONCAT(m.days ORDER BY m.day DESC) met FROM supplier s
             LEFT JOIN (SELECT DISTINCT o.supplier_id, o.id, r.day, DATEDIFF(r.day, o.sent_at) days
                        FROM receipt r JOIN receipt_line rl ON rl.receipt_id = r.id JOIN order_line l ON l.id = rl.line_id
                        JOIN purchase_order o ON o.id = l.order_id) m ON m.supplier_id = s.id
             GROUP BY s.id',
        );
        $suppliers = [];
        foreach ($rows as $row) {
            $suppliers[$row['id']] = new SupplierTerms(
                $row['name'],
                OrderDays::of('' === $row['order_weekdays'] ? [] : array_map(intval(...), explode(',', $row['order_weekdays'])), $row['cut_off']),
                null === $row['met'] ? [] : array_slice(array_map(intval(...), explode(',', $row['met'])), 0, self::LEAD_TIMES),
            );
        }

        return $suppliers;
    }

    /** @return array<string, WeeklyHistory> by "item:site" */
    private function history(\DateTimeImmutable $today): array
    {
        $sold = $out = [];
        $longest = [];
        $rows = $this->connection->executeQuery(
            "SELECT CONCAT(item_id, ':', site_id) k, (DATEDIFF(?, day) - 1) DIV 7 w, SUM(quantity) q, SUM(out_of_stock) o
             FROM sales_day WHERE day < ? AND day >= ? GROUP BY item_id, site_id, w",
            [$today->format('Y-m-d'), $today->format('Y-m-d'), $today->modify(sprintf('-%d days', 7 * self::WEEKS))->format('Y-m-d')],
        );
        while (false !== $row = $rows->fetchNumeric()) {
            /** @var array{string, int|string, string, string} $row */
            $key = $row[0];
            $ago = (int) $row[1];
            $sold[$key][$ago] = (float) $row[2];
            $out[$key][$ago] = (int) $row[3];
            $longest[$key] = max($longest[$key] ?? 0, $ago);
        }
        $history = [];
        foreach ($longest as $key => $weeks) {
            $quantities = $days = [];
            for ($ago = $weeks; $ago >= 0; --$ago) {
                $quantities[] = $sold[$key][$ago] ?? 0.0;
                $days[] = $out[$key][$ago] ?? 0;
            }
            $history[$key] = WeeklyHistory::of($quantities, $days);
        }

        return $history;
    }

    /** @return array<string, list<OpenOrder>> by "item:site" */
    private function openOrders(): array
    {
        /** @var list<array{k: string, number: string, due: string, units: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT CONCAT(l.item_id, ':', l.site_id) k, o.number, COALESCE(o.promised_on, o.wanted_on) due,
                    (l.packs - l.received - l.closed_short) * l.pack_content units
             FROM order_line l JOIN purchase_order o ON o.id = l.order_id
             WHERE l.item_id IS NOT NULL AND o.state IN (".Orders::openStates().') AND l.packs > l.received + l.closed_short
             ORDER BY due',
        );
        $open = [];
        foreach ($rows as $row) {
            $open[$row['k']][] = new OpenOrder($row['number'], BigDecimal::of($row['units'])->strippedOfTrailingZeros(), new \DateTimeImmutable($row['due']));
        }

        return $open;
    }

    /** @return array<string, string> by "item:site" */
    private function perItemSite(string $query): array
    {
        /** @var array<string, int|string> $rows */
        $rows = $this->connection->fetchAllKeyValue($query);

        return array_map(strval(...), $rows);
    }
}
