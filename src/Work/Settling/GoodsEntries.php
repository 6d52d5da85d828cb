<?php

declare(strict_types=1);

namespace TallBarrel\Work\Settling;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Settling\Books\BookEntry;
use TallBarrel\Core\Settling\Books\LedgerAccount;
use TallBarrel\Core\Settling\ChargeKind;
use TallBarrel\Store\Stock\MovementKind;

/** What goods did to the accounts: received, sent back, charged with freight, counted and scrapped. */
final readonly class GoodsEntries
{
    /** What takes stock out or in without a paper of a supplier. */
    private const PUT_RIGHT = [MovementKind::Count, MovementKind::Adjusted, MovementKind::Scrapped];

    public function __construct(private Connection $connection)
    {
    }

    /**
     * @param \DateTimeImmutable $first of the month; what is before it and not booked yet comes along
     *
     * @return list<BookEntry>
     */
    public function until(\DateTimeImmutable $first, \DateTimeImmutable $end): array
    {
        return [
            ...$this->opening($end),
            ...$this->receipts($end),
            ...$this->returns($end),
            ...$this->takenOver($end),
            ...$this->charges($end),
            ...$this->putRight($first, $end),
        ];
    }

    /** @return list<BookEntry> what was there when the stock began */
    private function opening(\DateTimeImmutable $end): array
    {
        /** @var array{day: string|null, value: string|null} $row */
        $row = $this->connection->fetchAssociative(
            'SELECT MIN(day) day, SUM(ROUND(quantity * COALESCE(unit_cost, 0), 2)) value FROM stock_movement
             WHERE kind = ? AND day <= ?',
            [MovementKind::Opening->value, $end->format('Y-m-d')],
        );

        return null === $row['day'] ? [] : [BookEntry::of(
            'opening-'.$row['day'],
            new \DateTimeImmutable($row['day']),
            'opening',
            'Opening stock',
            [LedgerAccount::Stock->value => BigDecimal::of($row['value'] ?? 0)],
            LedgerAccount::Opening,
        )];
    }

    /** @return list<BookEntry> what came, and what was taken back as booked by mistake; at the rate of that day */
    private function receipts(\DateTimeImmutable $end): array
    {
        /** @var list<array{id: int, number: string, day: string, name: string, expense: string, theirs: string,
         *      stock: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT r.id, r.number, r.day, MIN(s.name) name,
                SUM(IF(l.item_id IS NULL, x.packs * l.pack_content * x.unit_cost, 0)) expense,
                SUM(IF(l.consigned, x.packs * l.pack_content * x.unit_cost, 0)) theirs, MAX(m.stock) stock
             FROM receipt r JOIN receipt_line x ON x.receipt_id = r.id JOIN order_line l ON l.id = x.line_id
             JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             LEFT JOIN (SELECT reference, SUM(quantity * unit_cost) stock FROM stock_movement
                WHERE kind IN ('receipt', 'receipt-back') GROUP BY reference) m ON m.reference = r.number
             WHERE r.day <= ? AND NOT EXISTS
                (SELECT 1 FROM booked_entry b WHERE b.booked_key = CONCAT('receipt-', r.id))
             GROUP BY r.id, r.number, r.day ORDER BY r.id",
            [$end->format('Y-m-d')],
        );

        return array_map(static fn (array $row): BookEntry => BookEntry::of(
            'receipt-'.$row['id'],
            new \DateTimeImmutable($row['day']),
            $row['number'],
            'Received from '.$row['name'],
            [
                LedgerAccount::Stock->value => BigDecimal::of($row['stock'] ?? 0),
                LedgerAccount::Expense->value => BigDecimal::of($row['expense']),
                LedgerAccount::Consigned->value => BigDecimal::of($row['theirs'])->negated(),
            ],
            LedgerAccount::Received,
        ), $rows);
    }

    /** @return list<BookEntry> what left for a supplier: a claim where it was invoiced, else nothing is owed for it */
    private function returns(\DateTimeImmutable $end): array
    {
        /** @var list<array{id: int, number: string, day: string, name: string, claimed: string, theirs: string,
         *      open: string, stock: string|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT b.id, b.number, b.sent_on day, MIN(s.name) name,
                SUM(IF(x.uncharged OR b.wish = 'replacement', 0, x.packs * l.pack_content * c.unit_cost)) claimed,
                SUM(IF(x.theirs, x.packs * l.pack_content * c.unit_cost, 0)) theirs,
                SUM(IF(NOT x.theirs AND (x.uncharged OR b.wish = 'replacement'),
                    x.packs * l.pack_content * c.unit_cost, 0)) open,
                MAX(m.stock) stock
             FROM supplier_return b JOIN supplier_return_line x ON x.back_id = b.id
             JOIN receipt_line c ON c.id = x.came_id JOIN order_line l ON l.id = c.line_id
             JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             LEFT JOIN (SELECT reference, SUM(quantity * unit_cost) stock FROM stock_movement
                WHERE kind = 'returned' GROUP BY reference) m ON m.reference = b.number
             WHERE b.sent_on IS NOT NULL AND b.sent_on <= ? GROUP BY b.id, b.number, b.sent_on ORDER BY b.id",
            [$end->format('Y-m-d')],
        );

        return array_map(static fn (array $row): BookEntry => BookEntry::of(
            'back-'.$row['id'],
            new \DateTimeImmutable($row['day']),
            $row['number'],
            'Sent back to '.$row['name'],
            [
                LedgerAccount::Stock->value => BigDecimal::of($row['stock'] ?? 0),
                LedgerAccount::Claims->value => BigDecimal::of($row['claimed']),
                LedgerAccount::Consigned->value => BigDecimal::of($row['theirs']),
                LedgerAccount::Received->value => BigDecimal::of($row['open']),
            ],
            LedgerAccount::PriceDifference,
        ), $rows);
    }

    /** @return list<BookEntry> what was on consignment and is ours: owed from then on */
    private function takenOver(\DateTimeImmutable $end): array
    {
        /** @var list<array{id: int, number: string, day: string, name: string, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT u.id, o.number, u.day, s.name, u.packs * l.pack_content * c.cost value
             FROM consigned_use u JOIN order_line l ON l.id = u.line_id JOIN purchase_order o ON o.id = l.order_id
             JOIN supplier s ON s.id = o.supplier_id JOIN (SELECT line_id, SUM(packs * unit_cost) / SUM(packs) cost
                FROM standing_receipt_line GROUP BY line_id) c ON c.line_id = l.id
             WHERE u.day <= ? ORDER BY u.id',
            [$end->format('Y-m-d')],
        );

        return array_map(static fn (array $row): BookEntry => BookEntry::of(
            'consigned-'.$row['id'],
            new \DateTimeImmutable($row['day']),
            $row['number'],
            'Taken over from '.$row['name'],
            [LedgerAccount::Consigned->value => BigDecimal::of($row['value'])],
            LedgerAccount::Received,
        ), $rows);
    }

    /** @return list<BookEntry> freight and the like, spread; and taken back */
    private function charges(\DateTimeImmutable $end): array
    {
        /** @var list<array{id: int, number: string, day: string, back: string|null, kind: string, home: string,
         *      expected: int, stock: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT c.id, c.number, DATE(c.at) day, DATE(c.taken_back_at) back, c.kind, c.home,
                c.is_expected expected, l.stock
             FROM landed_charge c
             JOIN (SELECT charge_id, SUM(to_stock) stock FROM landed_charge_line GROUP BY charge_id) l
                ON l.charge_id = c.id
             WHERE DATE(c.at) <= ? ORDER BY c.id',
            [$end->format('Y-m-d')],
        );
        $entries = [];
        foreach ($rows as $row) {
            $isBilled = ChargeKind::from($row['kind'])->isBilled();
            $account = $isBilled ? LedgerAccount::Charges : LedgerAccount::Handling;
            $amounts = [
                LedgerAccount::Stock->value => BigDecimal::of($row['stock']),
                $account->value => BigDecimal::of($row['home'])->negated(),
            ];
            $words = ucfirst($row['kind']).(1 === $row['expected'] ? ' expected with goods' : ' spread over goods');
            $entries[] = BookEntry::of('charge-'.$row['id'], new \DateTimeImmutable($row['day']), $row['number'],
                $words, $amounts, LedgerAccount::CostOfSales);
            if (null !== $row['back'] && $row['back'] <= $end->format('Y-m-d')) {
                $entries[] = BookEntry::of('charge-back-'.$row['id'], new \DateTimeImmutable($row['back']),
                    $row['number'], ucfirst($row['kind']).' taken back', array_map(
                        static fn (BigDecimal $amount): BigDecimal => $amount->negated(),
                        $amounts,
                    ), LedgerAccount::CostOfSales);
            }
        }

        return $entries;
    }

    /** @return list<BookEntry> what was counted, put right and scrapped in the month, at what it cost that day */
    private function putRight(\DateTimeImmutable $first, \DateTimeImmutable $end): array
    {
        $entries = [];
        foreach (self::PUT_RIGHT as $kind) {
            $value = $this->connection->fetchOne(
                'SELECT SUM(m.quantity * COALESCE((SELECT c.cost FROM item_cost c
                    WHERE c.item_id = m.item_id AND c.day <= m.day ORDER BY c.day DESC LIMIT 1), i.average_cost, 0))
                 FROM stock_movement m JOIN item i ON i.id = m.item_id WHERE m.kind = ? AND m.day BETWEEN ? AND ?',
                [$kind->value, $first->format('Y-m-d'), $end->format('Y-m-d')],
            );
            $entries[] = BookEntry::of(
                sprintf('%s-%s', $kind->value, $first->format('Y-m')),
                $end,
                $first->format('Y-m'),
                'Stock '.$kind->words(),
                [LedgerAccount::Stock->value => BigDecimal::of(is_string($value) ? $value : 0)],
                LedgerAccount::StockDifference,
            );
        }

        return $entries;
    }
}
