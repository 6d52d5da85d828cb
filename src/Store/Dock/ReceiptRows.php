<?php

declare(strict_types=1);

namespace TallBarrel\Store\Dock;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Site\Site;

/**
 * What was booked in, line by line, found by parts of numbers, notes, orders, items, lots and fields of our own.
 *
 * @phpstan-type ReceiptRow array{delivery: int, number: string, day: string, note: string, supplier: string,
 *      supplier_code: string, site: string, orders: string, code: string, item: string, packs: string, pack: string,
 *      units: string, unit: string, lot: string, person: string}
 */
final readonly class ReceiptRows
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return list<ReceiptRow> the latest first */
    public function find(string $words, ?Site $site, int $most): array
    {
        $like = '%'.addcslashes($words, '%_\\').'%';
        /** @var list<ReceiptRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT d.id delivery, r.number, r.day, d.note_number note, s.name supplier, s.code supplier_code,
                t.name site, o.number orders, COALESCE(i.code, '') code, l.description item, x.packs,
                l.pack_name pack, x.packs * l.pack_content units, COALESCE(i.unit, '') unit, x.lot,
                COALESCE(p.name, '') person
             FROM receipt r JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
             JOIN site t ON t.id = d.site_id JOIN receipt_line x ON x.receipt_id = r.id
             JOIN order_line l ON l.id = x.line_id JOIN purchase_order o ON o.id = l.order_id
             LEFT JOIN item i ON i.id = l.item_id LEFT JOIN person p ON p.id = r.by_id
             WHERE (:site IS NULL OR d.site_id = :site)
               AND (:words = '' OR r.number LIKE :like OR d.note_number LIKE :like OR o.number LIKE :like
                   OR s.name LIKE :like OR s.code LIKE :like OR i.code LIKE :like OR l.description LIKE :like
                   OR x.lot LIKE :like OR EXISTS (SELECT 1 FROM own_value v JOIN own_field f ON f.id = v.field_id
                       WHERE f.thing = 'delivery' AND v.thing = d.id AND v.content LIKE :like))
             ORDER BY r.day DESC, r.id DESC, x.id LIMIT $most",
            ['words' => $words, 'like' => $like, 'site' => $site?->id],
        );

        return $rows;
    }
}
