<?php

declare(strict_types=1);

namespace TallBarrel\Store\Supplier;

use Doctrine\DBAL\Connection;
use TallBarrel\Store\Settle\Landed;

/** How a supplier behaves, from our own orders, receipts and quotes. */
final readonly class SupplierRecord
{
    private const FEW = 5;
    private const QUARTERS = 8;

    public function __construct(private Connection $connection, private Landed $landed)
    {
    }

    /**
     * @return array{facts: array<string, string>, prices: string, category: string, priceMove: string} what can be
     *      said, and two lines drawn 304 by 74
     */
    public function of(Supplier $supplier, \DateTimeImmutable $today): array
    {
        $since = $today->modify('-1 year')->format('Y-m-d');
        /** @var array{orders: int, on_time: string|null, full: string|null} $delivered */
        $delivered = $this->connection->fetchAssociative(
            'SELECT COUNT(*) orders, SUM(last_day <= due) on_time, SUM(short = 0) full FROM (
                SELECT o.id, COALESCE(o.promised_on, o.wanted_on) due, MAX(r.day) last_day,
                MAX(l.closed_short > 0) short
                FROM purchase_order o JOIN order_line l ON l.order_id = o.id
                   JOIN standing_receipt_line rl ON rl.line_id = l.id
                JOIN receipt r ON r.id = rl.receipt_id
                WHERE o.supplier_id = ? AND o.state IN (\'received\', \'closed\') AND o.sent_at >= ?
                GROUP BY o.id, due) done',
            [$supplier->id, $since],
        );
        $orders = $delivered['orders'];
        $few = $orders < self::FEW ? ', few' : '';
        $share = static fn (?string $part): string => 0 === $orders
            ? 'no deliveries yet'
            : sprintf('%d %% of %d%s', (int) round((100 * (float) $part) / $orders), $orders, $few);
        /** @var array{n: int, hours: string|null} $answers */
        $answers = $this->connection->fetchAssociative(
            'SELECT COUNT(*) n, AVG(TIMESTAMPDIFF(MINUTE, q.asked_at, a.at)) / 60 hours FROM quote q
                JOIN quote_answer a ON a.quote_id = q.id AND a.revision = 1
                WHERE q.supplier_id = ? AND q.asked_at IS NOT NULL',
            [$supplier->id],
        );
        $hours = (float) $answers['hours'];
        $landed = $this->landed->experience($today->modify('-1 year'), null, $supplier->id)[$supplier->id] ?? null;
        [$mine, $all] = $this->indices($supplier->id, $today);
        $drawn = count($mine) >= 2;

        return [
            'facts' => [
                'On time, a year back' => $share($delivered['on_time']),
                'In full' => $share($delivered['full']),
                'Answers a quote in' => 0 === $answers['n']
                        ? 'never asked'
                        : ($hours < 48 ? sprintf('%.0f h', $hours) : sprintf('%.1f days', $hours / 24)).
                            ($answers['n'] < self::FEW ? ', few' : ''),
                'What it cost in the end' => $landed?->words() ?? 'nothing came yet',
            ],
            'prices' => $drawn ? self::line($mine, $all) : '',
            'category' => $drawn ? self::line($all, $mine) : '',
            'priceMove' => $drawn ? sprintf('%+.1f %%', 100 * (end($mine) - 1)) : '',
        ];
    }

    /**
     * Prices paid against those of each item's first quarter, by quarter.
     *
     * @return array{array<int, float>, array<int, float>} by quarters ago, oldest first: one supplier's, and
     *      everybody's
     *      in the categories it sells
     */
    private function indices(int $supplier, \DateTimeImmutable $today): array
    {
        /** @var list<array{item: int, ago: int|string, mine: string|null, price: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT item, ago, AVG(IF(supplier = :supplier, price, NULL)) mine, AVG(price) price FROM (
                SELECT l.item_id item, o.supplier_id supplier, DATEDIFF(:today, o.sent_at) DIV 91 ago,
                    l.price / l.pack_content / o.foreign_for_one price
                FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN item i ON i.id = l.item_id
                WHERE o.sent_at >= :since AND i.category IN (SELECT DISTINCT j.category FROM item j
                    JOIN offer f ON f.item_id = j.id WHERE f.supplier_id = :supplier)
             ) paid GROUP BY item, ago ORDER BY ago DESC',
            [
                'supplier' => $supplier,
                'today' => $today->format('Y-m-d'),
                'since' => $today->modify(sprintf('-%d days', 91 * self::QUARTERS))->format('Y-m-d'),
            ],
        );

        return [self::index($rows, 'mine'), self::index($rows, 'price')];
    }

    /**
     * @param list<array{item: int, ago: int|string, mine: string|null, price: string}> $rows
     * @param 'mine'|'price'                                                            $which
     *
     * @return array<int, float>
     */
    private static function index(array $rows, string $which): array
    {
        $first = $sums = [];
        foreach ($rows as $row) {
            if (null === $row[$which]) {
                continue;
            }
            $first[$row['item']] ??= (float) $row[$which];
            if ($first[$row['item']] > 0) {
                $sums[(int) $row['ago']][] = (float) $row[$which] / $first[$row['item']];
            }
        }
        krsort($sums);

        return array_map(static fn (array $ratios): float => array_sum($ratios) / count($ratios), $sums);
    }

    /**
     * @param array<int, float> $index
     * @param array<int, float> $other on the same scale
     */
    private static function line(array $index, array $other): string
    {
        $reach = max(
            0.02,
            ...array_map(static fn (float $one): float => abs($one - 1), [
                ...array_values($index),
                ...array_values($other),
            ]),
        );
        $points = [];
        $oldest = max(1, (int) array_key_first($index), (int) array_key_first($other));
        foreach ($index as $ago => $value) {
            $points[] = sprintf('%.1f,%.1f', 2 + (300 * ($oldest - $ago)) / $oldest, 37 - (33 * ($value - 1)) / $reach);
        }

        return implode(' ', $points);
    }
}
