<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Replenish\OpenOrder;

/**
 * What is to be looked at before it may be sold, and the day on which it will be free: after as many days as looking at
 * the item has taken before, in the middle of its last ones; where nobody has, of all of them.
 */
final readonly class InInspection
{
    private const LOOKED_BACK = 20;
    /** Where nothing was ever looked at. */
    private const DAYS = 2;

    public function __construct(private Connection $connection)
    {
    }

    /** @return non-negative-int whole days from standing there to being decided on */
    public function days(int $item): int
    {
        return $this->middle('WHERE item_id = ? AND since IS NOT NULL', [$item])
            ?? $this->middle('WHERE since IS NOT NULL', [])
            ?? self::DAYS;
    }

    /** The day from which what stands there has stood there, Y-m-d; null where nothing does. */
    public function since(int $item, int $site, string $lot): ?string
    {
        $since = $this->connection->fetchOne(
            'SELECT since FROM in_inspection WHERE item_id = ? AND site_id = ? AND lot = ?',
            [$item, $site, $lot],
        );

        return is_string($since) ? $since : null;
    }

    /** The day on which what stands there since then is free; never in the past. */
    public function freeOn(int $item, string $since, \DateTimeImmutable $today): \DateTimeImmutable
    {
        $day = (new \DateTimeImmutable($since, $today->getTimezone()))->modify(sprintf('+%d days', $this->days($item)));

        return max($today, $day);
    }

    /**
     * @param list<int> $items
     *
     * @return array<string, list<OpenOrder>> by "item:site"
     */
    public function coming(array $items, \DateTimeImmutable $today): array
    {
        /** @var list<array{item_id: int, site_id: int, units: string, since: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT item_id, site_id, units, since FROM in_inspection WHERE item_id IN (?)
             ORDER BY item_id, site_id, since',
            [$items],
            [ArrayParameterType::INTEGER],
        );
        $coming = [];
        foreach ($rows as $row) {
            $coming[$row['item_id'].':'.$row['site_id']][] = OpenOrder::inInspection(
                BigDecimal::of($row['units'])->strippedOfTrailingZeros(),
                $this->freeOn($row['item_id'], $row['since'], $today),
            );
        }

        return $coming;
    }

    /**
     * @param list<int> $with
     *
     * @return non-negative-int|null
     */
    private function middle(string $of, array $with): ?int
    {
        /** @var list<int> $days */
        $days = $this->connection->fetchFirstColumn(
            "SELECT DATEDIFF(at, since) FROM inspection $of ORDER BY id DESC LIMIT ".self::LOOKED_BACK,
            $with,
        );
        sort($days);

        return [] === $days ? null : max(0, $days[intdiv(count($days), 2)]);
    }
}
