<?php

declare(strict_types=1);

namespace TallBarrel\Work\Ordering;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Ordering\SpendingLimit;
use TallBarrel\Core\Ordering\SpentLately;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\CategoryRule;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Supplier\UnseenChange;

/** Whose yes an order needs: limits by order and by month, and who stands in for whom. */
final readonly class Approval
{
    public function __construct(
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
        private Rates $rates,
    ) {
    }

    /**
     * Why this person cannot let it through, in words; null where they can.
     *
     * @param list<CategoryRule>|null $rules where they are known already
     */
    public function objection(PurchaseOrder $order, Person $person, ?array $rules = null): ?string
    {
        return $this->objections([$order], $person, $rules)[$order->id] ?? null;
    }

    /**
     * @param list<PurchaseOrder>     $orders each looked at by itself
     * @param list<CategoryRule>|null $rules  where they are known already
     *
     * @return array<int, string> why this person cannot let them through, by order; the others they can
     */
    public function objections(array $orders, Person $person, ?array $rules = null): array
    {
        $before = null;
        $rules ??= $this->rules();
        $stoodInFor = null;
        $objections = [];
        foreach ($orders as $order) {
            $objecting = function (Person ...$absent) use ($order, $person, $rules, &$before): ?string {
                $limit = self::limit($order, $person, array_values($absent));
                $objection = $limit->isNone() ? null : $limit->objection(
                    $this->worth($order),
                    $this->spent($order, $before ??= $this->letThrough($person)),
                );

                return $objection ?? self::ofCategory($order, $person, array_values($absent), $rules);
            };
            $objection = $objecting();
            if (null !== $objection) {
                // Whoever stands in for somebody may more, never less: asked only where that matters.
                $objection = $objecting(...($stoodInFor ??= $this->stoodInFor($person)));
            }
            $objection ??= self::ofUnseen($order, $person);
            if (null !== $objection) {
                $objections[$order->id] = $objection;
            }
        }

        return $objections;
    }

    /** @return list<CategoryRule> */
    private function rules(): array
    {
        $trip = new OneTrip();
        CategoryRule::ask($trip);

        return CategoryRule::in($trip->answers($this->entities->getConnection()));
    }

    /** In the home currency: at the rate it was made at, yesterday's or today's, whichever makes it dearest. */
    private function worth(PurchaseOrder $order): BigDecimal
    {
        $worth = $order->homeTotal()->amount;
        if ($order->rate()->home->code === $order->currency) {
            return $worth;
        }
        $today = $this->clock->now();
        foreach ([$today, $today->modify('-1 day')] as $day) {
            try {
                $then = $this->rates->on($order->currency, $day)->toHome($order->totals()->net)->rounded()->amount;
            } catch (Refused) {
                continue;
            }
            $worth = $then->isGreaterThan($worth) ? $then : $worth;
        }

        return $worth;
    }

    /** Where orders go and how they are paid is not changed and used by one and the same buyer. */
    private static function ofUnseen(PurchaseOrder $order, Person $person): ?string
    {
        $unseen = $person->mayApprove() ? [] : $order->supplier->unseen();

        return [] === $unseen ? null : sprintf(
            '%s, %s; somebody who approves has to see that once',
            $order->supplier->shortName(),
            implode(', ', array_map(static fn (UnseenChange $one): string => $one->words(), $unseen)),
        );
    }

    /**
     * Of some categories a named person is asked above an amount, whatever the limit of whoever orders.
     *
     * @param list<Person>       $stoodInFor
     * @param list<CategoryRule> $rules
     */
    private static function ofCategory(PurchaseOrder $order, Person $person, array $stoodInFor, array $rules): ?string
    {
        $may = array_map(static fn (Person $one): int => $one->id, [$person, ...$stoodInFor]);
        foreach ($rules as $rule) {
            if (in_array($rule->asked, $may, true)) {
                continue;
            }
            $sum = $order->homeTotalOf($rule->category)->amount;
            if ($sum->isGreaterThan($rule->above)) {
                return sprintf(
                    '%s of %s, and above %s %s is asked',
                    number_format($sum->toFloat(), 2),
                    $rule->category,
                    number_format($rule->above->toFloat(), 2),
                    $rule->firstName,
                );
            }
        }

        return null;
    }

    /**
     * Inside the caller's transaction.
     *
     * @throws Refused if somebody with a higher limit has to
     */
    public function give(PurchaseOrder $order, Person $person): void
    {
        $objection = $this->objection($order, $person);
        if (null !== $objection) {
            throw new Refused(
                sprintf(
                    null === self::ofUnseen($order, $person)
                        ? '%s is over %s’s limit: %s. Somebody with a higher one has to approve it.'
                        : '%s is not for %s alone to let through: %s.',
                    $order->number,
                    $person->firstName(),
                    $objection,
                ),
            );
        }
        $order->approve(
            $person,
            $this->clock->now(),
            self::limit($order, $person, $this->stoodInFor($person)),
        );
        if ($person->mayApprove()) {
            $order->supplier->seen();
        }
    }

    /** @return list<Person> for whom they say yes today */
    private function stoodInFor(Person $person): array
    {
        $today = $this->clock->now();

        return array_values(
            array_filter(
                $this->entities->getRepository(Person::class)->findBy(['standIn' => $person]),
                static fn (Person $absent): bool => $absent->isStoodInForOn($today),
            ),
        );
    }

    /**
     * Whoever stands in for somebody has their limit too, except for orders of one's own.
     *
     * @param list<Person> $stoodInFor
     */
    private static function limit(PurchaseOrder $order, Person $person, array $stoodInFor): SpendingLimit
    {
        $limit = $person->limit();
        foreach ($order->buyer === $person ? [] : $stoodInFor as $absent) {
            $limit = $limit->orThatOf($absent->limit());
        }

        return $limit;
    }

    /** @return list<array{id: int, supplier_id: int, approved_at: string, value: string}> this month and lately */
    private function letThrough(Person $person): array
    {
        $now = $this->clock->now();
        $since = min(
            $now->modify(sprintf('-%d days', SpentLately::DAYS)),
            $now->modify('first day of this month')->setTime(0, 0),
        );
        /** @var list<array{id: int, supplier_id: int, approved_at: string, value: string}> $rows */
        $rows = $this->entities
            ->getConnection()
            ->fetchAllAssociative(
                "SELECT o.id, o.supplier_id, o.approved_at,
                    CAST(SUM(l.packs * l.price / o.foreign_for_one) AS DECIMAL(16, 2)) value
                 FROM purchase_order o JOIN order_line l ON l.order_id = o.id
                 WHERE o.approved_by_id = ? AND o.state <> 'cancelled' AND o.approved_at >= ?
                 GROUP BY o.id, o.supplier_id, o.approved_at",
                [$person->id, $since->format('Y-m-d H:i:s')],
            );

        return $rows;
    }

    /** @param list<array{id: int, supplier_id: int, approved_at: string, value: string}> $before */
    private function spent(PurchaseOrder $order, array $before): SpentLately
    {
        $now = $this->clock->now();
        $since = $now->modify(sprintf('-%d days', SpentLately::DAYS))->format('Y-m-d H:i:s');
        $month = $now->format('Y-m');
        $lately = $inMonth = BigDecimal::zero();
        foreach ($before as $row) {
            if ($row['id'] === $order->id) {
                continue;
            }
            if ($row['supplier_id'] === $order->supplier->id && $row['approved_at'] >= $since) {
                $lately = $lately->plus($row['value']);
            }
            if (str_starts_with($row['approved_at'], $month)) {
                $inMonth = $inMonth->plus($row['value']);
            }
        }

        return new SpentLately($lately, $inMonth);
    }
}
