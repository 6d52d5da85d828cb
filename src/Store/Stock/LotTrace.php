<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Item\Item;

/** One lot of an item: what is known of it, where it stands, where it came from and where it went. */
final readonly class LotTrace
{
    private const MOST = 300;

    public function __construct(private Connection $connection)
    {
    }

    /** @return LotKnown|null null where nothing of that number was ever here */
    public function facts(Item $item, string $lot): ?LotKnown
    {
        /**
         * @var array{expires_on: string|null, made_on: string|null, origin: string|null, raw_origin: string|null,
         *      theirs: string|null}|false $row
         */
        $row = $this->connection->fetchAssociative(
            'SELECT expires_on, made_on, origin, raw_origin, theirs FROM lot WHERE item_id = ? AND number = ?',
            [$item->id, $lot],
        );
        if (false === $row) {
            return [] === $this->movements($item, $lot) ? null : new LotKnown($lot, null, null, '', '', '');
        }

        return new LotKnown(
            $lot,
            $row['expires_on'],
            $row['made_on'],
            $row['origin'] ?? '',
            $row['raw_origin'] ?? '',
            $row['theirs'] ?? '',
        );
    }

    public function describe(Item $item, LotKnown $lot): void
    {
        $this->connection->executeStatement(
            'INSERT INTO lot (item_id, number, expires_on, made_on, origin, raw_origin, theirs)
             VALUES (?, ?, ?, ?, ?, ?, ?)
             ON DUPLICATE KEY UPDATE expires_on = VALUES(expires_on), made_on = VALUES(made_on),
                origin = VALUES(origin), raw_origin = VALUES(raw_origin), theirs = VALUES(theirs)',
            [
                $item->id, $lot->number, $lot->expires, $lot->made, $lot->origin, $lot->rawOrigin, $lot->theirs,
            ],
        );
    }

    /**
     * @return list<array{site_id: int, site: string, state: string, quantity: string, bin: string|null}>
     */
    public function stands(Item $item, string $lot): array
    {
        /** @var list<array{site_id: int, site: string, state: string, quantity: string, bin: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT b.site_id, s.name site, b.state, b.quantity, COALESCE(o.code, n.code) bin FROM stock_balance b
             JOIN site s ON s.id = b.site_id
             LEFT JOIN stocking t ON t.item_id = b.item_id AND t.site_id = b.site_id LEFT JOIN bin n ON n.id = t.bin_id
             LEFT JOIN shelf_place p ON p.item_id = b.item_id AND p.site_id = b.site_id AND p.lot = b.lot
             LEFT JOIN bin o ON o.id = p.bin_id
             WHERE b.item_id = ? AND b.lot = ? AND b.quantity <> 0 ORDER BY s.id, b.state',
            [$item->id, $lot],
        );

        return $rows;
    }

    /**
     * All that moved it, the latest first, with who it came from.
     *
     * @return list<array{day: string, kind: string, quantity: string, site: string, state: string, reference: string,
     *      person: string|null, supplier: string|null, delivery: int|null}>
     */
    public function movements(Item $item, string $lot): array
    {
        /**
         * @var list<array{day: string, kind: string, quantity: string, site: string, state: string,
         *      reference: string, person: string|null, supplier: string|null, delivery: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT m.day, m.kind, m.quantity, s.name site, m.state, m.reference, p.name person, u.name supplier,
                d.id delivery
             FROM stock_movement m JOIN site s ON s.id = m.site_id LEFT JOIN person p ON p.id = m.person_id
             LEFT JOIN receipt r ON r.number = m.reference LEFT JOIN delivery d ON d.id = r.delivery_id
             LEFT JOIN supplier u ON u.id = d.supplier_id
             WHERE m.item_id = ? AND m.lot = ? ORDER BY m.id DESC LIMIT '.self::MOST,
            [$item->id, $lot],
        );

        return $rows;
    }
}
