<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsEntityListener;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\Events;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Store\BulkInsert;
use TallBarrel\Store\Item\Item;

/** What a unit of each item cost on average at the end of each day on which that changed. */
#[AsEntityListener(Events::postUpdate, entity: Item::class, method: 'changed')]
#[AsEntityListener(Events::postPersist, entity: Item::class, method: 'changed')]
final readonly class CostHistory
{
    public function __construct(
        private Connection $connection,
        private AverageCosts $averages,
        private ClockInterface $clock,
    ) {
    }

    public function changed(Item $item): void
    {
        $this->note([$item->id]);
    }

    /**
     * Of items as they stand now; whoever changes an average by SQL calls it.
     *
     * @param list<int> $items
     */
    public function note(array $items): void
    {
        $this->connection->executeStatement(
            'INSERT INTO item_cost (item_id, day, cost)
             SELECT id, ?, average_cost FROM item WHERE id IN (?) AND average_cost IS NOT NULL
             ON DUPLICATE KEY UPDATE cost = VALUES(cost)',
            [$this->clock->now()->format('Y-m-d'), $items],
            [1 => ArrayParameterType::INTEGER],
        );
    }

    public function isEmpty(): bool
    {
        return false === $this->connection->fetchOne('SELECT 1 FROM item_cost LIMIT 1');
    }

    /** Works it out anew from the ledger; what the ledger cannot tell is known from today. */
    public function fromLedger(): void
    {
        $this->connection->executeStatement(
            "DELETE FROM item_cost WHERE item_id IN (SELECT item_id FROM stock_movement WHERE kind = 'receipt')",
        );
        $rows = new BulkInsert(
            $this->connection,
            'item_cost',
            ['item_id', 'day', 'cost'],
            ' ON DUPLICATE KEY UPDATE cost = VALUES(cost)',
        );
        foreach ($this->averages->changes() as [$item, $day, $cost]) {
            $rows->add($item, $day, (string) $cost);
        }
        $rows->flush();
        /** @var list<int> $others */
        $others = $this->connection->fetchFirstColumn(
            'SELECT i.id FROM item i
             LEFT JOIN (SELECT item_id, MAX(day) day FROM item_cost GROUP BY item_id) last ON last.item_id = i.id
             LEFT JOIN item_cost c ON c.item_id = i.id AND c.day = last.day
             WHERE i.average_cost IS NOT NULL AND NOT i.average_cost <=> c.cost',
        );
        $this->note($others);
    }
}
