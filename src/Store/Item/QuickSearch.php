<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Finds items while somebody types. */
final readonly class QuickSearch
{
    private const MOST_ELSEWHERE = 500;

    public function __construct(private Connection $connection)
    {
    }

    /** What is kept elsewhere is looked up first; along with the items it would be asked for each of them. */
    public function of(string $typed): ItemSearch
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
