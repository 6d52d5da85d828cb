<?php

declare(strict_types=1);

namespace TallBarrel\Store\Stock;

use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Settling\Valuing;
use TallBarrel\Store\Business\CurrentBusiness;

/** Proves what is derived against what it is derived from. */
final readonly class Verification
{
    private const CHECKS = [
        'balance against movements' => <<<'SQL'
        SELECT CONCAT(i.code, ' at ', s.code, ', ', k.state, IF(k.lot = '', '', CONCAT(', lot ', k.lot))) place,
               COALESCE(b.quantity, 0) stands, COALESCE(m.quantity, 0) proven
        FROM (SELECT item_id, site_id, state, lot FROM stock_balance UNION SELECT item_id, site_id, state, lot
        FROM stock_movement) k
        LEFT JOIN stock_balance b ON (b.item_id, b.site_id, b.state, b.lot) = (k.item_id, k.site_id, k.state, k.lot)
        LEFT JOIN (SELECT item_id, site_id, state, lot, SUM(quantity) quantity FROM stock_movement
        GROUP BY item_id, site_id, state, lot) m
               ON (m.item_id, m.site_id, m.state, m.lot) = (k.item_id, k.site_id, k.state, k.lot)
        JOIN item i ON i.id = k.item_id JOIN site s ON s.id = k.site_id
        WHERE COALESCE(b.quantity, 0) <> COALESCE(m.quantity, 0)
        SQL,
        'received on order lines against receipts' => <<<'SQL'
        SELECT CONCAT(o.number, ' line ', l.position) place, l.received stands,
            COALESCE(r.packs, 0) - COALESCE(b.packs, 0) proven
        FROM order_line l JOIN purchase_order o ON o.id = l.order_id
        LEFT JOIN (SELECT line_id, SUM(packs) packs FROM receipt_line GROUP BY line_id) r ON r.line_id = l.id
        LEFT JOIN (SELECT c.line_id, SUM(x.packs) packs FROM supplier_return_line x
            JOIN supplier_return s ON s.id = x.back_id JOIN receipt_line c ON c.id = x.came_id
            WHERE s.wish = 'replacement' AND s.sent_on IS NOT NULL GROUP BY c.line_id) b ON b.line_id = l.id
        WHERE l.received <> COALESCE(r.packs, 0) - COALESCE(b.packs, 0)
        SQL,
        'receipts against movements' => <<<'SQL'
        SELECT CONCAT(r.number, ', ', i.code) place, SUM(l.packs * o.pack_content) stands, COALESCE(MAX(m.quantity),
            0) proven
        FROM receipt_line l JOIN receipt r ON r.id = l.receipt_id JOIN order_line o ON o.id = l.line_id
        JOIN item i ON i.id = o.item_id
        LEFT JOIN (SELECT reference, item_id, SUM(quantity) quantity FROM stock_movement
        WHERE kind IN ('receipt', 'receipt-back')
        GROUP BY reference, item_id) m
               ON m.reference = r.number AND m.item_id = i.id
        GROUP BY r.id, r.number, i.id, i.code
        HAVING stands <> proven
        SQL,
        'invoiced on order lines against invoices' => <<<'SQL'
        SELECT CONCAT(o.number, ' line ', l.position) place, l.invoiced stands, COALESCE(v.packs, 0) proven
        FROM order_line l JOIN purchase_order o ON o.id = l.order_id
        LEFT JOIN (SELECT order_line_id, SUM(owed_packs) packs FROM invoice_line GROUP BY order_line_id) v
            ON v.order_line_id = l.id
        WHERE l.invoiced <> COALESCE(v.packs, 0)
        SQL,
        'last of the kept costs against the average' => <<<'SQL'
        SELECT i.code place, i.average_cost stands, c.cost proven FROM item i
        JOIN (SELECT item_id, MAX(day) day FROM item_cost GROUP BY item_id) last ON last.item_id = i.id
        JOIN item_cost c ON c.item_id = i.id AND c.day = last.day
        WHERE i.average_cost <> c.cost
        SQL,
        'state of orders against what is outstanding' => <<<'SQL'
        SELECT o.number place, o.state stands,
               CASE WHEN SUM(GREATEST(l.packs - l.received - l.closed_short, 0)) > 0
               AND SUM(l.received) > 0 THEN 'part-received'
                    WHEN SUM(GREATEST(l.packs - l.received - l.closed_short, 0)) > 0 THEN 'sent'
                    WHEN SUM(l.received) > 0 THEN 'received' ELSE 'closed' END proven
        FROM purchase_order o JOIN order_line l ON l.order_id = o.id
        WHERE o.state IN ('sent', 'acknowledged', 'part-received', 'received')
        GROUP BY o.id, o.number, o.state
        HAVING NOT (stands = proven OR (stands = 'acknowledged' AND proven = 'sent'))
        SQL,
    ];

    public function __construct(
        private Connection $connection,
        private AverageCosts $averages,
        private LayersProof $layers,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<string> every difference, in words; empty when all is proven */
    public function differences(): array
    {
        $found = [];
        foreach (self::CHECKS as $what => $query) {
            /** @var array{place: string, stands: string, proven: string} $row */
            foreach ($this->connection->iterateAssociative($query) as $row) {
                $found[] = sprintf(
                    '%s: %s stands at %s, proven %s',
                    $what,
                    $row['place'],
                    $row['stands'],
                    $row['proven'],
                );
            }
        }

        return [
            ...$found,
            ...$this->averages(),
            ...Valuing::Fifo === $this->business->find()?->valuing()
                ? $this->layers->differences($this->clock->now()->setTime(0, 0))
                : [],
        ];
    }

    /** @return list<string> average costs that are not what the receipts come to */
    private function averages(): array
    {
        /** @var array<int, array{code: string, cost: string|null}> $items */
        $items = $this->connection->fetchAllAssociativeIndexed('SELECT id, code, average_cost cost FROM item');
        $found = [];
        foreach ($this->averages->proven() as $item => $proven) {
            $stands = $items[$item]['cost'];
            if (null === $stands || !$proven->isEqualTo($stands)) {
                $found[] = sprintf(
                    'average cost against receipts: %s stands at %s, proven %s',
                    $items[$item]['code'],
                    $stands ?? 'nothing',
                    $proven,
                );
            }
        }

        return $found;
    }
}
