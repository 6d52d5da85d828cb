<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Orders;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Ordering\RevisionChange;
use TallBarrel\Core\Ordering\SinceLastOrder;
use TallBarrel\Core\Sourcing\PriceChange;
use TallBarrel\Desk\Shell\Fields;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Desk\Talk\Talk;
use TallBarrel\Store\Agreement\Agreements;
use TallBarrel\Store\Audit\Audit;
use TallBarrel\Store\Item\CustomerPromise;
use TallBarrel\Store\Item\Promises;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Order\CategoryRule;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\OrderRevision;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Person\Person;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Supplier\UnseenChange;
use TallBarrel\Work\Ordering\Approval;

/** All an order's page shows. */
final readonly class OrderPage
{
    /** So many of a supplier's offers are shown beside an order; all can be typed. */
    private const LISTED = 300;
    private const OTHERS = 4;
    /** So many lines are shown at first, and so many more each time. */
    private const ROWS = 16;
    /** Of up to so many lines all are shown at once. */
    private const WHOLE = 60;
    private const HISTORY = 50;
    private const WHOLE_HISTORY = 5000;

    public function __construct(
        private EntityManagerInterface $entities,
        private Orders $orders,
        private Audit $audit,
        private Budgets $budgets,
        private Shell $shell,
        private Agreements $agreements,
        private Promises $promises,
        private Offers $offers,
        private Amendments $amendments,
        private PlanningData $data,
        private Approval $approval,
        private Talk $talk,
        private Security $security,
        private ClockInterface $clock,
    ) {
    }

    /** @return array<string, mixed> what some of its lines need to be shown */
    public function lines(PurchaseOrder $order, int $from): array
    {
        $items = self::items(...array_slice($order->lines(), $from, self::ROWS));
        if ($this->mayEdit($order)) {
            $this->orders->withOffers($order, $from, self::ROWS);
        }

        return [
            'from' => $from,
            'order' => $order,
            'fields' => Fields::none(),
            'editable' => $this->mayEdit($order),
            'promises' => $this->promised($order, $items),
            'sites' => $this->shell->sites(),
            'rows' => self::ROWS,
        ] + $this->beside($order, $this->found($order, $items));
    }

    /**
     * @param array<string, list<array<string, string|null>>> $found
     *
     * @return list<string> what of the supplier is not as it was on the last order
     */
    private static function changed(PurchaseOrder $order, array $found): array
    {
        $last = Orders::beforeIn($found);
        if (null === $last || $last['currency'] !== $order->currency) {
            return [];
        }

        return array_map(
            static fn (string $words): string => $words.' on '.$last['number'],
            SinceLastOrder::differences(
                $last['facts'],
                $order->supplier->facts(),
                $last['rate'],
                $order->rate()->foreignForOne,
            ),
        );
    }

    private static function isTyped(string $typed): bool
    {
        return '' !== $typed;
    }

    /** @return array<string, mixed> what their own list needs to be shown */
    public function list(PurchaseOrder $order): array
    {
        $fields = Fields::none();

        return [
            'order' => $order,
            'fields' => $fields,
            'typed' => $fields->typed,
            'theirList' => $this->mayEdit($order) ? $this->theirList($order) : [],
        ];
    }

    /** @return list<string> what to mind of the supplier, and of the items on it */
    private static function cautions(PurchaseOrder $order): array
    {
        $changes = array_map(static fn (UnseenChange $change): string => sprintf(
            '%s: %s. If you do not know why, ask them by telephone.',
            $order->supplier->shortName(),
            $change->words(),
        ), $order->supplier->unseen());
        $cautions = [];
        foreach ($order->lines() as $line) {
            if (null !== $line->item && '' !== $line->item->caution()) {
                $cautions[$line->item->code] = sprintf('%s: %s', $line->item->code, $line->item->caution());
            }
        }

        return [...$changes, ...array_values($cautions)];
    }

    private function mayEdit(PurchaseOrder $order): bool
    {
        $person = $this->security->getUser();

        return $order->state()->isEditable()
            && $this->security->isGranted('ROLE_BUY')
            && $person instanceof Person
            && $person->mayHandleOrdersOf($order->buyer);
    }

    /**
     * @param bool $all  whether every line is shown at once; so it is where something typed could not be saved
     * @param bool $whole whether all that happened is shown, not only what happened last
     * @param bool $list whether the supplier's own list is shown; so it is where something was typed in it
     *
     * @return array<string, mixed>
     */
    public function of(
        PurchaseOrder $order,
        Fields $fields,
        bool $all = false,
        bool $list = false,
        bool $whole = false,
    ): array {
        $person = $this->security->getUser();
        $totals = $order->totals();
        $homeTotal = $order->rate()->toHome($totals->net)->rounded();
        $now = $this->clock->now();
        $terms = $order->supplier->terms();
        $editable = $this->mayEdit($order);
        $many = count($order->lines());
        $rows = $all || $many <= self::WHOLE || !$fields->isGood() ? $many : self::ROWS;
        $items = self::items(...array_slice($order->lines(), 0, $rows));
        if ($editable) {
            $this->orders->withOffers($order, 0, $rows);
        }

        $early = $order->state()->isUnsent();
        $found = $this->found($order, $items);
        $objection = $early && $person instanceof Person
            ? $this->approval->objection($order, $person, CategoryRule::in($found))
            : null;
        $within = $person instanceof Person && null === $objection;
        $since = null === $order->sentAt() ? null : $this->amendments->since($order);
        $budget = !$early ? null : $this->budgets->standing(
            // The order is spoken for already: only its months are asked for.
            array_map(
                static fn (Money $amount): Money => $amount->multipliedBy(0),
                $this->budgets->spentIn($homeTotal, $terms, $order->sentAt() ?? $now, $order->dueOn()),
            ),
            $now,
            $found,
        );

        return [
            'rows' => $rows,
            'order' => $order,
            'fields' => $fields,
            'totals' => $totals,
            'homeTotal' => $homeTotal,
            'freight' => $editable ? $order->freight() : Money::zero($order->currency),
            'missing' => $order->readiness()->missing,
            'editable' => $editable,
            'withinLimit' => $within,
            'asked' => $early && !$within ? $order->buyer->asks($now) : null,
            'objection' => $objection,
            'promises' => $this->promised($order, $items),
            'weight' => $order->weightKg(),
            'theirList' => $editable && ($list || [] !== array_filter($fields->each('pick'), self::isTyped(...)))
                ? $this->theirList($order)
                : [],
            'sites' => $this->shell->sites(),
            'sentences' => $editable ? $this->shell->sentences() : [],
            'cautions' => $early ? self::cautions($order) : [],
            'history' => $this->audit->of($order->number, $whole ? self::WHOLE_HISTORY : self::HISTORY),
            'wholeHistory' => $whole,
            'changed' => $early ? self::changed($order, $found) : [],
            'talk' => $this->talk->about('order', $order->number),
            'documents' => null === $order->sentAt() ? [] : $this->orders->documents($order),
            'revisions' => $this->revisions($order),
            'amendment' => $order->state()->isOpen() ? $since['amendment'] ?? null : null,
            'answers' => $since['answers'] ?? [],
            'despatches' => $since['despatches'] ?? [],
            'life' => $this->life($order, $within),
            'budget' => $budget?->use,
            'month' => $budget?->month,
            'categoryBudgets' => array_intersect_key(
                $budget->categories ?? [],
                array_flip(
                    array_map(static fn (OrderLine $line): string => $line->item?->category() ?? '', $order->lines()),
                ),
            ),
            'cutOff' => $early ? $this->data->orderDays()[$order->supplier->id]->nextCutOff($now) : null,
            'payments' => $terms?->payments($totals->total, $order->sentAt() ?? $now, $order->dueOn()) ?? [],
            'discountBy' => $terms?->discountUntil($order->dueOn()),
            'discounted' => null === $terms || $terms->discountPercent->isZero()
                ? null
                : $terms->discounted($totals->total),
            'below' => $early ? $order->belowMinimum() : null,
            'overDrawn' => $editable ? $this->agreements->objections($order->lines(), $now) : [],
        ] + $this->beside($order, $found);
    }

    /** @return list<array{revision: OrderRevision, change: RevisionChange}> those that changed it, the latest first */
    private function revisions(PurchaseOrder $order): array
    {
        $revisions = [];
        $before = null;
        foreach ($order->revision() > 1 ? $this->amendments->sent($order) : [] as $revision) {
            if (null !== $before) {
                $revisions[] = ['revision' => $revision, 'change' => $revision->since($before)];
            }
            $before = $revision;
        }

        return array_reverse($revisions);
    }

    /**
     * What the supplier offers today, and who else does.
     *
     * @return list<array{offer: Offer, held: float, others: string}>
     */
    private function theirList(PurchaseOrder $order): array
    {
        $offers = $this->offers->inForce($order->supplier, $this->clock->now(), self::LISTED);
        $others = $this->offers->othersWhoSell($offers, $this->clock->now());
        /** @var array<int, string> $held */
        $held =
            [] === $offers
                ? []
                : $this->entities
                    ->getConnection()
                    ->fetchAllKeyValue(
                        'SELECT item_id, SUM(units) FROM on_hand WHERE item_id IN (?) GROUP BY item_id',
                        [array_map(static fn (Offer $offer): int => $offer->item->id, $offers)],
                        [ArrayParameterType::INTEGER],
                    );

        return array_map(
            static fn (Offer $offer): array => [
                'offer' => $offer,
                'held' => (float) ($held[$offer->item->id] ?? 0),
                'others' => $others[$offer->item->id] ?? '',
            ],
            $offers,
        );
    }

    /**
     * What stands beside its lines, and what an order not sent yet has to be let through by: asked for in one query.
     *
     * @param list<int> $items of the lines that are shown
     *
     * @return array<string, list<array<string, string|null>>>
     */
    private function found(PurchaseOrder $order, array $items): array
    {
        $offers = array_values(
            array_filter(
                array_map(static fn (OrderLine $line): ?int => $line->offer?->id, $order->lines()),
                static fn (?int $id): bool => null !== $id,
            ),
        );
        $trip = new OneTrip();
        Spending::askLastPrices($trip, $offers);
        if ($order->state()->isUnsent()) {
            CategoryRule::ask($trip);
            Orders::askBefore($trip, $order);
            $this->budgets->ask($trip, $this->clock->now());
        }

        return $trip
            ->ask(
                'held',
                ['place', 'units'],
                'place',
                "SELECT CONCAT(item_id, ':', site_id) place, units FROM on_hand WHERE item_id IN (0".
                    str_repeat(', ?', count($items)).')',
                $items,
            )
            ->ask(
                'others',
                ['number'],
                'due, number',
                'SELECT o.number, COALESCE(MIN(open.due), o.promised_on, o.wanted_on) due FROM purchase_order o
                 LEFT JOIN open_line open ON open.order_id = o.id
                 WHERE o.supplier_id = ? AND o.id <> ? AND o.state IN ('.Orders::openStates().')
                 GROUP BY o.id ORDER BY due, o.id LIMIT '.self::OTHERS,
                [$order->supplier->id, $order->id],
            )
            ->answers($this->entities->getConnection());
    }

    /**
     * @param array<string, list<array<string, string|null>>> $found what stands beside its lines
     *
     * @return array{held: array<string, float>, otherOrders: list<string|null>, priceChanges: array<int, float>,
     *      doubts: array<int, string>} stock units on hand by "item:site"; numbers of their other orders, the soonest
     *      due first; percent against the last price paid, and what looks like a slip, by line
     */
    private function beside(PurchaseOrder $order, array $found): array
    {
        $paid = Spending::lastPricesIn($found);
        $held = [];
        foreach ($found['held'] as $row) {
            $held[(string) $row['place']] = (float) $row['units'];
        }
        $changes = $doubts = [];
        foreach ($order->lines() as $line) {
            $last = $paid[$line->offer->id ?? 0] ?? null;
            $change = PriceChange::percent($line->price(), $last);
            $doubt = $line->packs()->isPositive() ? PriceChange::doubt($line->price(), $last) : null;
            if (null !== $change) {
                $changes[$line->id] = $change;
            }
            if (null !== $doubt) {
                $doubts[$line->id] = sprintf('Line %s: %s', $line->number(), $doubt);
            }
        }

        return [
            'held' => $held,
            'otherOrders' => array_column($found['others'], 'number'),
            'priceChanges' => $changes,
            'doubts' => $doubts,
        ];
    }

    /**
     * @param list<int> $items
     *
     * @return array<int, list<CustomerPromise>> who waits for them, by item
     */
    private function promised(PurchaseOrder $order, array $items): array
    {
        return $this->mayEdit($order) ? $this->promises->openOf($items) : [];
    }

    /** @return list<int> of lines */
    private static function items(OrderLine ...$lines): array
    {
        $items = [];
        foreach ($lines as $line) {
            if (null !== $line->item) {
                $items[$line->item->id] = $line->item->id;
            }
        }

        return array_values($items);
    }

    /** @return list<array{state: string, words: string, small: string}> the hoops of its life */
    private function life(PurchaseOrder $order, bool $withinLimit): array
    {
        $state = $order->state();
        if (OrderState::Cancelled === $state) {
            return [
                [
                    'state' => 'done',
                    'words' => 'Drafted',
                    'small' => $order->createdAt()->format('D j M H:i').', '.$order->buyer->firstName(),
                ],
                ['state' => 'now', 'words' => 'Cancelled', 'small' => ''],
            ];
        }
        $rank = match ($state) {
            OrderState::Draft => 0,
            OrderState::AwaitingApproval => 1,
            OrderState::Approved => 2,
            OrderState::Sent => 3,
            OrderState::Acknowledged => 4,
            OrderState::PartReceived => 5,
            default => 6,
        };
        $steps = [
            ['Drafted', $order->createdAt()->format('D j M H:i').', '.$order->buyer->firstName()],
            [
                OrderState::AwaitingApproval === $state ? 'Awaiting approval' : 'Approved',
                null === $order->approvedBy()
                    ? ($withinLimit
                        ? 'within your limit'
                        : 'over your limit; somebody else approves')
                    : $order->approvedAt()?->format('D j M').', '.$order->approvedBy()->firstName(),
            ],
            [
                'Sent',
                ($order->sentAt()?->format('D j M H:i') ?? '').
                    ($order->revision() > 1 ? ', revision '.$order->revision() : ''),
            ],
            ['Acknowledged', $order->acknowledgedAt()?->format('D j M') ?? ''],
            [
                OrderState::PartReceived === $state ? 'Part received' : 'At the dock',
                $rank < 6 ? 'expected '.$order->dueOn()->format('D j M') : '',
            ],
            [OrderState::Closed === $state ? 'Closed' : 'Booked in', ''],
        ];
        // What is done, and the one that comes next.
        $done = match ($rank) {
            0, 1 => 1,
            2 => 2,
            3 => 3,
            4 => 4,
            5 => 4,
            default => 6,
        };

        return array_map(
            static fn (int $i, array $step): array => [
                'state' => $i < $done ? 'done' : ($i === $done ? 'now' : ''),
                'words' => $step[0],
                'small' => $step[1],
            ],
            array_keys($steps),
            $steps,
        );
    }
}
