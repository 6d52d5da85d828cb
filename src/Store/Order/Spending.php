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
    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /** What is left of the month's budget after all orders sent in it; null where there is no budget. */
    public function budgetLeft(\DateTimeImmutable $today): ?Money
    {
        $business = $this->business->get();
        if (null === $business->monthlyBudget) {
            return null;
        }
        /** @var string|null $spent */
        $spent = $this->connection->fetchOne(
            "SELECT SUM(ROUND(l.packs * l.price, 2) / o.foreign_for_one) FROM order_line l
                JOIN purchase_order o ON o.id = l.order_id
             WHERE o.sent_at >= ? AND o.state <> 'cancelled'",
            [$today->format('Y-m-01')],
        );

        return Money::of($business->monthlyBudget, $business->currency)
            ->minus(Money::of(BigDecimal::of($spent ?? '0'), $business->currency))
            ->rounded();
    }

    /** @return array<string, float> home value still to come, by Monday of the week it is due (overdue: this week) */
    public function dueByWeek(\DateTimeImmutable $today): array
    {
        /** @var array<string, string> $rows */
        $rows = $this->connection->fetchAllKeyValue(
            'SELECT DATE_SUB(d, INTERVAL WEEKDAY(d) DAY) monday, SUM(value) FROM (
                SELECT GREATEST(due, ?) d, home_value value FROM open_line) due
             GROUP BY monday ORDER BY monday',
            [$today->format('Y-m-d')],
        );

        return array_map(floatval(...), $rows);
    }

    /**
     * @return list<array{name: string, value: float}> home value of what was received from each supplier since a day,
     *      most first
     */
    public function boughtSince(\DateTimeImmutable $since, int $most): array
    {
        /** @var list<array{name: string, value: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT s.name, SUM(rl.packs * ol.pack_content * rl.unit_cost) value
             FROM receipt r JOIN receipt_line rl ON rl.receipt_id = r.id JOIN order_line ol ON ol.id = rl.line_id
             JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
             WHERE r.day >= ? GROUP BY s.id, s.name ORDER BY value DESC LIMIT '.$most,
            [$since->format('Y-m-d')],
        );

        return array_map(
            static fn (array $row): array => ['name' => $row['name'], 'value' => (float) $row['value']],
            $rows,
        );
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
            'SELECT offer_id, price FROM (
                SELECT l.offer_id, l.price, ROW_NUMBER() OVER (PARTITION BY l.offer_id
                ORDER BY o.sent_at DESC, l.id DESC) n
                FROM order_line l JOIN purchase_order o ON o.id = l.order_id
                WHERE '.
                (null === $offers ? 'l.offer_id IS NOT NULL' : 'l.offer_id IN (?)').
                " AND o.sent_at IS NOT NULL AND o.state <> 'cancelled') latest WHERE n = 1",
            null === $offers ? [] : [$offers],
            null === $offers ? [] : [ArrayParameterType::INTEGER],
        );

        return array_map(BigDecimal::of(...), $rows);
    }
}
