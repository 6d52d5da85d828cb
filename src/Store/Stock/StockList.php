<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Item\ItemSearch;
use TallBarrel\Store\OneTrip;

/**
 * Items with what is held, coming and promised, over one site or all.
 *
 * @phpstan-type StockRow array{id: int, code: string, name: string, category: string, unit: string, held: string,
 *      promised: string, value: string|null, per_week: string|null, safety: string|null, reorder: string|null,
 *      up_to: string|null, sites: int, about: string|null, total: int}
 */
final readonly class StockList
{
    /** Places and lots of an item that are shown; of more there is one too many. */
    public const PLACES = 120;
    public const PAGE = 60;
    /** The latest of an item. */
    private const MOVEMENTS = 25;
    private const ORDERS = 12;

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<StockRow> about: stock units the list is about, where it is about a part of them */
    public function page(string $words, ?int $site, int $offset, StockView $view = StockView::All): array
    {
        // What a list is about comes dearest first.
        [$join, $where, $order] =
            StockView::All === $view
                ? ['(SELECT NULL item_id, NULL about)', '', 'i.category, i.name']
                : [
                    sprintf(
                        '(SELECT p.item_id, SUM(%s) about FROM %s p GROUP BY p.item_id)',
                        $view->units(),
                        StockView::places(),
                    ),
                    'AND a.about > 0',
                    'a.about * i.average_cost DESC, i.name',
                ];

        $search = ItemSearch::of($words);
        /** @var list<StockRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT i.id, i.code, i.name, i.category, i.unit, COALESCE(b.held, 0) held, COALESCE(c.promised,
                0) promised,
                    COALESCE(a.about, b.held, 0) * i.average_cost value, p.per_week, p.safety, p.reorder, p.up_to,
                    COALESCE(t.sites, 0) sites, a.about, COUNT(*) OVER () total
             FROM item i
             JOIN (SELECT item_id, COUNT(*) sites FROM planned_place WHERE :site IS NULL OR site_id = :site
             GROUP BY item_id) t ON t.item_id = i.id
             LEFT JOIN (SELECT item_id, SUM(units) held FROM on_hand WHERE :site IS NULL OR site_id = :site
             GROUP BY item_id) b ON b.item_id = i.id
             LEFT JOIN (SELECT item_id, SUM(quantity) promised FROM open_promise
             WHERE :site IS NULL OR site_id = :site GROUP BY item_id) c
                    ON c.item_id = i.id
             LEFT JOIN (SELECT item_id, SUM(forecast_per_week) per_week, SUM(safety_stock) safety,
             SUM(reorder_point) reorder, SUM(order_up_to) up_to
                        FROM proposal WHERE :site IS NULL OR site_id = :site GROUP BY item_id) p ON p.item_id = i.id
             LEFT JOIN $join a ON a.item_id = i.id
             WHERE $search->condition $where
             ORDER BY $order, i.id LIMIT ".
                self::PAGE.
                ' OFFSET '.
                $offset,
            ['site' => $site] + $search->values,
        );

        return $rows;
    }

    /** What stands of one item and what moved, asked along with other things: see ItemFigures::in(). */
    public static function askOfItem(OneTrip $trip, int $item, \DateTimeImmutable $today): void
    {
        $trip
            ->ask('held', ['site_id', 'units'], 'site_id', 'SELECT site_id, units FROM on_hand WHERE item_id = ?', [
                $item,
            ])
            ->ask(
                'balances',
                ['place', 'site', 'code', 'bin', 'lot', 'state', 'held', 'expires'],
                'place, expires, lot',
                'SELECT s.id place, s.name site, s.code, COALESCE(o.code, n.code) bin, b.lot, b.state, b.quantity held,
                    l.expires_on expires
                 FROM stock_balance b JOIN site s ON s.id = b.site_id
                 LEFT JOIN stocking t ON t.item_id = b.item_id AND t.site_id = b.site_id
                 LEFT JOIN bin n ON n.id = t.bin_id
                 LEFT JOIN shelf_place p ON p.item_id = b.item_id AND p.site_id = b.site_id AND p.lot = b.lot
                 LEFT JOIN bin o ON o.id = p.bin_id
                 LEFT JOIN lot l ON l.item_id = b.item_id AND l.number = b.lot
                 WHERE b.item_id = ? AND b.quantity <> 0
                 ORDER BY s.id, l.expires_on IS NULL, l.expires_on, b.lot LIMIT '.(self::PLACES + 1),
                [$item],
            )
            ->ask(
                'movements',
                ['id', 'day', 'kind', 'quantity', 'unit_cost', 'reference', 'site', 'lot', 'person'],
                'day DESC, id DESC',
                'SELECT m.id, m.day, m.kind, m.quantity, m.unit_cost, m.reference, s.name site, m.lot, p.name person
                 FROM (SELECT * FROM stock_movement WHERE item_id = ? ORDER BY day DESC, id DESC LIMIT '.
                    self::MOVEMENTS.
                    ') m JOIN site s ON s.id = m.site_id LEFT JOIN person p ON p.id = m.person_id',
                [$item],
            )
            ->ask(
                'orders',
                ['id', 'line', 'number', 'supplier', 'state', 'due', 'packs', 'received', 'pack_name', 'site'],
                'id DESC, line DESC',
                'SELECT o.id, l.id line, o.number, u.name supplier, o.state, COALESCE(o.promised_on, o.wanted_on) due,
                    l.packs, l.received, l.pack_name, s.name site
                 FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier u ON u.id = o.supplier_id
                 JOIN site s ON s.id = l.site_id
                 WHERE l.item_id = ? ORDER BY o.id DESC, l.id DESC LIMIT '.self::ORDERS,
                [$item],
            )
            ->ask(
                'adjustments',
                ['id', 'percent', 'until', 'site', 'reason', 'person', 'at'],
                'id',
                'SELECT a.id, a.percent, a.until_day until, s.name site, a.reason, p.name person, a.at
                 FROM forecast_adjustment a JOIN person p ON p.id = a.by_id LEFT JOIN site s ON s.id = a.site_id
                 WHERE a.item_id = ? AND a.until_day > ?',
                [$item, $today->format('Y-m-d')],
            );
    }
}
