<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Store\Business\CurrentBusiness;

/**
 * What the stock was worth at the end of a day: the units that the ledger's movements up to it come to, at what a unit
 * cost that evening: on average, or first in, first out, as the business reckons. For a day nearer to the last movement
 * than to the first, units are what there is now less what moved since: the same, as stock:verify proves, and sooner.
 *
 * @phpstan-type ValueRow array{item: int, code: string, name: string, category: string, unit: string, site_id: int,
 *      site: string, units: string, cost: string, value: string}
 */
final readonly class StockValue
{
    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /** @return list<array{category: string, site_id: int, site: string, items: int, value: string}> */
    public function byCategory(\DateTimeImmutable $day): array
    {
        /** @var list<array{category: string, site_id: int, site: string, items: int, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT v.category, v.site_id, v.site, COUNT(*) items, SUM(v.value) value FROM
                (SELECT i.id, i.category, u.site_id, s.name site, ROUND(SUM(u.units * '.$this->cost().'), 2) value
                 FROM '.$this->valued('', $day).'
                 GROUP BY i.id, i.category, u.site_id, s.name HAVING SUM(u.units) <> 0) v
             GROUP BY v.category, v.site_id, v.site ORDER BY v.category, v.site',
            ['day' => $day->format('Y-m-d')],
        );

        return $rows;
    }

    /** @return list<ValueRow> of one category, the dearest first */
    public function ofCategory(\DateTimeImmutable $day, string $category): array
    {
        /** @var list<ValueRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT i.id item, i.code, i.name, i.category, i.unit, u.site_id, s.name site, SUM(u.units) units,
                SUM(u.units * '.$this->cost().') / SUM(u.units) cost, ROUND(SUM(u.units * '.$this->cost().'), 2) value
             FROM '.$this->valued('', $day).' WHERE i.category = :category
             GROUP BY i.id, i.code, i.name, i.category, i.unit, u.site_id, s.name HAVING SUM(u.units) <> 0
             ORDER BY value DESC, i.code, s.name',
            ['day' => $day->format('Y-m-d'), 'category' => $category],
        );

        return $rows;
    }

    /** @return iterable<array<string, string|int>> every item, site, state and lot, by code */
    public function everything(\DateTimeImmutable $day): iterable
    {
        /** @var iterable<array<string, string|int>> $rows */
        $rows = $this->connection->iterateAssociative(
            'SELECT i.code, i.name, i.category, i.unit, u.site_id, s.name site, u.state, u.lot, u.units,
                '.$this->cost().' cost, ROUND(u.units * '.$this->cost().', 2) value
             FROM '.$this->valued(', state, lot', $day).' ORDER BY i.code, s.name, u.state, u.lot',
            ['day' => $day->format('Y-m-d')],
        );

        return $rows;
    }

    /** Known that evening; else the first that was known later, or what is known of it at all. */
    private const AVERAGE = 'COALESCE(h.cost, f.cost, i.average_cost, i.standard_cost, 0)';

    private const AND_AVERAGE = <<<'SQL'
        JOIN item i ON i.id = u.item_id
        LEFT JOIN (SELECT item_id, MAX(day) day FROM item_cost WHERE day <= :day GROUP BY item_id) last
            ON last.item_id = u.item_id
        LEFT JOIN item_cost h ON h.item_id = u.item_id AND h.day = last.day
        LEFT JOIN (SELECT item_id, MIN(day) day FROM item_cost WHERE day > :day GROUP BY item_id) next
            ON next.item_id = u.item_id
        LEFT JOIN item_cost f ON f.item_id = u.item_id AND f.day = next.day
        SQL;

    /** What no layer holds, because nobody knows what it cost, counts at the average. */
    private const FIFO = 'IF(q.there > 0, (q.value + (q.there - q.units) * '.self::AVERAGE.') / q.there, '
        .self::AVERAGE.')';

    /**
     * The layers of each lot that are still there: what came last, as much as there is (IAS 2, paragraph 27). Each
     * costs what it came at and its share of the charges that stand that evening. Counted anew in another unit, what is
     * there begins as one at the average. Charges are few: grouped by an expression, they are added up once and not
     * looked for again with each movement.
     */
    private const AND_LAYERS = <<<'SQL'
        LEFT JOIN (SELECT k.item_id, k.lot, k.there, SUM(k.kept) units, SUM(k.kept * k.cost) value FROM
            (SELECT l.item_id, l.lot, n.there, l.cost, GREATEST(LEAST(l.quantity, n.there + l.quantity
                - SUM(l.quantity) OVER (PARTITION BY l.item_id, l.lot ORDER BY l.day DESC, l.id DESC)), 0) kept
             FROM (SELECT m.id, m.day, m.item_id, m.lot, m.quantity + COALESCE(b.quantity, 0) quantity,
                    m.unit_cost + COALESCE(c.share, 0) cost
                FROM stock_movement m
                LEFT JOIN (SELECT SUBSTRING(idempotency_key, CHAR_LENGTH('back-') + 1) came, SUM(quantity) quantity
                    FROM stock_movement WHERE kind = 'receipt-back' AND day <= :day GROUP BY came) b
                    ON b.came = m.idempotency_key
                LEFT JOIN (SELECT STRAIGHT_JOIN CONCAT(r.number) number, o.item_id, x.lot,
                        SUM(a.share) / SUM(x.packs * o.pack_content) share
                    FROM (SELECT g.came_id, SUM(g.share) share FROM landed_charge_line g
                        JOIN landed_charge h ON h.id = g.charge_id WHERE DATE(h.at) <= :day
                            AND (h.taken_back_at IS NULL OR DATE(h.taken_back_at) > :day) GROUP BY g.came_id) a
                    JOIN receipt_line x ON x.id = a.came_id JOIN receipt r ON r.id = x.receipt_id
                    JOIN order_line o ON o.id = x.line_id GROUP BY 1, o.item_id, x.lot) c
                    ON m.kind = 'receipt' AND c.number = m.reference AND c.item_id = m.item_id AND c.lot = m.lot
                LEFT JOIN (SELECT item_id, MAX(id) id FROM stock_movement WHERE kind = 'unit' AND day <= :day
                    GROUP BY item_id) anew ON anew.item_id = m.item_id
                WHERE m.kind IN ('opening', 'receipt', 'joined') AND m.quantity > 0 AND m.unit_cost IS NOT NULL
                    AND m.day <= :day AND (anew.id IS NULL OR m.id > anew.id)) l
             JOIN (SELECT item_id, lot, SUM(units) there FROM %s sites
                GROUP BY item_id, lot HAVING there > 0) n ON n.item_id = l.item_id AND n.lot = l.lot) k
            GROUP BY k.item_id, k.lot, k.there) q ON q.item_id = u.item_id AND q.lot = u.lot
        SQL;

    private function isFifo(): bool
    {
        return Valuing::Fifo === $this->business->find()?->valuing();
    }

    /** Of one unit. */
    private function cost(): string
    {
        return $this->isFifo() ? self::FIFO : self::AVERAGE;
    }

    /** What goods on their way between our sites are worth counts where they go. */
    private function valued(string $and, \DateTimeImmutable $day): string
    {
        $and = '' === $and && $this->isFifo() ? ', lot' : $and;
        $isLate = $this->isNearerToTheLast($day);

        return self::units($and, $isLate).' u '.self::AND_AVERAGE.' JOIN site s ON s.id = u.site_id '
            .($this->isFifo() ? sprintf(self::AND_LAYERS, self::units(', lot', $isLate)) : '');
    }

    /** @param bool $isLate whether they are counted back from what there is */
    private static function units(string $and, bool $isLate): string
    {
        return $isLate
            ? "(SELECT item_id, site_id$and, SUM(units) units FROM (
                SELECT item_id, site_id$and, SUM(quantity) units FROM stock_balance GROUP BY item_id, site_id$and
                UNION ALL
                SELECT item_id, site_id$and, -SUM(quantity) FROM stock_movement WHERE day > :day
                GROUP BY item_id, site_id$and) x GROUP BY item_id, site_id$and HAVING units <> 0)"
            : "(SELECT item_id, site_id$and, SUM(quantity) units FROM stock_movement WHERE day <= :day
                GROUP BY item_id, site_id$and HAVING units <> 0)";
    }

    private function isNearerToTheLast(\DateTimeImmutable $day): bool
    {
        /** @var array{int|null, int|null} $span */
        $span = $this->connection->fetchNumeric(
            'SELECT DATEDIFF(:day, MIN(day)), DATEDIFF(MAX(day), :day) FROM stock_movement',
            ['day' => $day->format('Y-m-d')],
        );

        return $span[0] > $span[1];
    }
}
