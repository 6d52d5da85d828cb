<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Store\OneTrip;

/** What is outstanding on sent orders, and what comes from another site: by the views open_line and open_transfer. */
final readonly class OpenLines
{
    private const BY_SITE = "CONCAT(item_id, ':', site_id)";

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
        $coming = $this->of(self::BY_SITE, $items, null, true, $today);

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
        $trip = new OneTrip();
        self::ask($trip, $key, $items, $site, $toPick);

        return self::in($trip->answers($this->connection), $today);
    }

    /** What bySite() tells of one item, asked along with other things: see in(). */
    public static function askBySite(OneTrip $trip, int $item): void
    {
        self::ask($trip, self::BY_SITE, [$item], null, true);
    }

    /** @param non-empty-list<int> $items */
    private static function ask(OneTrip $trip, string $key, array $items, ?int $site, bool $toPick): void
    {
        $among = 'item_id IN (?'.str_repeat(', ?', count($items) - 1).')'.(null === $site ? '' : ' AND site_id = ?');
        $values = [...$items, ...null === $site ? [] : [$site]];
        $trip->ask(
            'coming',
            ['k', 'number', 'due', 'units', 'counted_on', 'id'],
            'due, id',
            "SELECT $key k, number, due, units, counted_on, id FROM open_line WHERE $among
             UNION ALL SELECT $key, number, due, units, 1, id FROM open_transfer WHERE $among".
                ($toPick ? '' : " AND state <> 'to-pick'"),
            [...$values, ...$values],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array<array-key, Coming> where anything is to come, by what was asked
     */
    public static function in(array $answers, \DateTimeImmutable $today): array
    {
        $open = [];
        foreach ($answers['coming'] as $row) {
            $verdict = null === $row['counted_on'] ? null : '1' === $row['counted_on'];
            $due = new \DateTimeImmutable((string) $row['due'], $today->getTimezone());
            $open[(string) $row['k']][] = new OpenOrder(
                (string) $row['number'],
                BigDecimal::of($row['units'] ?? '0')->strippedOfTrailingZeros(),
                $due,
                $verdict,
            );
        }

        return array_map(static fn (array $orders): Coming => Coming::of($orders, $today), $open);
    }
}
