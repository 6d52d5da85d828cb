<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\DBAL\Connection;

/** What the last planning run found of the classes of items. */
final readonly class ClassFigures
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * @return array<string, array{places: int, items: int, own: int, stock: float, meant: float, weekly: float}> by
     *      class: places, items, items with a policy of their own, value on hand, value meant to be held on average,
     *      value expected to sell in a week
     */
    public function all(): array
    {
        /**
         * @var list<array{class: string, places: int, items: int, own: int, stock: string|null, meant: string|null,
         *      weekly: float|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT p.class, COUNT(*) places, COUNT(DISTINCT p.item_id) items, COUNT(DISTINCT y.item_id) own,
                    SUM(p.on_hand * COALESCE(i.average_cost, i.standard_cost, 0)) stock,
                    SUM(p.forecast_per_week * COALESCE(i.average_cost, i.standard_cost, 0)) weekly,
                    SUM((p.safety_stock + GREATEST(p.order_up_to - p.reorder_point, 0) / 2) * COALESCE(i.average_cost,
                    i.standard_cost, 0)) meant
             FROM proposal p JOIN item i ON i.id = p.item_id LEFT JOIN item_policy y ON y.item_id = p.item_id
             GROUP BY p.class',
        );
        $figures = [];
        foreach ($rows as $row) {
            $figures[$row['class']] = [
                'places' => (int) $row['places'],
                'items' => (int) $row['items'],
                'own' => (int) $row['own'],
                'stock' => (float) $row['stock'],
                'meant' => (float) $row['meant'],
                'weekly' => (float) $row['weekly'],
            ];
        }

        return $figures;
    }

    /** @return list<int> items of a class without a policy of their own, spread evenly over it by value */
    public function sample(string $class, int $most): array
    {
        /** @var list<int> $items */
        $items = $this->connection->fetchFirstColumn(
            'SELECT p.item_id FROM proposal p LEFT JOIN item_policy y ON y.item_id = p.item_id
             WHERE p.class = ? AND y.item_id IS NULL GROUP BY p.item_id ORDER BY MAX(p.forecast_per_week), p.item_id',
            [$class],
        );
        $count = count($items);
        if ($count <= $most) {
            return $items;
        }

        return array_map(
            static fn (int $i): int => $items[(int) floor((($i + 0.5) * $count) / $most)],
            range(0, $most - 1),
        );
    }
}
