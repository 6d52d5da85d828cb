<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\Money;
use TallBarrel\Store\Business\CurrentBusiness;

/** What has been ordered, in the home currency. */
final readonly class Spending
{
    /** The last price paid for one pack of offer o, for a query over offers; null where none has been bought. */
    public const LAST_PAID = "(SELECT paid.price FROM order_line paid JOIN purchase_order p2 ON p2.id = paid.order_id
        WHERE paid.offer_id = o.id AND p2.sent_at IS NOT NULL AND p2.state <> 'cancelled'
        ORDER BY p2.sent_at DESC, paid.id DESC LIMIT 1)";
    /** In the home currency, of orders sent since the day :month. */
    private const SPENT = "(SELECT SUM(ROUND(l.packs * l.price, 2) / o.foreign_for_one)
        FROM order_line l JOIN purchase_order o ON o.id = l.order_id
        WHERE o.sent_at >= :month AND o.state <> 'cancelled')";

    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /** What is left of the month's budget after all orders sent in it; null where there is no budget. */
    public function budgetLeft(\DateTimeImmutable $today): ?Money
    {
        if (null === $this->business->get()->monthlyBudget) {
            return null;
        }
        /** @var string|null $spent */
        $spent = $this->connection->fetchOne('SELECT '.self::SPENT, ['month' => $today->format('Y-m-01')]);

        return $this->left($spent ?? '0');
    }

    private function left(string $spent): ?Money
    {
        $business = $this->business->get();

        return null === $business->monthlyBudget
            ? null
            : Money::of($business->monthlyBudget, $business->currency)
                ->minus(Money::of(BigDecimal::of($spent), $business->currency))
                ->rounded();
    }

    /**
     * What is still to be paid for and what was bought, for Today: three figures of one trip.
     *
     * @param \DateTimeImmutable $since the day from which on what was received counts as bought
     */
    public function overview(\DateTimeImmutable $today, \DateTimeImmutable $since, int $most): SpendingOverview
    {
        /** @var list<array{what: string, name: string, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT 'due' what, DATE_SUB(d, INTERVAL WEEKDAY(d) DAY) name, SUM(value) value
             FROM (SELECT GREATEST(due, :today) d, home_value value FROM open_line) due GROUP BY name
             UNION ALL
             SELECT 'month', '', COALESCE(".self::SPENT.", 0)
             UNION ALL
             SELECT * FROM (
                SELECT 'bought', s.name, SUM(rl.packs * ol.pack_content * rl.unit_cost) value
                FROM receipt r JOIN receipt_line rl ON rl.receipt_id = r.id JOIN order_line ol ON ol.id = rl.line_id
                JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
                WHERE r.day >= :since GROUP BY s.id, s.name ORDER BY value DESC LIMIT ".$most.
            ') bought',
            [
                'today' => $today->format('Y-m-d'),
                'month' => $today->format('Y-m-01'),
                'since' => $since->format('Y-m-d'),
            ],
        );
        $found = ['due' => [], 'month' => ['' => 0.0], 'bought' => []];
        $spent = '0';
        foreach ($rows as $row) {
            $found[$row['what']][$row['name']] = (float) $row['value'];
            $spent = 'month' === $row['what'] ? $row['value'] : $spent;
        }
        ksort($found['due']);
        arsort($found['bought']);

        return new SpendingOverview($found['due'], $found['bought'], $this->left($spent));
    }

    /**
     * @param list<int>|null $offers null for all
     *
     * @return array<int, BigDecimal> last price paid for one pack, by offer
     */
    public function lastPrices(?array $offers = null): array
    {
        if ([] === $offers) {
            return [];
        }
        /** @var array<int, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT * FROM (SELECT o.id, '.self::LAST_PAID.' last_paid FROM offer o'.
                (null === $offers ? '' : ' WHERE o.id IN (?)').
                ') paid WHERE last_paid IS NOT NULL',
            null === $offers ? [] : [$offers],
            null === $offers ? [] : [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }
}
