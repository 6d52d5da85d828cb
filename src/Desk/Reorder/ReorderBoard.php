<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Replenish\Evidence;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Sourcing\PriceChange;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Desk\Drawing\StockChart;
use TallBarrel\Desk\Shell\Shell;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Offer\Offers;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Supplier;
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
    public const PAGE = 30;
    private const AT_MOST = 20_000;
    private const DAYS_SHOWN = 42;

    /** @var array<int, BigDecimal|null> by offer, of those asked for so far */
    private array $lastPrices = [];
    /** @var array<int, array{string, OrderDays}>|null */
    private ?array $orderDays = null;
    private ?PlanningRun $latestRun = null;
    /** @var array<int, string>|null */
    private ?array $siteNames = null;
    /**
     * @var array<string, array<int, array{listed: int, rush: bool, risk: float, chosen: int, value: float, home: float,
     *      weight: float, atRisk: float, cut: int, cutHome: float, cutRisk: float}>>
     */
    private array $sums = [];

    public function __construct(
        private readonly Proposals $proposals,
        private readonly PlanningData $data,
        private readonly FillUpOrder $fillUp,
        private readonly Spending $spending,
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
     * All groups with their sums; the rows of the first ones.
     *
     * @return list<ReorderGroup>
     */
    public function groups(?Site $site, string $sort, string $words = '', int $rows = self::PAGE): array
    {
        $sums = $this->sums($site, $words);
        $suppliers = $this->suppliers(array_keys($sums));
        $groups = [];
        foreach ($sums as $id => $sum) {
            $cutOff = isset($suppliers[$id]) ? $this->orderDays($id)->nextCutOff($this->clock->now()) : null;
            $groups[] = [
                match ($sort) {
                    'money' => [-$sum['home']],
                    'risk' => [-$sum['risk']],
                    default => [
                        0 === $id ? 1 : 0,
                        $sum['rush'] && 'rush' === $sort ? 0 : 1,
                        $cutOff,
                        $suppliers[$id]->code ?? '',
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
            $sofar += $sums[$id]['listed'];
        }
        $found = $this->proposals->pages($open, $site, $sort, $words, min($rows, self::AT_MOST));
        $pages = [];
        foreach ($groups as [, $id]) {
            $pages[$id] = array_slice($found[$id] ?? [], 0, max(0, $rows));
            $rows -= count($pages[$id]);
        }
        // All of them from one query; each group then finds its own.
        $this->lookUpPrices($this->proposals->load(array_merge(...array_values($pages))));
        $built = [];
        foreach ($pages as $id => $ids) {
            $built[] = $this->group($suppliers[$id] ?? null, $sums[$id], $ids, $site);
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
        $ids = $this->proposals->page($supplier->id ?? 0, $site, $sort, $words, $from, $rows);
        $this->lookUpPrices($this->proposals->load($ids));

        return $this->group($supplier, $sum, $ids, $site, $from);
    }

    /** @param list<SavedProposal> $proposals */
    private function lookUpPrices(array $proposals): void
    {
        $offers = [];
        foreach ($proposals as $proposal) {
            if (null !== $proposal->offer()) {
                $offers[] = $proposal->offer()->id;
            }
        }
        $this->lastPrices += $this->spending->lastPrices($offers) + array_fill_keys($offers, null);
    }

    public function row(SavedProposal $proposal): ReorderRow
    {
        $evidence = $proposal->evidence($this->clock->now());
        $offer = $proposal->offer();
        $price =
            null === $offer
                ? null
                : Money::of($offer->prices()->priceFor($proposal->packs()), $offer->supplier->currency());
        if (null !== $offer && !array_key_exists($offer->id, $this->lastPrices)) {
            $this->lastPrices += $this->spending->lastPrices([$offer->id]) + [$offer->id => null];
        }
        $forecast = $proposal->forecast();
        $names = $this->siteNames();

        return new ReorderRow(
            $proposal,
            Barrel::of(
                $proposal->onHand,
                $proposal->coming,
                $proposal->safetyStock,
                $proposal->reorderPoint,
                $proposal->orderUpTo,
            ),
            Sparkline::of(array_slice($evidence->sold, -20), array_map($forecast->week(...), range(0, 5))),
            $proposal->onHand,
            $proposal->coming,
            $price,
            null === $offer || null === $price
                ? null
                : PriceChange::percent($price->amount, $this->lastPrices[$offer->id] ?? null),
            $proposal->line(),
            $offer?->rule()->pack->label() ?? '',
            array_map(
                static fn (array $move): array => [
                    'site' => $names[$move['site']] ?? '?',
                    'siteId' => $move['site'],
                    'units' => (float) $move['units'],
                ],
                $proposal->moves(),
            ),
            $evidence->needed,
        );
    }

    /**
     * The drawing that follows the quantity, the sum that led to it, and what else could be done.
     *
     * @return array{row: ReorderRow, evidence: Evidence, chart: StockChart, outOn: \DateTimeImmutable|null,
     *      arrival: \DateTimeImmutable, units: BigDecimal, others: list<Offer>, overdue: list<OpenOrder>,
     *      putOffTo: \DateTimeImmutable}
     */
    public function why(SavedProposal $proposal): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $evidence = $proposal->evidence($today);
        $arrival = new \DateTimeImmutable($proposal->arrival->format('Y-m-d'), $today->getTimezone());
        $onDay = max(0, (int) $today->diff($arrival)->format('%r%a'));
        $coming = $proposal->comingOn($today);
        $units = $proposal->units();
        $leaving = [];
        foreach ($evidence->planned as $planned) {
            $ahead = max(0, (int) $today->diff($planned->day)->format('%r%a'));
            $leaving[$ahead] = ($leaving[$ahead] ?? 0.0) + $planned->stockUnits;
        }
        $projection = Projection::over(
            max(self::DAYS_SHOWN, $onDay + 14),
            $proposal->onHand - $proposal->promised,
            $coming->schedule(),
            $proposal->forecast(),
            $units->toFloat(),
            $onDay,
            $leaving,
        );
        $offers = $this->offers->ofItem($proposal->item);

        return [
            'row' => $this->row($proposal),
            'evidence' => $evidence,
            'chart' => StockChart::of(
                $projection,
                $proposal->safetyStock,
                $proposal->reorderPoint,
                $today,
                $units->isPositive() ? $onDay : null,
            ),
            'outOn' => null === $projection->outOnDay
                    ? null
                    : $today->add(new \DateInterval(sprintf('P%dD', $projection->outOnDay))),
            'arrival' => $arrival,
            'units' => $units,
            'others' => array_values(
                array_filter($offers, static fn (Offer $offer): bool => $offer !== $proposal->offer()),
            ),
            'overdue' => $coming->late(),
            'putOffTo' => null === $proposal->offer()
                    ? $today->modify('+7 days')
                    : $this->orderDays($proposal->offer()->supplier->id)->nextCutOff($today->modify('+1 day')),
        ];
    }

    /**
     * What is chosen, for the strip.
     *
     * @return array{orders: int, lines: int, total: Money, weight: float, budgetLeft: Money|null, month: string,
     *      items: int, cut: int, cutValue: Money, cutRisk: Money}
     */
    public function summary(?Site $site): array
    {
        $currency = $this->business->get()->currency;
        $money = static fn (float $amount): Money => Money::of(number_format($amount, 2, '.', ''), $currency);
        $sums = $this->sums($site);
        $sum = static fn (string $what): float => (float) array_sum(array_column($sums, $what));

        return [
            'orders' => count(array_filter($sums, static fn (array $one): bool => $one['chosen'] > 0)),
            'lines' => (int) $sum('chosen'),
            'total' => $money($sum('home')),
            'weight' => $sum('weight'),
            'budgetLeft' => $this->spending->budgetLeft($this->clock->now()),
            'month' => $this->clock->now()->format('F'),
            'items' => (int) $sum('listed'),
            'cut' => (int) $sum('cut'),
            'cutValue' => $money($sum('cutHome')),
            'cutRisk' => $money($sum('cutRisk')),
        ];
    }

    /** A group's heading alone, after one of its rows changed; null where nothing of it is listed. */
    public function headOf(?Supplier $supplier, ?Site $site, \DateTimeImmutable $arrival): ?ReorderGroup
    {
        $sum = $this->sums($site)[$supplier->id ?? 0] ?? null;
        if (null === $supplier || null === $sum) {
            return null;
        }

        return new ReorderGroup(
            $supplier,
            [],
            $sum['listed'],
            $sum['chosen'],
            Money::of(number_format($sum['value'], 2, '.', ''), $supplier->currency()),
            $sum['weight'],
            $this->orderDays($supplier->id)->nextCutOff($this->clock->now()),
            $arrival,
            $sum['value'] <= 0
                ? null
                : $this->fillUp->advice($supplier, $site, $sum['value'], $sum['weight'], $sum['atRisk']),
        );
    }

    /**
     * Read once a request: whatever changes proposals does so before.
     *
     * @return array<int, array{listed: int, rush: bool, risk: float, chosen: int, value: float, home: float,
     *      weight: float, atRisk: float, cut: int, cutHome: float, cutRisk: float}>
     */
    private function sums(?Site $site, string $words = ''): array
    {
        return $this->sums[($site->id ?? 0).':'.$words] ??= $this->proposals->sums($site, $words);
    }

    /**
     * @param array{listed: int, chosen: int, value: float, weight: float, atRisk: float, ...} $sum
     * @param list<int>                                                                        $ids rows to show
     */
    private function group(?Supplier $supplier, array $sum, array $ids, ?Site $site, int $from = 0): ReorderGroup
    {
        $rows = array_map(
            $this->row(...),
            array_values(
                array_filter(
                    array_map($this->proposals->find(...), $ids),
                    static fn (?SavedProposal $one): bool => null !== $one,
                ),
            ),
        );
        $arrivals = array_map(static fn (ReorderRow $row): string => $row->proposal->arrival->format('Y-m-d'), $rows);

        return new ReorderGroup(
            $supplier,
            $rows,
            $sum['listed'] - $from - count($ids),
            $sum['chosen'],
            null === $supplier ? null : Money::of(number_format($sum['value'], 2, '.', ''), $supplier->currency()),
            $sum['weight'],
            null === $supplier ? null : $this->orderDays($supplier->id)->nextCutOff($this->clock->now()),
            null === $supplier || [] === $arrivals ? null : new \DateTimeImmutable(max($arrivals)),
            null === $supplier || $sum['value'] <= 0 || [] === $rows
                ? null
                : $this->fillUp->advice($supplier, $site, $sum['value'], $sum['weight'], $sum['atRisk']),
        );
    }

    /**
     * @param list<int> $ids
     *
     * @return array<int, Supplier>
     */
    private function suppliers(array $ids): array
    {
        $found = [];
        foreach ($this->entities->getRepository(Supplier::class)->findBy(['id' => $ids]) as $supplier) {
            $found[$supplier->id] = $supplier;
        }

        return $found;
    }

    private function orderDays(int $supplier): OrderDays
    {
        $this->orderDays ??= $this->data->orderDays();

        return $this->orderDays[$supplier][1];
    }

    /** @return array<int, string> */
    private function siteNames(): array
    {
        if (null === $this->siteNames) {
            $this->siteNames = [];
            foreach ($this->shell->sites() as $site) {
                $this->siteNames[$site->id] = $site->name;
            }
        }

        return $this->siteNames;
    }
}
