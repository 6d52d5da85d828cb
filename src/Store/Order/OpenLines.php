<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\OpenOrder;

/** What is outstanding on sent orders, and what comes from another site: by the views open_line and open_transfer. */
final readonly class OpenLines
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * What is to come of some items, site by site.
     *
     * @param list<int> $items
     *
     * @return array<string, Coming> by "item:site", where anything is
     */
    public function bySite(array $items, \DateTimeImmutable $today): array
    {
        /** @var array<string, Coming> $coming */
        $coming = $this->of("CONCAT(item_id, ':', site_id)", $items, null, true, $today);

        return $coming;
    }

    /**
     * What is to come of some items to one site or all together.
     *
     * @param list<int> $items
     *
     * @return array<array-key, Coming> by item, where anything is
     */
    public function byItem(array $items, ?int $site, \DateTimeImmutable $today): array
    {
        // For all sites together, what still stands at one of them does not come.
        return $this->of('item_id', $items, $site, null !== $site, $today);
    }

    /**
     * @param list<int> $items
     * @param bool      $toPick whether with what has not left another site yet
     *
     * @return array<array-key, Coming>
     */
    private function of(string $key, array $items, ?int $site, bool $toPick, \DateTimeImmutable $today): array
    {
        if ([] === $items) {
            return [];
        }
        /** @var list<array{k: int|string, number: string, due: string, units: string, counted_on: int|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $key k, number, due, units, counted_on, id FROM open_line
                WHERE item_id IN (:items) AND (:site IS NULL OR site_id = :site)
             UNION ALL SELECT $key, number, due, units, 1, id FROM open_transfer
                WHERE item_id IN (:items) AND (:site IS NULL OR site_id = :site) AND (:picks OR state <> 'to-pick')
             ORDER BY due, id",
            ['items' => $items, 'site' => $site, 'picks' => $toPick ? 1 : 0],
            ['items' => ArrayParameterType::INTEGER],
        );
        $open = [];
        foreach ($rows as $row) {
            $verdict = null === $row['counted_on'] ? null : 1 === $row['counted_on'];
            $due = new \DateTimeImmutable($row['due'], $today->getTimezone());
            $open[$row['k']][] = new OpenOrder(
                $row['number'],
                BigDecimal::of($row['units'])->strippedOfTrailingZeros(),
                $due,
                $verdict,
            );
        }

        return array_map(static fn (array $orders): Coming => Coming::of($orders, $today), $open);
    }
}
