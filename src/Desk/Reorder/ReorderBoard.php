<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Sourcing\PriceChange;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Desk\Drawing\StockChart;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Offer\OfferName;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\BoardLine;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Planning\SupplierSum;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Work\Planning\FillUpAdvice;
use TallBarrel\Work\Planning\FillUpOrder;

/**
 * What Reorder shows: proposals grouped by supplier, and the why of one of them. The whole list is added up where it is
 * kept; rows are loaded as far as they are looked at.
 */
final class ReorderBoard
{
    public const SORTS = [
        'rush' => 'Rush first',
        'money' => 'Most money first',
        'risk' => 'Most at risk first',
        'doubt' => 'Most in doubt first',
        'code' => 'By item code',
    ];
    /** Rows shown at once; the rest follows as one scrolls. */
    public const PAGE = 10;
    private const AT_MOST = 20_000;
    private const DAYS_SHOWN = 42;

    /** @var array<int, OrderDays>|null */
    private ?array $orderDays = null;
    private ?PlanningRun $latestRun = null;
    /** @var array<int, string>|null */
    private ?array $siteNames = null;
    /** @var array<string, array<int, SupplierSum>> */
    private array $sums = [];

    public function __construct(
        private readonly Board $board,
        private readonly Proposals $proposals,
        private readonly PlanningData $data,
        private readonly FillUpOrder $fillUp,
        private readonly Budgets $budgets,
        private readonly CurrentBusiness $business,
        private readonly Shell $shell,
        private readonly Offers $offers,
        private readonly EntityManagerInterface $entities,
        private readonly ClockInterface $clock,
    ) {
    }

    /** The run whose proposals are shown. */
    public function lastRun(): ?PlanningRun
    {
        $latest = $this->latestRun();

        return true === $latest?->isDone() ? $latest : $this->proposals->lastRun();
    }

    /** The run begun last, whatever became of it. */
    public function latestRun(): ?PlanningRun
    {
        return $this->latestRun ??= $this->proposals->latestRun();
    }

    /**
     * All groups with their sums; the rows of the first ones, and what their orders lack.
     *
     * @return list<ReorderGroup>
     */
    public function groups(?Site $site, string $sort, string $words = '', int $rows = self::PAGE): array
    {
        $sums = $this->sums($site, $words);
        $groups = [];
        foreach ($sums as $id => $sum) {
            $cutOff = 0 === $id ? null : $this->orderDays($id)->nextCutOff($this->clock->now());
            $groups[] = [
                match ($sort) {
                    'money' => [-$sum->home],
                    'risk' => [-$sum->risk],
                    default => [
                        0 === $id ? 1 : 0,
                        $sum->rush && 'rush' === $sort ? 0 : 1,
                        $cutOff,
                        $sum->code,
                    ],
                },
                $id,
            ];
        }
        usort($groups, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        // The first groups, until there are rows enough.
        $open = [];
        $sofar = 0;
        foreach ($groups as [, $id]) {
            if ($sofar < $rows) {
                $open[] = $id;
            }
            $sofar += $sums[$id]->listed;
        }
        $found = $this->board->firstLines($open, $site, $sort, $words, min($rows, self::AT_MOST));
        $pages = [];
        foreach ($groups as [, $id]) {
            $pages[$id] = array_slice($found[$id] ?? [], 0, max(0, $rows));
            $rows -= count($pages[$id]);
        }
        // What an order lacks is worked out where its rows are: a heading further down gets it with its first ones.
        $advice = $this->fillUp->advise(array_intersect_key($this->sums($site), array_flip($open)), $site);
        $built = [];
        foreach ($pages as $id => $lines) {
            $built[] = $this->group($id, $sums[$id], $lines, $advice[$id] ?? null);
        }

        return $built;
    }

    /** One supplier's group with the rows from one on; null where nothing of it is listed. */
    public function groupOf(
        ?Supplier $supplier,
        ?Site $site,
        string $sort,
        string $words = '',
        int $from = 0,
        int $rows = self::PAGE,
    ): ?ReorderGroup {
        $sum = $this->sums($site, $words)[$supplier->id ?? 0] ?? null;

        if (null === $sum) {
            return null;
        }
        $ids = $this->board->page($supplier->id ?? 0, $site, $sort, $words, $from, $rows);
        $lines = self::inOrder($ids, $this->board->lines($ids));

        return $this->group($supplier->id ?? 0, $sum, $lines, $this->advice($supplier, $site), $from);
    }

    /**
     * @param list<int>             $ids
     * @param array<int, BoardLine> $lines
     *
     * @return list<BoardLine>
     */
    private static function inOrder(array $ids, array $lines): array
    {
        $ordered = [];
        foreach ($ids as $id) {
            if (isset($lines[$id])) {
                $ordered[] = $lines[$id];
            }
        }

        return $ordered;
    }

    /** The row of one proposal as it is saved now. */
    public function rowOf(int $id): ReorderRow
    {
        $lines = $this->board->lines([$id]);

        return $this->row($lines[$id]);
    }

    private function row(BoardLine $line): ReorderRow
    {
        $seen = $line->seen();
        $price = $line->price();
        $names = $this->siteNames();

        return new ReorderRow(
            $line,
            Barrel::of($line->onHand, $line->coming, $line->safetyStock, $line->reorderPoint, $line->orderUpTo),
            Sparkline::of(
                array_map(floatval(...), array_slice($seen['sold'], -20)),
                array_map($line->forecast()->week(...), range(0, 5)),
            ),
            $price,
            null === $price ? null : PriceChange::percent($price->amount, $line->lastPaid()),
            array_map(
                static fn (array $move): array => [
                    'site' => $names[$move['site']] ?? '?',
                    'siteId' => $move['site'],
                    'units' => (float) $move['units'],
                    'saves' => (float) $move['saves'],
                    'risks' => (float) $move['risks'],
                ],
                $line->moves(),
            ),
            (float) $seen['needed'],
        );
    }

    /**
     * The drawing that follows the quantity, the sum that led to it, and what else could be done.
     *
     * @param list<OfferName>|null $offers of the item, where they are known already
     * @param ReorderRow|null      $row    the same, of its row
     */
    public function why(SavedProposal $proposal, ?array $offers = null, ?ReorderRow $row = null): Why
    {
        $today = $this->clock->now()->setTime(0, 0);
        $arrival = new \DateTimeImmutable($proposal->arrival->format('Y-m-d'), $today->getTimezone());
        $units = $proposal->units();
        $projection = $this->projection($proposal);
        $offers ??= $this->offers->names($proposal->item);

        return new Why(
            $proposal,
            $row ?? $this->rowOf($proposal->id),
            $proposal->evidence($today),
            StockChart::of(
                $projection,
                $proposal->safetyStock,
                $proposal->reorderPoint,
                $today,
                $units->isPositive() ? self::daysUntil($arrival, $today) : null,
            ),
            null === $projection->outOnDay
                    ? null
                    : $today->add(new \DateInterval(sprintf('P%dD', $projection->outOnDay))),
            $arrival,
            $units,
            array_values(
                array_filter($offers, static fn (OfferName $offer): bool => $offer->id !== $proposal->offer()?->id),
            ),
            $proposal->comingOn($today)->late(),
            null === $proposal->offer()
                    ? $today->modify('+7 days')
                    : $this->orderDays($proposal->offer()->supplier->id)->nextCutOff($today->modify('+1 day')),
        );
    }

    /** Its stock in the days to come, with what is chosen. */
    public function projection(SavedProposal $proposal): Projection
    {
        $today = $this->clock->now()->setTime(0, 0);
        $onDay = self::daysUntil($proposal->arrival, $today);

        return Projection::over(
            max(self::DAYS_SHOWN, $onDay + 14),
            $proposal->onHand - $proposal->promised,
            $proposal->comingOn($today)->schedule(),
            $proposal->forecast(),
            $proposal->units()->toFloat(),
            $onDay,
            PlannedDemand::byDay($proposal->evidence($today)->planned, $today),
        );
    }

    private static function daysUntil(\DateTimeImmutable $day, \DateTimeImmutable $today): int
    {
        $day = new \DateTimeImmutable($day->format('Y-m-d'), $today->getTimezone());

        return max(0, (int) $today->diff($day)->format('%r%a'));
    }

    /**
     * What the whole page asks beside its rows, in one query.
     *
     * @param SavedProposal|null $shown whose why stands beside them
     *
     * @return array<string, list<array<string, string|null>>>
     */
    public function beside(?SavedProposal $shown): array
    {
        $trip = new OneTrip();
        OrderLists::askNames($trip);
        $this->budgets->ask($trip, $this->clock->now());
        if (null !== $shown) {
            OfferName::ask($trip, $shown->item);
        }

        return $trip->answers($this->entities->getConnection());
    }

    /**
     * What is chosen, for the strip: of the rows that have these words, and how much of it they hide.
     *
     * @param array<string, list<array<string, string|null>>>|null $beside where the whole page is shown
     */
    public function summary(?Site $site, string $words = '', ?array $beside = null): BoardSummary
    {
        $currency = $this->business->get()->currency;
        $money = static fn (float $amount): Money => Money::of(number_format($amount, 2, '.', ''), $currency);
        $sums = $this->sums($site, $words);
        $sum = static fn (string $what): float => (float) array_sum(array_column($sums, $what));
        $orders = static fn (array $sums): int => count(
            array_filter($sums, static fn (SupplierSum $one): bool => $one->chosen > 0),
        );

        $budget = $this->budgets->standing($this->spentIn($money($sum('home'))), $this->clock->now(), $beside);

        return new BoardSummary(
            $orders($sums),
            (int) $sum('chosen'),
            '' === $words ? 0 : (int) array_sum(array_column($this->sums($site), 'chosen')) - (int) $sum('chosen'),
            $money($sum('home')),
            $sum('weightKg'),
            $budget->use,
            $budget->month,
            $budget->more,
            BudgetBasis::Paying === $this->business->get()->budgetBasis(),
            (int) $sum('listed'),
            (int) $sum('cut'),
            $money($sum('cutHome')),
            $money($sum('cutRisk')),
            $money(100 * max([0.0, ...array_column($sums, 'cutBest')])),
            array_values(
                array_map(
                    static fn (SupplierSum $one): string => $one->name.' is '.$one->shortfall(),
                    array_filter($sums, static fn (SupplierSum $one): bool => null !== $one->shortfall()),
                ),
            ),
            $money($sum('cut') > 0 ? $this->latestRun()?->cutGap() ?? 0.0 : 0.0),
        );
    }

    /**
     * When what is chosen is spent; all of it where that is when it is paid, since a budget knows no sites.
     *
     * @return non-empty-array<string, Money> by month
     */
    private function spentIn(Money $chosen): array
    {
        $now = $this->clock->now();
        if (BudgetBasis::Ordering === $this->business->get()->budgetBasis()) {
            return $this->budgets->spentIn($chosen, null, $now, $now);
        }
        $months = [$now->format('Y-m') => $chosen->multipliedBy(0)];
        foreach ($this->board->chosen() as $row) {
            $goods = Money::of(number_format($row->home, 2, '.', ''), $chosen->currency->code);
            foreach ($this->budgets->spentIn($goods, $row->terms, $now, $row->arrival) as $month => $amount) {
                $months[$month] = isset($months[$month]) ? $months[$month]->plus($amount) : $amount;
            }
        }

        return $months;
    }

    /** What its whole order lacks, whatever the rows are filtered by. */
    private function advice(?Supplier $supplier, ?Site $site): ?FillUpAdvice
    {
        $sum = null === $supplier ? null : $this->sums($site)[$supplier->id] ?? null;

        return null === $sum ? null : $this->fillUp->advise([$supplier->id => $sum], $site)[$supplier->id] ?? null;
    }

    /** A group's heading alone, after one of its rows changed; null where nothing of it is listed. */
    public function headOf(?Supplier $supplier, ?Site $site, \DateTimeImmutable $arrival): ?ReorderGroup
    {
        $sum = $this->sums($site)[$supplier->id ?? 0] ?? null;
        if (null === $supplier || null === $sum) {
            return null;
        }

        return new ReorderGroup(
            $sum,
            [],
            $sum->listed,
            $this->orderDays($supplier->id)->nextCutOff($this->clock->now()),
            $arrival,
            $this->advice($supplier, $site),
        );
    }

    /**
     * Read once a request: whatever changes proposals does so before.
     *
     * @return array<int, SupplierSum>
     */
    private function sums(?Site $site, string $words = ''): array
    {
        return $this->sums[($site->id ?? 0).':'.$words] ??= $this->board->sums($site, $words);
    }

    /**
     * @param int             $supplier 0 where nobody sells it
     * @param list<BoardLine> $lines    rows to show
     */
    private function group(
        int $supplier,
        SupplierSum $sum,
        array $lines,
        ?FillUpAdvice $advice,
        int $from = 0,
    ): ReorderGroup {
        $rows = array_map($this->row(...), $lines);
        $arrivals = array_map(static fn (BoardLine $line): \DateTimeImmutable => $line->arrival, $lines);

        return new ReorderGroup(
            $sum,
            $rows,
            $sum->listed - $from - count($lines),
            0 === $supplier ? null : $this->orderDays($supplier)->nextCutOff($this->clock->now()),
            0 === $supplier || [] === $arrivals ? null : max($arrivals),
            $advice,
        );
    }

    private function orderDays(int $supplier): OrderDays
    {
        return ($this->orderDays ??= $this->data->orderDays())[$supplier];
    }

    /** @return array<int, string> */
    private function siteNames(): array
    {
        if (null === $this->siteNames) {
            $this->siteNames = [];
            foreach ($this->shell->sites() as $site) {
                $this->siteNames[$site->id] = $site->name();
            }
        }

        return $this->siteNames;
    }
}
