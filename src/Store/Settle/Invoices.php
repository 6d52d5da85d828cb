<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use TallBarrel\Core\Money\DocumentSums;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Settling\InvoiceState;
use TallBarrel\Core\Settling\Payable;
use TallBarrel\Store\InBatches;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\Supplier;

/** Invoices, found; and what came and is on none. */
final readonly class Invoices
{
    /** Invoices with a line that differs and nobody has decided about; "more" is what they ask too much before tax. */
    public const DIFFERING = "SELECT i.id, i.number, s.name supplier, i.currency,
            SUM(l.packs * l.price - l.owed_packs * l.owed_price) more
        FROM invoice i JOIN supplier s ON s.id = i.supplier_id JOIN invoice_line l ON l.invoice_id = i.id
        WHERE i.state = 'entered' AND ((l.on_quantity IS NULL AND l.owed_packs < l.packs)
            OR (l.on_price IS NULL AND l.owed_price < l.price))
        GROUP BY i.id, i.number, s.name, i.currency";

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** With its lines, what they were ordered on, and what was paid of it. */
    public function find(int $id): ?Invoice
    {
        /** @var Invoice|null $invoice */
        $invoice = $this->entities
            ->createQuery('SELECT i, l, o, p, s, t, b, y FROM '.Invoice::class.' i JOIN i.supplier s LEFT JOIN i.lines l
                LEFT JOIN l.orderLine o LEFT JOIN o.order p LEFT JOIN o.item t LEFT JOIN i.releasedBy b
                LEFT JOIN i.payments y WHERE i.id = :id ORDER BY l.position, y.id')
            ->setParameter('id', $id)
            ->getOneOrNullResult();

        return $invoice;
    }

    /** Locks it until the transaction ends; its version as it stands, null where it is gone. */
    public function lock(int $id): ?int
    {
        $version = $this->entities->getConnection()->fetchOne(
            'SELECT version FROM invoice WHERE id = ? FOR UPDATE',
            [$id],
        );

        return is_int($version) ? $version : null;
    }

    public function byNumber(Supplier $supplier, string $number): ?Invoice
    {
        return $this->entities
            ->getRepository(Invoice::class)
            ->findOneBy(['supplier' => $supplier, 'number' => $number]);
    }

    /** @return list<array{Invoice, Payable}> those that are settled, without an entity for each line; oldest first */
    public function toPay(int $most = 500): array
    {
        InBatches::ahead($this->entities, Invoice::class, 'e.state = :s', ['s' => InvoiceState::Settled], 'supplier');
        /** @var list<Invoice> $invoices */
        $invoices = $this->entities
            ->createQuery('SELECT i FROM '.Invoice::class.' i WHERE i.state = :state ORDER BY i.day, i.id')
            ->setParameter('state', InvoiceState::Settled)
            ->setMaxResults($most)
            ->getResult();
        /** @var list<array{invoice: int, amount: string, tax: string, deposit: int}> $rows */
        $rows = [] === $invoices ? [] : $this->entities->getConnection()->fetchAllAssociative(
            'SELECT invoice_id invoice, owed_packs * owed_price amount, tax_percent tax,
                deposit_id IS NOT NULL AND price > 0 deposit FROM invoice_line WHERE invoice_id IN (?) ORDER BY id',
            [array_map(static fn (Invoice $invoice): int => $invoice->id, $invoices)],
            [ArrayParameterType::INTEGER],
        );
        $lines = $deposits = [];
        foreach ($rows as $row) {
            $lines[$row['invoice']][] = [$row['amount'], Tax::percent($row['tax'])];
            $deposits[$row['invoice']] = ($deposits[$row['invoice']] ?? false) || 1 === $row['deposit'];
        }

        return array_map(static function (Invoice $invoice) use ($lines, $deposits): array {
            $owed = array_map(
                static fn (array $line): array => [Money::of($line[0], $invoice->currency), $line[1]],
                $lines[$invoice->id] ?? [],
            );

            return [
                $invoice,
                $invoice->payableOf(
                    DocumentSums::of($invoice->currency, $owed)->total,
                    $deposits[$invoice->id] ?? false,
                ),
            ];
        }, $invoices);
    }

    /** @return list<Invoice> in a state, with supplier, lines and payments, oldest first */
    public function in(InvoiceState $state, int $most = 500): array
    {
        InBatches::ahead($this->entities, Invoice::class, 'e.state = :s', ['s' => $state], 'supplier');
        $query = $this->entities
            ->createQuery('SELECT i FROM '.Invoice::class.' i WHERE i.state = :state ORDER BY i.day, i.id')
            ->setParameter('state', $state)
            ->setMaxResults($most);
        /** @var list<Invoice> $invoices */
        $invoices = InBatches::read($query, Invoice::class, 'lines', 'payments')->getResult();

        return $invoices;
    }

    /**
     * @param list<int> $orderLines
     * @param int       $except     an invoice that does not count; 0 for none
     *
     * @return array<int, BigDecimal> packs received, ours, and on no other invoice, by order line; below zero where
     *      more was paid than came
     */
    public function received(array $orderLines, int $except = 0): array
    {
        /** @var array<int, string> $rows */
        $rows = [] === $orderLines ? [] : $this->entities->getConnection()->fetchAllKeyValue(
            'SELECT l.id, l.received - l.still_theirs - COALESCE((SELECT SUM(v.owed_packs) FROM invoice_line v
                WHERE v.order_line_id = l.id AND v.invoice_id <> ?), 0)
             FROM order_line l WHERE l.id IN (?)',
            [$except, $orderLines],
            [1 => ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }

    /**
     * What came and is on no invoice, by receipt, oldest first; what came last counts as not invoiced first. The index
     * holds both figures: few of all lines that ever came are looked at.
     *
     * @return list<Uninvoiced>
     */
    public function uninvoiced(?Supplier $supplier = null): array
    {
        /**
         * @var list<array{receipt: string, day: string, code: string, name: string, currency: string, line: int,
         *      packs: string, open: string, price: string}> $rows
         */
        $rows = $this->entities->getConnection()->fetchAllAssociative(
            'SELECT STRAIGHT_JOIN r.number receipt, r.day, s.code, s.name, o.currency, l.id line, SUM(rl.packs) packs,
                l.received - l.still_theirs - l.invoiced - COALESCE(b.packs, 0) open, l.price
             FROM order_line l FORCE INDEX (order_line_billed) JOIN purchase_order o ON o.id = l.order_id
             JOIN supplier s ON s.id = o.supplier_id
             JOIN standing_receipt_line rl ON rl.line_id = l.id JOIN receipt r ON r.id = rl.receipt_id
             LEFT JOIN (SELECT c.line_id, SUM(x.packs) packs FROM supplier_return_line x
                JOIN receipt_line c ON c.id = x.came_id WHERE x.uncharged GROUP BY c.line_id) b ON b.line_id = l.id
             WHERE l.received > 0 AND l.received > l.invoiced
                AND l.received > l.invoiced + l.still_theirs + COALESCE(b.packs, 0)
                AND (? IS NULL OR s.id = ?)
             GROUP BY r.id, r.number, r.day, s.code, s.name, o.currency, l.id, l.received,
                l.still_theirs, l.invoiced, b.packs, l.price
             ORDER BY r.day DESC, r.id DESC, l.id',
            [$supplier?->id, $supplier?->id],
        );
        $left = $found = [];
        foreach ($rows as $row) {
            $open = $left[$row['line']] ?? BigDecimal::of($row['open']);
            $here = BigDecimal::min($open, BigDecimal::of($row['packs']));
            $left[$row['line']] = $open->minus($here);
            if ($here->isPositive()) {
                $found[$row['receipt']]['row'] = $row;
                $found[$row['receipt']]['packs'][$row['line']] = (string) $here;
                $found[$row['receipt']]['value'] = ($found[$row['receipt']]['value'] ?? 0.0)
                    + round($here->multipliedBy($row['price'])->toFloat(), 2);
            }
        }

        return array_map(
            static fn (array $one): Uninvoiced => new Uninvoiced(
                $one['row']['receipt'],
                new \DateTimeImmutable($one['row']['day']),
                $one['row']['code'],
                $one['row']['name'],
                $one['row']['currency'],
                $one['value'],
                $one['packs'],
            ),
            array_reverse(array_values($found)),
        );
    }

    /** Who booked in any of what is on an invoice, and as which receipts: see receivedByIn(). */
    public static function askReceivedBy(OneTrip $trip, Invoice $invoice): void
    {
        $lines = array_map(static fn (InvoiceLine $line): int => $line->orderLine->id ?? 0, $invoice->lines());
        $trip->ask(
            'received',
            ['id', 'number', 'by_id'],
            'id',
            'SELECT DISTINCT r.id, r.number, r.by_id FROM receipt r
             JOIN standing_receipt_line l ON l.receipt_id = r.id WHERE l.line_id IN (0'.
                str_repeat(', ?', count($lines)).')',
            $lines,
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array{list<int>, list<string>} people, receipts
     */
    public static function receivedByIn(array $answers): array
    {
        $people = $numbers = [];
        foreach ($answers['received'] as $row) {
            $numbers[] = (string) $row['number'];
            if (null !== $row['by_id']) {
                $people[(int) $row['by_id']] = (int) $row['by_id'];
            }
        }

        return [array_values($people), $numbers];
    }

    public function wasReceivedBy(Invoice $invoice, Person $person): bool
    {
        $trip = new OneTrip();
        self::askReceivedBy($trip, $invoice);
        [$people] = self::receivedByIn($trip->answers($this->entities->getConnection()));

        return in_array($person->id, $people, true);
    }
}
