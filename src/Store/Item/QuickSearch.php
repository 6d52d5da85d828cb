<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Finds items while somebody types: by beginnings of words where these fill the list, else by any part. */
final readonly class QuickSearch
{
    private const MOST_ELSEWHERE = 500;

    public function __construct(private Connection $connection)
    {
    }

    /** @param int $most as many as are shown */
    public function of(string $typed, int $most): ItemSearch
    {
        $quick = ItemSearch::byBeginnings($typed);
        if (null === $quick) {
            return $this->byParts($typed);
        }
        $found = $this->connection->fetchFirstColumn(
            'SELECT 1 FROM item i WHERE '.$quick->condition.' LIMIT '.$most,
            $quick->values,
        );

        return count($found) < $most ? $this->byParts($typed) : $quick;
    }

    /** What is kept elsewhere is looked up first; along with the items it would be asked for each of them. */
    private function byParts(string $typed): ItemSearch
    {
        return ItemSearch::of($typed, 'i', function (string $part, string $begins): array {
            /** @var list<int> $offered */
            $offered = $this->connection->fetchFirstColumn(
                'SELECT item_id FROM offer WHERE supplier_code LIKE ? LIMIT '.self::MOST_ELSEWHERE,
                [$part],
            );
            /** @var list<int> $packed */
            $packed = $this->connection->fetchFirstColumn(
                'SELECT item_id FROM item_pack WHERE gtin LIKE ? LIMIT '.self::MOST_ELSEWHERE,
                [$begins],
            );

            return [...$offered, ...$packed];
        });
    }
}
