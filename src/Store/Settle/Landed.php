<?php

declare(strict_types=1);

namespace TallBarrel\Store\Settle;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\OneTrip;

/**
 * What goods were expected to cost when they were booked in, freight, duty and handling with them, beside what they
 * cost once everything was known: other charges than expected, the price and the rate on their invoice.
 *
 * @phpstan-type LandedRow array{key: string, name: string, planned: string, charges: string, price: string,
 *      exchange: string, uninvoiced: string, receipts: int, landed: string}
 */
final readonly class Landed
{
    private const MOST = 300;
    /** Key and name of what is listed together. */
    private const BY = [
        'supplier' => ['s.code', 's.name'],
        'item' => ['i.code', 'i.name'],
        'receipt' => ['r.number', "CONCAT(s.name, ', ', DATE_FORMAT(r.day, '%e %b %Y'))"],
    ];

    public function __construct(private Connection $connection)
    {
    }

    /**
     * Home currency, goods in stock only. What is on several invoices is shared by quantity among the receipts.
     *
     * @param 'supplier'|'item'|'receipt' $by
     *
     * @return list<LandedRow> those that differ most first
     */
    public function by(string $by, \DateTimeImmutable $since): array
    {
        [$key, $name] = self::BY[$by];
        /** @var list<LandedRow> $rows */
        $rows = $this->connection->fetchAllAssociative(
            self::query($key, $name, '').' ORDER BY ABS(landed - planned) DESC, `key` LIMIT '.self::MOST,
            [$since->format('Y-m-d')],
        );

        return $rows;
    }

    /**
     * What experience says of suppliers: how much what they brought cost in the end beside what was expected.
     *
     * @param int|null $item     of one item only; null for all
     * @param int|null $supplier of one supplier only; null for all
     *
     * @return array<int, LandedExperience> by supplier
     */
    public function experience(\DateTimeImmutable $since, ?int $item, ?int $supplier): array
    {
        $trip = new OneTrip();
        self::askExperience($trip, $since, $item, $supplier);

        return self::experienceIn($trip->answers($this->connection));
    }

    /** The same, asked along with other things: see experienceIn(). */
    public static function askExperience(
        OneTrip $trip,
        \DateTimeImmutable $since,
        ?int $item,
        ?int $supplier,
    ): void {
        $trip->ask(
            'landed',
            ['key', 'planned', 'landed', 'receipts'],
            '`key`',
            self::query('s.id', 's.name', 'AND (? IS NULL OR i.id = ?) AND (? IS NULL OR s.id = ?)'),
            [$since->format('Y-m-d'), $item, $item, $supplier, $supplier],
        );
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return array<int, LandedExperience> by supplier
     */
    public static function experienceIn(array $answers): array
    {
        $experience = [];
        foreach ($answers['landed'] as $row) {
            $experience[(int) $row['key']] = new LandedExperience(
                (float) $row['planned'],
                (float) $row['landed'],
                (int) $row['receipts'],
            );
        }

        return $experience;
    }

    /** Charges that stand, and what was expected when goods came, though it was billed otherwise since. */
    private static function query(string $key, string $name, string $which): string
    {
        $came = 'x.packs * l.pack_content * x.unit_cost';
        $stand = 'COALESCE(c.stand, 0)';
        $expected = 'COALESCE(c.expected, 0)';

        return "SELECT t.*, planned + charges + price + exchange landed FROM (SELECT $key `key`, $name name,
                ROUND(SUM($came + $expected), 2) planned, ROUND(SUM($stand - $expected), 2) charges,
                ROUND(SUM(x.packs * COALESCE(v.price, 0)), 2) price,
                ROUND(SUM(IF(v.line IS NULL, 0, x.packs * v.agreed - $came)), 2) exchange,
                ROUND(SUM(IF(v.line IS NULL, $came, 0)), 2) uninvoiced, COUNT(DISTINCT r.id) receipts
             FROM receipt r JOIN standing_receipt_line x ON x.receipt_id = r.id
             JOIN order_line l ON l.id = x.line_id JOIN item i ON i.id = l.item_id
             JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             LEFT JOIN (SELECT e.came_id, SUM(IF(h.taken_back IS NULL, e.share, 0)) stand,
                    SUM(IF(h.is_expected = 1, e.share, 0)) expected
                FROM landed_charge_line e JOIN landed_charge h ON h.id = e.charge_id GROUP BY e.came_id) c
                ON c.came_id = x.id
             LEFT JOIN (SELECT l2.id line,
                    SUM(n.owed_packs * (n.owed_price - l2.price) / i2.foreign_for_one) / SUM(n.owed_packs) price,
                    SUM(n.owed_packs * l2.price / i2.foreign_for_one) / SUM(n.owed_packs) agreed
                FROM invoice_line n JOIN invoice i2 ON i2.id = n.invoice_id
                JOIN order_line l2 ON l2.id = n.order_line_id
                WHERE i2.state <> 'entered' AND n.owed_packs > 0
                GROUP BY l2.id) v ON v.line = l.id
             WHERE r.day >= ? $which GROUP BY $key, $name) t WHERE planned <> 0";
    }
}
