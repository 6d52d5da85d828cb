<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderState;

/** Orders as lists show them, each list from one query. */
final readonly class OrderRows
{
    public function __construct(private Connection $connection, private ClockInterface $clock)
    {
    }

    /** @return list<OrderRow> sent and not all here, by the day they are due */
    public function open(): array
    {
        return $this->in(
            array_values(array_filter(OrderState::cases(), static fn (OrderState $state): bool => $state->isOpen())),
            null,
        );
    }

    /**
     * @param list<OrderState> $states
     * @param int|null         $most   the latest so many, latest first; null for all, by the day they are due
     *
     * @return list<OrderRow>
     */
    public function in(array $states, ?int $most): array
    {
        return $this->rows(
            'o.state IN (:states)',
            ['states' => array_map(static fn (OrderState $state): string => $state->value, $states)],
            null === $most ? 'due, o.id' : 'o.id DESC LIMIT '.$most,
        );
    }

    /** @return list<OrderRow> a page of what a filter lets through */
    public function find(OrderFilter $filter, int $offset, int $most): array
    {
        [$where, $values] = $this->where($filter);

        return $this->rows($where, $values, $filter->order().sprintf(' LIMIT %d OFFSET %d', $most, $offset));
    }

    /**
     * What a filter lets through, added up by supplier.
     *
     * @return list<array{supplier: string, code: string, orders: int, outstanding: string|null, late: int,
     *      goods: string}> goods and what of them is outstanding in the home currency; late: orders of which
     *      something is overdue
     */
    public function bySupplier(OrderFilter $filter): array
    {
        [$where, $values] = $this->where($filter);
        /**
         * @var list<array{supplier: string, code: string, orders: int, outstanding: string|null, late: int,
         *      goods: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT s.name supplier, s.code, COUNT(DISTINCT o.id) orders, SUM(open.home_value) outstanding,
                COUNT(DISTINCT IF(open.due < :today, o.id, NULL)) late,
                SUM(ROUND(l.packs * l.price, 2) / o.foreign_for_one) goods
             FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN order_line l ON l.order_id = o.id
             LEFT JOIN open_line open ON open.id = l.id
             WHERE '.
                $where.
                ' GROUP BY s.id ORDER BY goods DESC',
            $values + ['today' => $this->today()],
            ['states' => ArrayParameterType::STRING],
        );

        return $rows;
    }

    /**
     * Lines of which something is outstanding, by the day they are due.
     *
     * @return list<array{number: string, position: int, supplier: string, code: string|null, description: string,
     *      site: string, due: string, promised: int, packs: string, pack: string, value: string, total: int}>
     */
    public function openLines(OrderFilter $filter, int $offset, int $most): array
    {
        [$where, $values] = $this->where($filter);
        /**
         * @var list<array{number: string, position: int, supplier: string, code: string|null, description: string,
         *      site: string, due: string, promised: int, packs: string, pack: string, value: string, total: int}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT o.number, l.position, s.name supplier, i.code, l.description, t.name site, open.due,
                COALESCE(l.promised_on, o.promised_on) IS NOT NULL promised, open.packs, l.pack_name pack,
                open.home_value value, COUNT(*) OVER () total
             FROM open_line open JOIN order_line l ON l.id = open.id JOIN purchase_order o ON o.id = l.order_id
             JOIN supplier s ON s.id = o.supplier_id JOIN site t ON t.id = l.site_id
             LEFT JOIN item i ON i.id = l.item_id
             WHERE '.
                $where.
                ' AND (:item = \'\' OR i.code = :item) AND (:late = 0 OR open.due < :today)
             AND (:site IS NULL OR l.site_id = :site)
             ORDER BY open.due, o.id, l.position '.
                sprintf('LIMIT %d OFFSET %d', $most, $offset),
            $values + ['today' => $this->today(), 'late' => (int) $filter->late, 'site' => $filter->site,
                'item' => $filter->item],
            ['states' => ArrayParameterType::STRING],
        );

        return $rows;
    }

    private function today(): string
    {
        return $this->clock->now()->format('Y-m-d');
    }

    /** @return array{string, array<string, mixed>} a condition over purchase_order o and supplier s, and its values */
    private function where(OrderFilter $filter): array
    {
        $where = ['o.state IN (:states)'];
        $values = ['states' => [] === $filter->states() ? ['none'] : $filter->states()];
        $line = static fn (string $condition): string => 'EXISTS (SELECT 1 FROM order_line x LEFT JOIN item xi
            ON xi.id = x.item_id WHERE x.order_id = o.id AND '.$condition.')';
        $due = 'COALESCE((SELECT MIN(due) FROM open_line d WHERE d.order_id = o.id), o.promised_on, o.wanted_on)';
        foreach (
            [
                'words' => [
                    '' === $filter->words ? null : '%'.addcslashes($filter->words, '%_\\').'%',
                    '(o.number LIKE :words OR s.name LIKE :words OR s.code LIKE :words OR o.note LIKE :words '
                        .'OR o.project LIKE :words OR o.their_reference LIKE :words OR '.
                        $line('(x.description LIKE :words OR xi.code LIKE :words OR x.supplier_code LIKE :words)').
                        ')',
                ],
                'supplier' => ['' === $filter->supplier ? null : $filter->supplier, 's.code = :supplier'],
                'item' => ['' === $filter->item ? null : $filter->item, $line('xi.code = :item')],
                'site' => [$filter->site, $line('x.site_id = :site')],
                'buyer' => [$filter->buyer, 'o.buyer_id = :buyer'],
                'from' => [$filter->from, $due.' >= :from'],
                'until' => [$filter->until, $due.' <= :until'],
                'today' => [
                    $filter->late ? $this->today() : null,
                    'EXISTS (SELECT 1 FROM open_line d WHERE d.order_id = o.id AND d.due < :today)',
                ],
            ] as $name => [$value, $condition]
        ) {
            if (null !== $value) {
                $where[] = $condition;
                $values[$name] = $value;
            }
        }

        return [implode(' AND ', $where), $values];
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return list<OrderRow>
     */
    private function rows(string $where, array $values, string $order): array
    {
        /**
         * @var list<array{id: int, number: string, state: string, supplier_id: int, supplier: string, buyer: string,
         *      wanted_on: string, promised_on: string|null, due: string, sites: string|null, positions: int|string,
         *      goods: string, home: string, currency: string, total: int, total_home: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.*, COUNT(*) OVER () total, SUM(home) OVER () total_home FROM (
                SELECT o.id, o.number, o.state, o.supplier_id, s.name supplier, b.name buyer, o.wanted_on,
                    MIN(COALESCE(l.promised_on, o.promised_on)) promised_on,
                    COALESCE(MIN(open.due), MIN(COALESCE(l.promised_on, o.promised_on)), o.wanted_on) due,
                    GROUP_CONCAT(DISTINCT CONCAT(l.site_id, '=', t.name)
                    ORDER BY l.site_id SEPARATOR '\n') sites, COUNT(l.id) positions,
                    COALESCE(SUM(ROUND(l.packs * l.price, 2)), 0) goods, o.currency,
                    COALESCE(SUM(ROUND(l.packs * l.price, 2)), 0) / o.foreign_for_one home
                FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person b ON b.id = o.buyer_id
                LEFT JOIN order_line l ON l.order_id = o.id LEFT JOIN site t ON t.id = l.site_id
                LEFT JOIN open_line open ON open.id = l.id
                WHERE $where GROUP BY o.id) o
             ORDER BY ".str_replace('s.name', 'o.supplier', $order),
            $values,
            ['states' => ArrayParameterType::STRING],
        );

        return array_map(self::row(...), $rows);
    }

    /**
     * @param array{id: int, number: string, state: string, supplier_id: int, supplier: string, buyer: string,
     *      wanted_on: string, promised_on: string|null, due: string, sites: string|null, positions: int|string,
     *      goods: string, home: string, currency: string, total: int, total_home: string} $row
     */
    private static function row(array $row): OrderRow
    {
        $sites = [];
        foreach (null === $row['sites'] ? [] : explode("\n", $row['sites']) as $site) {
            [$id, $name] = explode('=', $site, 2);
            $sites[(int) $id] = $name;
        }

        return new OrderRow(
            $row['id'],
            $row['number'],
            OrderState::from($row['state']),
            $row['supplier_id'],
            $row['supplier'],
            explode(' ', $row['buyer'])[0],
            new \DateTimeImmutable($row['wanted_on']),
            null === $row['promised_on'] ? null : new \DateTimeImmutable($row['promised_on']),
            $sites,
            (int) $row['positions'],
            Money::of($row['goods'], $row['currency']),
            new \DateTimeImmutable($row['due']),
            $row['total'],
            $row['total_home'],
        );
    }
}
