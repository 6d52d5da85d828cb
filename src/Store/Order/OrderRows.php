<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderState;

/** Orders as lists show them, each list from one query. */
final readonly class OrderRows
{
    public function __construct(private Connection $connection)
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
        $order = null === $most ? 'due, o.id' : 'o.id DESC LIMIT '.$most;
        /**
         * @var list<array{id: int, number: string, state: string, supplier_id: int, supplier: string, buyer: string,
         *      wanted_on: string, promised_on: string|null, due: string, sites: string|null, positions: int|string,
         *      goods: string, currency: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.id, o.number, o.state, o.supplier_id, s.name supplier, b.name buyer, o.wanted_on, o.promised_on,
                COALESCE(o.promised_on, o.wanted_on) due,
                    GROUP_CONCAT(DISTINCT CONCAT(l.site_id, '=', t.name)
                    ORDER BY l.site_id SEPARATOR '\n') sites, COUNT(l.id) positions,
                    COALESCE(SUM(ROUND(l.packs * l.price, 2)), 0) goods, o.currency
             FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN person b ON b.id = o.buyer_id
             LEFT JOIN order_line l ON l.order_id = o.id LEFT JOIN site t ON t.id = l.site_id
             WHERE o.state IN (?) GROUP BY o.id ORDER BY $order",
            [array_map(static fn (OrderState $state): string => $state->value, $states)],
            [ArrayParameterType::STRING],
        );

        return array_map(self::row(...), $rows);
    }

    /**
     * @param array{id: int, number: string, state: string, supplier_id: int, supplier: string, buyer: string,
     *      wanted_on: string, promised_on: string|null, due: string, sites: string|null, positions: int|string,
     *      goods: string, currency: string} $row
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
        );
    }
}
