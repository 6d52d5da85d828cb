<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Brick\Math\BigDecimal;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Sourcing\PriceChange;
use TallBarrel\Desk\Drawing\Barrel;
use TallBarrel\Desk\Drawing\Sparkline;
use TallBarrel\Desk\Drawing\StockChart;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;

/** What Reorder shows: proposals grouped by supplier, and the why of one of them. */
final class ReorderBoard
{
    public const SORTS = ['rush' => 'Rush first', 'money' => 'Most money first', 'code' => 'By item code'];
    private const DAYS_SHOWN = 42;

    /** @var array<string, ExchangeRate>|null */
    private ?array $rates = null;
    /** @var array<int, BigDecimal>|null */
    private ?array $lastPrices = null;

    public function __construct(
        private readonly Proposals $proposals,
        private readonly Rates $ratesInForce,
        private readonly Spending $spending,
        private readonly CurrentBusiness $business,
        private readonly ClockInterface $clock,
    ) {
    }

    public function lastRun(): ?PlanningRun
    {
        return $this->proposals->lastRun();
    }

    public function isOutdated(): bool
    {
        return $this->proposals->isOutdated();
    }

    /** @return list<ReorderGroup> */
    public function groups(?int $site, string $sort): array
    {
        $bySupplier = [];
        foreach ($this->proposals->due($site) as $proposal) {
            $bySupplier[$proposal->offer->supplier->id ?? 0][] = $this->row($proposal);
        }
        $groups = [];
        foreach ($bySupplier as $rows) {
            usort($rows, match ($sort) {
                'money' => static fn (ReorderRow $a, ReorderRow $b): int => ($b->homeLine?->amount->toFloat() ?? 0) <=> ($a->homeLine?->amount->toFloat() ?? 0),
                'code' => static fn (ReorderRow $a, ReorderRow $b): int => strcmp($a->proposal->item->code, $b->proposal->item->code),
                default => static fn (ReorderRow $a, ReorderRow $b): int => [$a->proposal->reason->urgency(), $a->proposal->coverDays ?? INF] <=> [$b->proposal->reason->urgency(), $b->proposal->coverDays ?? INF],
            });
            $groups[] = $this->group($rows);
        }
        usort($groups, 'money' === $sort
            ? fn (ReorderGroup $a, ReorderGroup $b): int => $this->homeTotal([$b])->amount->compareTo($this->homeTotal([$a])->amount)
            : static fn (ReorderGroup $a, ReorderGroup $b): int => [null === $a->supplier ? 1 : 0, $a->hasRush() ? 0 : 1, $a->cutOff, $a->key()] <=> [null === $b->supplier ? 1 : 0, $b->hasRush() ? 0 : 1, $b->cutOff, $b->key()]);

        return $groups;
    }

    /** @param non-empty-list<ReorderRow> $rows */
    private function group(array $rows): ReorderGroup
    {
        $supplier = $rows[0]->proposal->offer?->supplier;
        $arrivals = array_map(static fn (ReorderRow $row): string => $row->proposal->facts()['arrival'], $rows);

        return new ReorderGroup($supplier, $rows, $supplier?->orderDays()->nextCutOff($this->clock->now()), null === $supplier ? null : new \DateTimeImmutable(max($arrivals)));
    }

    public function row(SavedProposal $proposal): ReorderRow
    {
        $explanation = $proposal->explanation();
        $facts = $proposal->facts();
        $coming = array_sum(array_column($facts['arrivals'], 1));
        $price = $line = $home = $change = null;
        $offer = $proposal->offer;
        if (null !== $offer) {
            $price = Money::of($offer->prices()->priceFor($proposal->packs()), $offer->supplier->currency());
            $line = $price->multipliedBy($proposal->packs())->rounded();
            $home = $this->toHome($line);
            $change = PriceChange::percent($price->amount, $this->lastPrice($offer->id));
        }

        return new ReorderRow(
            $proposal,
            Barrel::of($facts['onHand'], $coming, $explanation->safetyStock, $explanation->reorderPoint, $explanation->orderUpTo),
            Sparkline::of(array_slice($facts['sold'], -20), array_slice($proposal->forecast()->weeks, 0, 6)),
            $facts['onHand'], $coming, $price, $change, $line, $home,
            $offer?->rule()->pack->label() ?? '',
            ($proposal->item->weightKg()?->toFloat() ?? 0) * ($offer?->rule()->pack->toStockUnits($proposal->packs())->toFloat() ?? 0),
        );
    }

    /**
     * The drawing that follows the quantity, and the sum that led to it.
     *
     * @return array{row: ReorderRow, chart: StockChart, outOn: \DateTimeImmutable|null, arrival: \DateTimeImmutable, units: BigDecimal}
     */
    public function why(SavedProposal $proposal): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $facts = $proposal->facts();
        $explanation = $proposal->explanation();
        $arrival = new \DateTimeImmutable($facts['arrival'], $today->getTimezone());
        $onDay = max(0, (int) $today->diff($arrival)->format('%r%a'));
        $coming = OpenOrder::schedule(SavedProposal::openOrders($facts), $today);
        $units = $proposal->offer?->rule()->pack->toStockUnits($proposal->packs()) ?? BigDecimal::zero();
        $projection = Projection::over(max(self::DAYS_SHOWN, $onDay + 14), $facts['onHand'] - $facts['promised'], $coming, $proposal->forecast(), $units->toFloat(), $onDay);

        return [
            'row' => $this->row($proposal),
            'chart' => StockChart::of($projection, $explanation->safetyStock, $explanation->reorderPoint, $today, $units->isPositive() ? $onDay : null),
            'outOn' => null === $projection->outOnDay ? null : $today->add(new \DateInterval(sprintf('P%dD', $projection->outOnDay))),
            'arrival' => $arrival,
            'units' => $units,
        ];
    }

    /**
     * What is chosen, for the strip.
     *
     * @param list<ReorderGroup> $groups
     *
     * @return array{orders: int, lines: int, total: Money, weight: float, budgetLeft: Money|null, month: string, items: int}
     */
    public function summary(array $groups): array
    {
        $total = $this->homeTotal($groups);
        $chosen = array_merge(...array_map(static fn (ReorderGroup $group): array => $group->chosen(), $groups));
        $left = $this->spending->budgetLeft($this->clock->now());

        return [
            'orders' => count(array_filter($groups, static fn (ReorderGroup $group): bool => [] !== $group->chosen())),
            'lines' => count($chosen),
            'total' => $total,
            'weight' => array_sum(array_map(static fn (ReorderRow $row): float => $row->weightKg, $chosen)),
            'budgetLeft' => $left,
            'month' => $this->clock->now()->format('F'),
            'items' => array_sum(array_map(static fn (ReorderGroup $group): int => count($group->rows), $groups)),
        ];
    }

    /** @param list<ReorderGroup> $groups */
    private function homeTotal(array $groups): Money
    {
        $total = Money::zero($this->business->get()->currency);
        foreach ($groups as $group) {
            foreach ($group->chosen() as $row) {
                $total = null === $row->homeLine ? $total : $total->plus($row->homeLine);
            }
        }

        return $total->rounded();
    }

    private function toHome(Money $money): ?Money
    {
        $this->rates ??= $this->ratesInForce->allOn($this->clock->now());

        return ($this->rates[$money->currency->code] ?? null)?->toHome($money);
    }

    private function lastPrice(int $offer): ?BigDecimal
    {
        $this->lastPrices ??= $this->spending->lastPrices();

        return $this->lastPrices[$offer] ?? null;
    }
}
