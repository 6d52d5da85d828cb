<?php

declare(strict_types=1);

namespace TallBarrel\Store\Planning;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\OneTrip;

/** Lists to order from. */
final readonly class OrderLists
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection)
    {
    }

    /** @return list<OrderList> by name */
    public function all(): array
    {
        return $this->entities->getRepository(OrderList::class)->findBy([], ['name' => 'ASC']);
    }

    /** @return list<array{id: int, name: string}> by name, to choose one */
    public function names(): array
    {
        $trip = new OneTrip();
        self::askNames($trip);

        return self::namesIn($trip->answers($this->connection));
    }

    /** Their names, asked along with other things: see namesIn(). */
    public static function askNames(OneTrip $trip): void
    {
        $trip->ask('lists', ['id', 'name'], 'name', 'SELECT id, name FROM order_list');
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<array{id: int, name: string}> by name, to choose one
     */
    public static function namesIn(array $answers): array
    {
        return array_map(
            static fn (array $row): array => ['id' => (int) $row['id'], 'name' => (string) $row['name']],
            $answers['lists'],
        );
    }

    /**
     * @return array{items: array<int, true>|null, site: int|null}|null items now on it (null for all) and its site;
     *      null where there is no such list
     */
    public function members(int $id): ?array
    {
        $list = $this->entities->find(OrderList::class, $id);
        if (null === $list) {
            return null;
        }
        $items = null;
        if ($list->isFixed()) {
            $items = array_fill_keys(array_map(static fn ($item): int => $item->id, $list->items()), true);
        } elseif (null !== $list->supplier || '' !== $list->category) {
            /** @var list<int> $ids */
            $ids = $this->connection->fetchFirstColumn(
                "SELECT DISTINCT i.id FROM item i LEFT JOIN offer o ON o.item_id = i.id
                    WHERE (? IS NULL OR o.supplier_id = ?) AND (? = '' OR i.category = ?)",
                [$list->supplier?->id, $list->supplier?->id, $list->category, $list->category],
            );
            $items = array_fill_keys($ids, true);
        }

        return ['items' => $items, 'site' => $list->site?->id];
    }
}
