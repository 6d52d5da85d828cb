<?php

declare(strict_types=1);

namespace TallBarrel\Store\Order;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Ordering\BudgetUse;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Supplier\AgreedTerms;

/**
 * What of each month's budget is spoken for, in all and by category: goods without tax and freight, in the month they
 * are ordered or paid, as the owner wishes. What is not sent yet counts as ordered today.
 *
 * @phpstan-type Row array{what: string, name: string, value: string}
 * @phpstan-type Facts array{string, string, string, string|null, int|null, string, int, int, string, string}
 */
final readonly class Budgets
{
    /** Payments may come so long after an order was sent. */
    private const LOOK_BACK = '-200 days';
    /** In how many months to come a purchase of now may still be paid. */
    private const MONTHS_PAYING = 6;

    public function __construct(private Connection $connection, private CurrentBusiness $business)
    {
    }

    /** Of the month that runs. */
    public function of(\DateTimeImmutable $today): BudgetUse
    {
        return $this->months($today, $today, 0)[$today->format('Y-m')];
    }

    /**
     * Month by month.
     *
     * @param int $ahead months after this one
     *
     * @return non-empty-array<string, BudgetUse> by month, as 2026-11
     */
    public function months(\DateTimeImmutable $today, \DateTimeImmutable $since, int $ahead): array
    {
        $first = $since->modify('first day of this month');
        $rows = $this->rows($today, $first);
        $uses = [$first->format('Y-m') => $this->use($first->format('Y-m'), $rows, $today)];
        $last = $today->modify(sprintf('first day of +%d months', $ahead));
        for ($month = $first->modify('+1 month'); $month <= $last; $month = $month->modify('+1 month')) {
            $uses[$month->format('Y-m')] = $this->use($month->format('Y-m'), $rows, $today);
        }

        return $uses;
    }

    /**
     * All that is limited from this month on, as far as a purchase of now reaches.
     *
     * @return list<array{string, string|null, BudgetUse}> month, category (null for all), what of it is spoken for
     */
    public function limited(\DateTimeImmutable $today): array
    {
        $first = $today->modify('first day of this month');
        $rows = $this->rows($today, $first);
        $limited = [];
        for ($ahead = 0; $ahead <= $this->monthsAhead(); ++$ahead) {
            $month = $first->modify(sprintf('+%d months', $ahead))->format('Y-m');
            $use = $this->use($month, $rows, $today);
            if (null !== $use->budget) {
                $limited[] = [$month, null, $use];
            }
            foreach ($this->categories($month, $rows, $today) as $category => $one) {
                $limited[] = [$month, (string) $category, $one];
            }
        }

        return $limited;
    }

    /**
     * What is limited by category, in the month that runs.
     *
     * @return array<string, BudgetUse> by category
     */
    public function byCategory(\DateTimeImmutable $today): array
    {
        return $this->standing([], $today)->categories;
    }

    /**
     * The month that would be left with least if so much more were spent.
     *
     * @param array<string, Money>                                  $more    by month; of no others is asked
     * @param array<string, list<array<string, string|null>>>|null $answers where it was asked along with other things
     */
    public function standing(array $more, \DateTimeImmutable $today, ?array $answers = null): BudgetStanding
    {
        $first = $today->modify('first day of this month');
        $rows = null === $answers ? $this->rows($today, $first) : self::in($answers);
        $none = Money::of(0, $this->business->get()->currency);
        $month = $first->format('Y-m');
        $use = $this->use($month, $rows, $today);
        $least = isset($more[$month]) ? $use->left()?->minus($more[$month]) : null;
        for ($ahead = 1; $ahead <= $this->monthsAhead(); ++$ahead) {
            $next = $first->modify(sprintf('+%d months', $ahead))->format('Y-m');
            if (isset($more[$next])) {
                $then = $this->use($next, $rows, $today);
                $left = $then->left()?->minus($more[$next]);
                if (null !== $left && (null === $least || $left->isLessThan($least))) {
                    [$month, $use, $least] = [$next, $then, $left];
                }
            }
        }

        return new BudgetStanding(
            new \DateTimeImmutable($month),
            $use,
            $more[$month] ?? $none,
            $this->categories($first->format('Y-m'), $rows, $today),
        );
    }

    /**
     * When a purchase of now is spent.
     *
     * @return non-empty-array<string, Money> by month
     */
    public function spentIn(
        Money $goods,
        ?PaymentTerms $terms,
        \DateTimeImmutable $today,
        \DateTimeImmutable $arrives,
    ): array {
        $business = $this->business->get();

        return $business->budgetBasis()->months(
            $goods,
            $terms,
            $today->setTime(0, 0),
            max($arrives, $today->setTime(0, 0)),
            $business->moneyPercent()->toFloat(),
        );
    }

    private function monthsAhead(): int
    {
        return BudgetBasis::Paying === $this->business->get()->budgetBasis() ? self::MONTHS_PAYING : 0;
    }

    /** @return list<Row> */
    private function rows(\DateTimeImmutable $today, \DateTimeImmutable $first): array
    {
        $trip = new OneTrip();
        $this->ask($trip, $today, $first);

        return self::in($trip->answers($this->connection));
    }

    /**
     * What is spoken for and what is budgeted, asked along with other things: see standing() and in().
     *
     * @param \DateTimeImmutable|null $first of the month from which on; null for the one that runs
     */
    public function ask(OneTrip $trip, \DateTimeImmutable $today, ?\DateTimeImmutable $first = null): void
    {
        $first ??= $today->modify('first day of this month');
        $since = $first;
        $days = "DATE_FORMAT(COALESCE(DATE(o.sent_at), ?), '%Y-%m-01'), NULL";
        if (BudgetBasis::Ordering !== $this->business->get()->budgetBasis()) {
            $since = $first->modify(self::LOOK_BACK);
            $days = 'COALESCE(DATE(o.sent_at), ?), COALESCE(o.promised_on, o.wanted_on), '.AgreedTerms::COLUMNS;
        }
        $trip->ask('budget', ['what', 'name', 'value'], 'what, name', "SELECT 'use' what, CONVERT(JSON_ARRAY(
                    CASE WHEN o.sent_at IS NOT NULL THEN 'sent'
                        WHEN o.state = 'draft' THEN 'drafted' ELSE 'waiting' END,
                    COALESCE(i.category, ''), $days) USING utf8mb4) COLLATE utf8mb4_unicode_ci name,
                SUM(ROUND((l.packs - l.closed_short) * l.price, 2) / o.foreign_for_one) value
            FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
            LEFT JOIN item i ON i.id = l.item_id
            WHERE o.state <> 'cancelled' AND (o.sent_at >= ? OR o.sent_at IS NULL) GROUP BY 2
            UNION ALL SELECT 'budget', month, amount FROM month_budget WHERE month >= ?
            UNION ALL SELECT 'category', category, amount FROM category_budget",
            [$today->format('Y-m-d'), $since->format('Y-m-d'), $first->format('Y-m')]);
    }

    /**
     * @param array<string, list<array<string, string|null>>> $answers
     *
     * @return list<Row> to be read by use()
     */
    public static function in(array $answers): array
    {
        /** @var list<Row> $rows */
        $rows = $answers['budget'];

        return $rows;
    }

    /**
     * @param string    $month as 2026-11
     * @param list<Row> $rows  of in()
     */
    public function use(string $month, array $rows, \DateTimeImmutable $today): BudgetUse
    {
        $usual = $this->business->get()->monthlyBudget();
        foreach ($rows as $row) {
            if ('budget' === $row['what'] && $month === $row['name']) {
                $usual = BigDecimal::of($row['value']);
            }
        }

        return $this->spent($month, null, $rows, $usual, $today);
    }

    /**
     * @param list<Row> $rows
     *
     * @return array<string, BudgetUse> by category
     */
    private function categories(string $month, array $rows, \DateTimeImmutable $today): array
    {
        $found = [];
        foreach ($rows as $row) {
            if ('category' === $row['what']) {
                $found[$row['name']] = $this->spent(
                    $month,
                    $row['name'],
                    $rows,
                    BigDecimal::of($row['value']),
                    $today,
                );
            }
        }

        return $found;
    }

    /**
     * @param string|null $category null for all
     * @param list<Row>   $rows
     */
    private function spent(
        string $month,
        ?string $category,
        array $rows,
        ?BigDecimal $budget,
        \DateTimeImmutable $today,
    ): BudgetUse {
        $business = $this->business->get();
        $sums = array_fill_keys(['sent', 'waiting', 'drafted'], Money::of(0, $business->currency));
        foreach ($rows as $row) {
            if ('use' === $row['what']) {
                /** @var Facts $facts */
                $facts = json_decode($row['name'], true, flags: \JSON_THROW_ON_ERROR);
                if (null === $category || $category === $facts[1]) {
                    $sums[$facts[0]] = $sums[$facts[0]]->plus($this->spentThen($month, $facts, $row['value'], $today));
                }
            }
        }

        return new BudgetUse(
            null === $budget ? null : Money::of($budget, $business->currency),
            $sums['sent']->rounded(),
            $sums['waiting']->rounded(),
            $sums['drafted']->rounded(),
        );
    }

    /**
     * What of a row is spent in the month.
     *
     * @param Facts $facts state, category, day ordered, day it comes, terms of payment
     */
    private function spentThen(string $month, array $facts, string $value, \DateTimeImmutable $today): Money
    {
        $business = $this->business->get();
        $goods = Money::of(BigDecimal::of($value), $business->currency);
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day, $today->getTimezone());
        if (BudgetBasis::Ordering === $business->budgetBasis()) {
            return str_starts_with($facts[2], $month) ? $goods : $goods->multipliedBy(0);
        }
        $months = BudgetBasis::Paying->months(
            $goods->rounded(),
            AgreedTerms::read(array_slice($facts, 4)),
            $day($facts[2]),
            $day($facts[3] ?? $facts[2]),
            $business->moneyPercent()->toFloat(),
        );

        return $months[$month] ?? $goods->multipliedBy(0);
    }
}
