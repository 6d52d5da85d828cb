<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Store\Dock\Transfer;
use TallBarrel\Store\Dock\TransferLine;

/** Where what is to go to another site stands, and where it will. */
final readonly class PickingPlaces
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array<int, PickingPlace> by item */
    public function of(Transfer $transfer): array
    {
        $items = array_map(static fn (TransferLine $line): int => $line->item->id, $transfer->lines());
        if ([] === $items) {
            return [];
        }
        $bins = [];
        foreach ([$transfer->source->id, $transfer->target->id] as $site) {
            /** @var array<int, string> $codes */
            $codes = $this->connection->fetchAllKeyValue(
                'SELECT t.item_id, b.code FROM stocking t JOIN bin b ON b.id = t.bin_id
                 WHERE t.site_id = ? AND t.item_id IN (?)',
                [$site, $items],
                [1 => ArrayParameterType::INTEGER],
            );
            $bins[] = $codes;
        }
        /**
         * @var list<array{item_id: int, lot: string, quantity: string, expires_on: string|null,
         *      bin: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT b.item_id, b.lot, b.quantity, l.expires_on, o.code bin FROM stock_balance b
             LEFT JOIN lot l ON l.item_id = b.item_id AND l.number = b.lot
             LEFT JOIN shelf_place p ON p.item_id = b.item_id AND p.site_id = b.site_id AND p.lot = b.lot
             LEFT JOIN bin o ON o.id = p.bin_id
             WHERE b.site_id = ? AND b.state = 'available' AND b.quantity > 0 AND b.item_id IN (?)
             ORDER BY l.expires_on IS NULL, l.expires_on, b.lot",
            [$transfer->source->id, $items],
            [1 => ArrayParameterType::INTEGER],
        );
        $lots = [];
        foreach ($rows as $row) {
            $lots[$row['item_id']][] = [
                'lot' => $row['lot'], 'units' => (float) $row['quantity'], 'expires' => $row['expires_on'],
                'bin' => $row['bin'] ?? '',
            ];
        }
        $places = [];
        foreach ($items as $item) {
            $places[$item] = new PickingPlace($bins[0][$item] ?? '', $bins[1][$item] ?? '', $lots[$item] ?? []);
        }

        return $places;
    }
}
