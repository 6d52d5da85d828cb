<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\DBAL\Connection;

/**
 * Of an order, a receipt, a supplier or an item: what was ordered, came, was invoiced, paid and went back, by line.
 *
 * @phpstan-type BilledRow array{number: string, day: string, supplier: string, supplier_code: string,
 *      currency: string, code: string|null, name: string, pack: string, ordered: string, received: string,
 *      invoiced: string, paid: string, back: string, ordered_value: string, invoiced_value: string,
 *      paid_value: string, open_value: string, invoices: string|null}
 */
final readonly class BillingHistory
{
    private const MOST = 500;
    private const OF = [
        'order' => 'o.number = ?',
        'supplier' => 's.code = ?',
        'item' => 'i.code = ?',
        'receipt' => 'EXISTS (SELECT 1 FROM receipt r JOIN receipt_line x ON x.receipt_id = r.id
            WHERE r.number = ? AND x.line_id = l.id)',
    ];

    public function __construct(private Connection $connection)
    {
    }

    /**
     * Packs, and values in the currency of the order before tax; what is open came and is not paid.
     *
     * @param 'order'|'receipt'|'supplier'|'item' $of
     *
     * @return list<BilledRow> the latest order first
     */
    public function of(string $of, string $which): array
    {
        /** @var list<BilledRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT o.number, DATE(o.sent_at) day, s.name supplier, s.code supplier_code,
                o.currency, i.code, l.description name,
                l.pack_name pack, l.packs ordered, l.received, COALESCE(v.packs, 0) invoiced, COALESCE(v.paid, 0) paid,
                COALESCE(b.packs, 0) back, ROUND(l.packs * l.price, 2) ordered_value,
                ROUND(COALESCE(v.value, 0), 2) invoiced_value, ROUND(COALESCE(v.paid_value, 0), 2) paid_value,
                ROUND(COALESCE(v.value, 0) - COALESCE(v.paid_value, 0)
                    + GREATEST(l.received - l.still_theirs - COALESCE(v.packs, 0) - COALESCE(b.uncharged, 0), 0)
                    * l.price, 2) open_value,
                v.invoices
             FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             LEFT JOIN item i ON i.id = l.item_id
             LEFT JOIN (SELECT n.order_line_id line, SUM(n.owed_packs) packs, SUM(n.owed_packs * n.owed_price) value,
                    SUM(IF(c.state = 'paid', n.owed_packs, 0)) paid,
                    SUM(IF(c.state = 'paid', n.owed_packs * n.owed_price, 0)) paid_value,
                    GROUP_CONCAT(DISTINCT CONCAT(c.id, ':', c.number) ORDER BY c.id SEPARATOR ' ') invoices
                FROM invoice_line n JOIN invoice c ON c.id = n.invoice_id WHERE n.order_line_id IS NOT NULL
                GROUP BY n.order_line_id) v ON v.line = l.id
             LEFT JOIN (SELECT x.line_id line, SUM(y.packs) packs, SUM(IF(y.uncharged, y.packs, 0)) uncharged
                FROM supplier_return_line y JOIN supplier_return k ON k.id = y.back_id
                JOIN receipt_line x ON x.id = y.came_id WHERE k.state IN ('sent', 'settled')
                GROUP BY x.line_id) b ON b.line = l.id
             WHERE o.sent_at IS NOT NULL AND ".self::OF[$of].'
             ORDER BY o.id DESC, l.position LIMIT '.self::MOST,
            [$which],
        );

        return $rows;
    }
}
