<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Where an item was used, and where it still is. */
final readonly class ItemUses
{
    public function __construct(private Connection $connection)
    {
    }

    /** Whether anything was booked, sold, ordered, promised or offered in its unit. */
    public function isBooked(int $item): bool
    {
        return $this->any($item, [
            'stock_movement', 'sales_day', 'order_line', 'offer', 'customer_promise', 'planned_demand', 'agreement',
            'quote_item', 'requisition', 'price_term', 'transfer_line',
        ]);
    }

    /** Whether anything at all speaks of it. */
    public function isUsed(int $item): bool
    {
        return $this->isBooked($item)
            || $this->any($item, ['lot', 'history_verdict', 'forecast_adjustment', 'order_list_item', 'price_list_row'])
            || false !== $this->connection->fetchOne('SELECT 1 FROM item WHERE sells_like_id = ? LIMIT 1', [$item]);
    }

    /** @return list<string> what is not over yet: orders, deliveries, quote rounds, promises, transfers */
    public function open(int $item): array
    {
        /** @var list<string> $found */
        $found = $this->connection->fetchFirstColumn(
            "SELECT DISTINCT o.number FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE l.item_id = :item AND o.state NOT IN ('received', 'closed', 'cancelled')
             UNION SELECT DISTINCT r.number FROM quote_item q JOIN quote_round r ON r.id = q.round_id
                WHERE q.item_id = :item AND r.settled_at IS NULL
             UNION SELECT CONCAT('the promise ', reference) FROM open_promise p JOIN customer_promise c ON c.id = p.id
                WHERE p.item_id = :item
             UNION SELECT DISTINCT t.number FROM transfer_line l JOIN transfer t ON t.id = l.transfer_id
                WHERE l.item_id = :item AND t.state IN ('to-pick', 'under-way')
             LIMIT 5",
            ['item' => $item],
        );

        return $found;
    }

    /** @param list<string> $tables */
    private function any(int $item, array $tables): bool
    {
        return false !== $this->connection->fetchOne(
            implode(' UNION ALL ', array_map(
                static fn (string $table): string => sprintf('(SELECT 1 FROM %s WHERE item_id = :item LIMIT 1)',
                    $table),
                $tables,
            )).' LIMIT 1',
            ['item' => $item],
        );
    }
}
