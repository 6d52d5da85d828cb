<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\BudgetUse;
use TallBarrel\Store\Business\CurrentBusiness;

/** What has been ordered, in the home currency. */
final readonly class Spending
{
    /** The last price paid for one pack of offer o, for a query over offers; null where none has been bought. */
    public const LAST_PAID = "(SELECT paid.price FROM order_line paid JOIN purchase_order p2 ON p2.id = paid.order_id
        WHERE paid.offer_id = o.id AND p2.sent_at IS NOT NULL AND p2.state <> 'cancelled'
        ORDER BY p2.sent_at DESC, paid.id DESC LIMIT 1)";
    /** By month of sending, since the day :since; what is not sent counts in the month :month. */
    private const SPOKEN_FOR = "SELECT 'use' what,
            CONCAT(
                CASE WHEN o.sent_at IS NULL THEN :month ELSE DATE_FORMAT(o.sent_at, '%Y-%m') END, ' ',
                CASE WHEN o.sent_at IS NOT NULL THEN 'sent' WHEN o.state = 'draft' THEN 'drafted' ELSE 'waiting' END
            ) name,
            SUM(ROUND((l.packs - l.closed_short) * l.price, 2) / o.foreign_for_one) value
        FROM order_line l JOIN purchase_order o ON o.id = l.order_id
        WHERE o.state <> 'cancelled' AND (o.sent_at >= :since OR o.sent_at IS NULL) GROUP BY name";
    private const BUDGETS = "SELECT 'budget' what, month name, amount value FROM month_budget
        WHERE month >= LEFT(:since, 7)";

    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /** What of this month's budget is spoken for. */
    public function budget(\DateTimeImmutable $today): BudgetUse
    {
        return $this->budgets($today, $today, 0)[$today->format('Y-m')];
    }

    /**
     * Month by month.
     *
     * @param int $ahead months after this one
     *
     * @return array<string, BudgetUse> by month, as 2026-11
     */
    public function budgets(\DateTimeImmutable $today, \DateTimeImmutable $since, int $ahead): array
    {
        $first = $since->modify('first day of this month');
        $rows = $this->connection->fetchAllAssociative(
            self::SPOKEN_FOR.' UNION ALL '.self::BUDGETS,
            ['month' => $today->format('Y-m'), 'since' => $first->format('Y-m-d')],
        );
        $uses = [];
        $last = $today->modify(sprintf('first day of +%d months', $ahead))->format('Y-m');
        for ($month = $first; $month->format('Y-m') <= $last; $month = $month->modify('+1 month')) {
            $uses[$month->format('Y-m')] = $this->use($month->format('Y-m'), $rows);
        }

        return $uses;
    }

    /**
     * @param string                     $month as 2026-11
     * @param list<array<string, mixed>> $rows  of SPOKEN_FOR and BUDGETS
     */
    private function use(string $month, array $rows): BudgetUse
    {
        $business = $this->business->get();
        $found = [];
        foreach ($rows as ['what' => $what, 'name' => $name, 'value' => $value]) {
            if (is_string($what) && is_string($name) && is_string($value)) {
                $found[$what.' '.$name] = Money::of(BigDecimal::of($value), $business->currency)->rounded();
            }
        }
        $usual = $business->monthlyBudget();
        $none = Money::of(0, $business->currency);

        return new BudgetUse(
            $found['budget '.$month] ?? (null === $usual ? null : Money::of($usual, $business->currency)),
            $found['use '.$month.' sent'] ?? $none,
            $found['use '.$month.' waiting'] ?? $none,
            $found['use '.$month.' drafted'] ?? $none,
        );
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
            "SELECT 'due' what, CONVERT(JSON_ARRAY(l.due, DATE(o.sent_at), s.net_days, CAST(s.discount_percent AS CHAR),
                    s.discount_days, s.end_of_month, CAST(s.deposit_percent AS CHAR), s.instalments)
                    USING utf8mb4) COLLATE utf8mb4_unicode_ci name,
                    SUM(l.home_value * (1 + o.tax_percent / 100)) value
             FROM open_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
             GROUP BY l.order_id, name
             UNION ALL ".self::SPOKEN_FOR.' UNION ALL '.self::BUDGETS."
             UNION ALL
             SELECT * FROM (
                SELECT 'bought', s.name, SUM(rl.packs * ol.pack_content * rl.unit_cost) value
                FROM receipt r JOIN receipt_line rl ON rl.receipt_id = r.id JOIN order_line ol ON ol.id = rl.line_id
                JOIN delivery d ON d.id = r.delivery_id JOIN supplier s ON s.id = d.supplier_id
                WHERE r.day >= :bought GROUP BY s.id, s.name ORDER BY value DESC LIMIT ".$most.
            ') bought',
            [
                'today' => $today->format('Y-m-d'),
                'month' => $today->format('Y-m'),
                'since' => $today->format('Y-m-01'),
                'bought' => $since->format('Y-m-d'),
            ],
        );
        $found = ['due' => [], 'bought' => [], 'use' => [], 'budget' => []];
        foreach ($rows as $row) {
            if ('due' === $row['what']) {
                foreach ($this->payments($row['name'], $row['value'], $today) as $monday => $amount) {
                    $found['due'][$monday] = ($found['due'][$monday] ?? 0.0) + $amount;
                }
            } else {
                $found[$row['what']][$row['name']] = (float) $row['value'];
            }
        }
        ksort($found['due']);
        arsort($found['bought']);

        return new SpendingOverview($found['due'], $found['bought'], $this->use($today->format('Y-m'), $rows));
    }

    /**
     * What an order's outstanding lines will cost, when. Where no terms are known, when it comes. A deposit was paid
     * when
     * it was ordered; what is late falls due this week.
     *
     * @param string $facts day it is due, day it was sent, and the supplier's terms, as JSON
     *
     * @return array<string, float> by the Monday of the week
     */
    private function payments(string $facts, string $value, \DateTimeImmutable $today): array
    {
        /** @var array{string, string, int|null, string, int, int, string, string} $facts */
        $facts = json_decode($facts, true);
        [$due, $sent, $net, $discount, $discountDays, $endOfMonth, $deposit, $instalments] = $facts;
        $business = $this->business->get();
        $total = Money::of(BigDecimal::of($value), $business->currency)->rounded();
        $invoiced = max(new \DateTimeImmutable($due, $today->getTimezone()), $today->setTime(0, 0));
        $terms = PaymentTerms::net($net ?? 0, null === $net ? 0 : $discount, $discountDays)
            ->fromEndOfMonth(1 === (int) $endOfMonth)
            ->withDeposit($deposit)
            ->inInstalments($instalments);
        $weeks = [];
        $ordered = new \DateTimeImmutable($sent, $today->getTimezone());
        foreach ($terms->payments($total, $ordered, $invoiced, $business->moneyPercent()->toFloat()) as $payment) {
            if ($payment->day >= $today->setTime(0, 0)) {
                $monday = $payment->day->modify('monday this week')->format('Y-m-d');
                $weeks[$monday] = ($weeks[$monday] ?? 0.0) + $payment->amount->amount->toFloat();
            }
        }

        return $weeks;
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
