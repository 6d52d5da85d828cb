<?php

declare(strict_types=1);

namespace TallBarrel\Store\Item;

use Doctrine\DBAL\Connection;

/** Finds items while somebody types: by beginnings of words where these fill the list, else by any part. */
final readonly class QuickSearch
{
    public function __construct(private Connection $connection)
    {
    }

    /** @param int $most as many as are shown */
    public function of(string $typed, int $most): ItemSearch
    {
        $quick = ItemSearch::byBeginnings($typed);
        if (null === $quick) {
            return ItemSearch::of($typed);
        }
        $found = $this->connection->fetchFirstColumn(
            'SELECT 1 FROM item i WHERE '.$quick->condition.' LIMIT '.$most,
            $quick->values,
        );

        return count($found) < $most ? ItemSearch::of($typed) : $quick;
    }
}
