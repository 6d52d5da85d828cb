<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;

/** In which bins things lie, and where they should. */
final readonly class ShelfPlaces
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * What stands at the dock and is to be put away, the oldest first.
     *
     * @return list<WaitingAtDock>
     */
    public function waiting(?Site $site, int $most): array
    {
        /**
         * @var list<array{item_id: int, code: string, name: string, unit: string, site_id: int, site: string,
         *      lot: string, units: string, usual: string|null, beside: string|null, since: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT b.item_id, i.code, i.name, i.unit, b.site_id, s.name site, b.lot, b.quantity units, n.code usual,
                (SELECT o.code FROM shelf_place p JOIN bin o ON o.id = p.bin_id
                    WHERE p.item_id = b.item_id AND p.site_id = b.site_id
                    ORDER BY p.lot <> b.lot, p.lot LIMIT 1) beside,
                (SELECT MAX(m.day) FROM stock_movement m WHERE m.item_id = b.item_id AND m.site_id = b.site_id
                    AND m.state = 'at-dock' AND m.lot = b.lot AND m.quantity > 0) since
             FROM stock_balance b JOIN item i ON i.id = b.item_id JOIN site s ON s.id = b.site_id
             LEFT JOIN stocking t ON t.item_id = b.item_id AND t.site_id = b.site_id LEFT JOIN bin n ON n.id = t.bin_id
             WHERE b.state = 'at-dock' AND b.quantity > 0 AND (:site IS NULL OR b.site_id = :site)
             ORDER BY since, i.name, b.lot LIMIT $most",
            ['site' => $site?->id],
        );
        /** @var array<int, list<string>> $empty */
        $empty = [];
        $waiting = [];
        foreach ($rows as $row) {
            $known = $row['usual'] ?? $row['beside'];
            if (null === $known) {
                $empty[$row['site_id']] ??= $this->emptyShelves($row['site_id']);
                $known = array_shift($empty[$row['site_id']]);
            }
            $waiting[] = new WaitingAtDock(
                $row['item_id'],
                $row['code'],
                $row['name'],
                $row['unit'],
                $row['site_id'],
                $row['site'],
                $row['lot'],
                (float) $row['units'],
                $known ?? '',
                $row['since'],
            );
        }

        return $waiting;
    }

    /** @return list<string> shelves of a site in which nothing belongs and nothing lies */
    private function emptyShelves(int $site): array
    {
        /** @var list<string> $codes */
        $codes = $this->connection->fetchFirstColumn(
            "SELECT b.code FROM bin b WHERE b.site_id = ? AND b.kind = 'shelf'
                AND NOT EXISTS (SELECT 1 FROM stocking t WHERE t.bin_id = b.id)
                AND NOT EXISTS (SELECT 1 FROM shelf_place p WHERE p.bin_id = b.id)
             ORDER BY b.code LIMIT 200",
            [$site],
        );

        return $codes;
    }

    /** It lies there from now on. The first bin an item is put in becomes its own. */
    public function put(Item $item, string $lot, Bin $bin): void
    {
        $site = $bin->site->id;
        $own = $this->connection->fetchAssociative(
            'SELECT bin_id FROM stocking WHERE item_id = ? AND site_id = ? FOR UPDATE',
            [$item->id, $site],
        );
        if (is_array($own) && null === $own['bin_id']) {
            $this->connection->executeStatement(
                'UPDATE stocking SET bin_id = ? WHERE item_id = ? AND site_id = ?',
                [$bin->id, $item->id, $site],
            );
            $own['bin_id'] = $bin->id;
        }
        if (is_array($own) && $own['bin_id'] === $bin->id) {
            $this->connection->executeStatement(
                'DELETE FROM shelf_place WHERE item_id = ? AND site_id = ? AND lot = ?',
                [$item->id, $site, $lot],
            );

            return;
        }
        $this->connection->executeStatement(
            'INSERT INTO shelf_place (item_id, site_id, lot, bin_id) VALUES (?, ?, ?, ?)
             ON DUPLICATE KEY UPDATE bin_id = VALUES(bin_id)',
            [$item->id, $site, $lot, $bin->id],
        );
    }
}
