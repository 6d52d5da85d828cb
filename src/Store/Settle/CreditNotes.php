<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\Supplier\Supplier;

/** Credit notes, found; and those that suppliers still owe. */
final readonly class CreditNotes
{
    public const DISPUTED = 'line-';
    public const BACK = 'back-';
    private const MOST = 200;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function byNumber(Supplier $supplier, string $number): ?CreditNote
    {
        return $this->entities->getRepository(CreditNote::class)
            ->findOneBy(['supplier' => $supplier, 'number' => $number]);
    }

    /** The one that made good what was disputed on any of these lines; null where none did. */
    public function answering(InvoiceLine ...$lines): ?CreditNote
    {
        return $this->entities->getRepository(CreditNoteLine::class)
            ->findOneBy(['disputed' => array_values($lines)])?->note;
    }

    /** Locks it until the transaction ends; null where it is gone or was changed since. */
    public function locked(int $id, int $version): ?CreditNote
    {
        $stands = $this->entities->getConnection()->fetchOne(
            'SELECT version FROM credit_note WHERE id = ? FOR UPDATE',
            [$id],
        );

        return $stands === $version ? $this->entities->find(CreditNote::class, $id) : null;
    }

    /** @return list<CreditNote> of which something is still to come back, the oldest first */
    public function open(): array
    {
        InBatches::ahead($this->entities, CreditNote::class, 'e.usedOn IS NULL', [], 'supplier');
        /** @var list<CreditNote> $notes */
        $notes = $this->entities
            ->createQuery('SELECT c, l FROM '.CreditNote::class.' c LEFT JOIN c.lines l WHERE c.usedOn IS NULL
                ORDER BY c.day, c.id, l.position')
            ->getResult();

        return $notes;
    }

    /** @return list<CreditNote> the latest first */
    public function latest(): array
    {
        /** @var list<CreditNote> $notes */
        $notes = $this->entities
            ->createQuery('SELECT c, s, l FROM '.CreditNote::class.' c JOIN c.supplier s LEFT JOIN c.lines l
                ORDER BY c.id DESC')
            ->getResult();

        return array_slice($notes, 0, self::MOST);
    }

    /**
     * Where a credit note was asked for and none came: what was disputed, and what went back or was kept for less and
     * had been on an invoice.
     *
     * @return list<ExpectedCredit> the oldest first
     */
    public function expected(?Supplier $supplier = null): array
    {
        /**
         * @var list<array{kind: string, id: int, code: string, supplier: string, currency: string, words: string,
         *      amount: string, tax: string, since: string, paid: int}> $rows
         */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            "SELECT 'line-' kind, l.id, s.code, s.name supplier, i.currency,
                CONCAT(l.words, ', invoice ', i.number) words,
                ROUND(l.packs * l.price, 2) - ROUND(l.owed_packs * l.owed_price, 2) amount, l.tax_percent tax,
                i.day since, 0 paid
             FROM (SELECT id FROM invoice_line WHERE on_quantity = 'credit'
                UNION SELECT id FROM invoice_line WHERE on_price = 'credit') asked
             JOIN invoice_line l ON l.id = asked.id JOIN invoice i ON i.id = l.invoice_id
             JOIN supplier s ON s.id = i.supplier_id
             WHERE (:supplier IS NULL OR s.id = :supplier)
                AND NOT EXISTS (SELECT 1 FROM credit_note_line c WHERE c.disputed_id = l.id)
             UNION ALL SELECT 'back-', b.id, s.code, s.name, o.currency, CONCAT(MIN(ol.description),
                IF(COUNT(*) > 1, ' and more', ''), ', ', b.number), SUM(ROUND(x.packs * ol.price, 2)),
                COALESCE(MAX(ol.tax_percent), MAX(s.tax_percent), 0), COALESCE(b.sent_on, DATE(b.at)), 1
             FROM supplier_return b JOIN supplier_return_line x ON x.back_id = b.id AND NOT x.uncharged
             JOIN receipt_line r ON r.id = x.came_id JOIN order_line ol ON ol.id = r.line_id
             JOIN purchase_order o ON o.id = ol.order_id JOIN supplier s ON s.id = o.supplier_id
             WHERE (b.wish = 'credit' AND b.state = 'sent'
                OR b.wish = 'lower-price' AND b.state IN ('asked', 'agreed'))
                AND (:supplier IS NULL OR s.id = :supplier)
             GROUP BY b.id, b.number, s.code, s.name, o.currency, b.sent_on, b.at
             ORDER BY since, id",
            ['supplier' => $supplier?->id],
        );

        return array_map(static fn (array $row): ExpectedCredit => new ExpectedCredit(
            $row['kind'].$row['id'],
            $row['id'],
            $row['code'],
            $row['supplier'],
            $row['currency'],
            $row['words'],
            $row['amount'],
            $row['tax'],
            new \DateTimeImmutable($row['since']),
            1 === $row['paid'],
        ), $rows);
    }
}
