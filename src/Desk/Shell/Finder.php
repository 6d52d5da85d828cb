<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Shell;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Item\QuickSearch;

/**
 * Finds anything by parts of words, codes and numbers: items, suppliers, orders, receipts and the notes that came with
 * them, quote rounds, agreements, invoices, promises, and what stands in fields of our own.
 */
final readonly class Finder
{
    private const MOST = 12;
    private const OF_A_KIND = 6;

    public function __construct(
        private Connection $connection,
        private QuickSearch $search,
        private SeenSites $seen,
        private CurrentBusiness $business,
        private UrlGeneratorInterface $urls,
    ) {
    }

    /** @return list<array{kind: string, code: string, name: string, url: string}> by kind, the nearest first */
    public function find(string $words): array
    {
        $words = trim(mb_substr($words, 0, 100));
        if ('' === $words) {
            return [];
        }
        $items = $this->search->of($words);
        $like = addcslashes($words, '%_\\');
        $some = self::OF_A_KIND;
        // What is made here has to be compared like what is kept.
        $text = static fn (string $made): string => sprintf('CAST(%s AS CHAR) COLLATE utf8mb4_unicode_ci', $made);
        [$id, $invoice, $reply] = [$text('d.id'), $text('v.id'), $text("CONCAT('answers by ', reply_by)")];
        // Where nothing has fields of our own, nothing is looked through for them.
        $own = fn (OwnFieldThing $thing, string $id): string => true !== $this->business->find()?->hasOwn($thing)
            ? ''
            : "OR $id IN (SELECT v.thing FROM own_value v JOIN own_field f ON f.id = v.field_id
                WHERE f.thing = '{$thing->value}' AND v.content LIKE :like)";
        [$ofItems, $ofSuppliers, $ofOrders, $ofDeliveries] = [
            $own(OwnFieldThing::Item, 'i.id'), $own(OwnFieldThing::Supplier, 'supplier.id'),
            $own(OwnFieldThing::Order, 'o.id'), $own(OwnFieldThing::Delivery, 'd.id'),
        ];
        /** @var list<array{kind: string, code: string, name: string, target: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT kind, code, name, target FROM (
                (SELECT 'item' kind, i.code, i.name, i.code target, i.archived_on IS NOT NULL late FROM item i
                    WHERE ($items->condition) $ofItems
                    ORDER BY i.code = :words DESC, i.archived_on IS NOT NULL, i.code LIKE :starts DESC,
                        i.name LIMIT $some)
                UNION ALL (SELECT 'supplier', code, name, code, archived_on IS NOT NULL FROM supplier
                    WHERE code LIKE :like OR name LIKE :like $ofSuppliers
                    ORDER BY code = :words DESC, name LIMIT $some)
                UNION ALL (SELECT 'order', o.number, CONCAT(s.name, ', ', REPLACE(o.state, '-', ' ')), o.number, 0
                    FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
                    WHERE (o.number LIKE :like OR o.their_reference LIKE :like OR o.project LIKE :like
                        OR o.id IN (SELECT order_id FROM despatch WHERE tracking LIKE :like)
                        $ofOrders)
                        AND (:all OR EXISTS (SELECT 1 FROM order_line l WHERE l.order_id = o.id
                            AND l.site_id IN (:sites)))
                    ORDER BY o.number = :words DESC, o.id DESC LIMIT $some)
                UNION ALL (SELECT 'receipt', r.number, CONCAT(s.name, ', note ', d.note_number), $id, 0
                    FROM receipt r JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
                    WHERE (r.number LIKE :like OR d.note_number LIKE :like OR d.tracking LIKE :like $ofDeliveries)
                        AND (:all OR d.site_id IN (:sites))
                    ORDER BY r.number = :words DESC, r.id DESC LIMIT $some)
                UNION ALL (SELECT 'transfer', t.number, CONCAT(s.name, ' to ', g.name), t.number, 0
                    FROM transfer t JOIN site s ON s.id = t.source_id JOIN site g ON g.id = t.target_id
                    WHERE t.number LIKE :like AND (:all OR t.source_id IN (:sites) OR t.target_id IN (:sites))
                    ORDER BY t.id DESC LIMIT $some)
                UNION ALL (SELECT 'quote round', number, $reply, number, 0
                    FROM quote_round WHERE number LIKE :like ORDER BY id DESC LIMIT $some)
                UNION ALL (SELECT 'agreement', a.number, s.name, a.number, 0 FROM agreement a
                    JOIN supplier s ON s.id = a.supplier_id WHERE a.number LIKE :like ORDER BY a.id DESC LIMIT $some)
                UNION ALL (SELECT 'invoice', v.number, s.name, $invoice, 0 FROM invoice v
                    JOIN supplier s ON s.id = v.supplier_id WHERE v.number LIKE :like ORDER BY v.id DESC LIMIT $some)
                UNION ALL (SELECT 'promise', p.reference, CONCAT(p.customer, ', ', i.name), p.reference, 0
                    FROM customer_promise p JOIN item i ON i.id = p.item_id
                    WHERE (p.reference LIKE :like OR p.customer LIKE :like) AND (:all OR p.site_id IN (:sites))
                    ORDER BY p.settled_on IS NOT NULL, p.id DESC LIMIT $some)
             ) found ORDER BY code = :words DESC, late, code LIKE :starts DESC LIMIT ".self::MOST,
            [
                'like' => '%'.$like.'%',
                'starts' => $like.'%',
                'words' => $words,
                'all' => $this->seen->areAll() ? 1 : 0,
                'sites' => [0, ...$this->seen->ids()],
            ] + $items->values,
            ['sites' => ArrayParameterType::INTEGER],
        );
        $kinds = [];
        foreach ($rows as $row) {
            $kinds[$row['kind']][] = [
                'kind' => $row['kind'],
                'code' => $row['code'],
                'name' => $row['name'],
                'url' => $this->address($row['kind'], $row['target']),
            ];
        }

        return array_merge(...array_values($kinds));
    }

    private function address(string $kind, string $target): string
    {
        return match ($kind) {
            'order' => $this->urls->generate('order', ['number' => $target]),
            'supplier' => $this->urls->generate('supplier', ['code' => $target]),
            'receipt' => $this->urls->generate('delivery', ['id' => $target]),
            'transfer' => $this->urls->generate('transfer_show', ['number' => $target]),
            'quote round' => $this->urls->generate('round', ['number' => $target]),
            'agreement' => $this->urls->generate('agreement', ['number' => $target]),
            'invoice' => $this->urls->generate('settle_invoice', ['id' => $target]),
            'promise' => $this->urls->generate('promises', ['q' => $target]),
            default => $this->urls->generate('item', ['code' => $target]),
        };
    }
}
