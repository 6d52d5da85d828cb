<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Process\PhpExecutableFinder;
use Symfony\Component\Process\Process;
use Symfony\Contracts\Cache\CacheInterface;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Import\Imports;
use TallBarrel\Store\Offer\OfferPrices;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\ItemSite;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningOptions;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;

/**
 * A planning run: reads all there is in bulk, lets Core decide item by item, saves the proposals at the end. Many items
 * are shared out among processes.
 */
final readonly class Planner
{
    private const AT_ONCE = 150;
    /** Fewer places than this are not worth starting other processes for. */
    private const WORTH_SHARING = 1500;
    private const PROCESSES = 2;

    public function __construct(
        private PlanningData $data,
        private Proposals $proposals,
        private Decision $decision,
        private Budgeting $budgeting,
        private Spending $spending,
        private OrderLists $lists,
        private CurrentBusiness $business,
        private Imports $imports,
        private OfferPrices $prices,
        private CacheInterface $cache,
        private ClockInterface $clock,
        private string $projectDir,
    ) {
    }

    public function run(?PlanningOptions $options = null, bool $afresh = false): PlanningRun
    {
        return $this->carryOut($this->proposals->begin($options ?? PlanningOptions::usual()), $afresh);
    }

    public function carryOut(PlanningRun $run, bool $afresh = false): PlanningRun
    {
        $start = hrtime(true);
        try {
            $count = $this->data->countItemSites();
            $this->prices->putInForce($this->clock->now());
            $this->proposals->plan($run, $count);
            if ($count < self::WORTH_SHARING) {
                $this->part($run, 0, 1, $afresh);
            } else {
                $this->share($run, $afresh);
            }
            $this->proposals->settle($run, max(1, (int) ((hrtime(true) - $start) / 1e6)));
            $this->budgeting->cut();
        } catch (\Throwable $problem) {
            $this->proposals->fail($run, $problem->getMessage());
            throw $problem;
        }
        // An order drafted or a delivery booked while the run was looking must not be overlooked.
        $this->replan($this->data->changedSince($run->at()));

        return $run;
    }

    /** Every so-many-th item of a run. */
    public function part(PlanningRun $run, int $part, int $of, bool $afresh = false): void
    {
        $background = $this->background($run->options());
        foreach (array_chunk($this->data->items($part, $of), self::AT_ONCE) as $items) {
            $places = $this->data->itemSites($background->today(), $items);
            $this->proposals->stage($run, $this->findings($background, $places, $items, $afresh));
            $this->proposals->advance($run, count($places));
        }
    }

    /**
     * A few items again, at once, because something about them changed; the rest of the board stays as it is.
     *
     * @param list<int> $items
     */
    public function replan(array $items): void
    {
        $run = $this->proposals->lastRun();
        if (null === $run || [] === $items) {
            return;
        }
        $background = $this->background($run->options());
        $this->proposals->stage($run, $this->findings($background, $this->data->itemSites($background->today(), $items), $items, false));
        $this->proposals->settle($run, 0, $items);
    }

    /**
     * @param list<ItemSite> $places
     * @param list<int>      $items
     *
     * @return list<\TallBarrel\Store\Planning\Finding>
     */
    private function findings(Background $background, array $places, array $items, bool $afresh): array
    {
        $offers = $this->data->offers($background->today(), $items);
        $known = $afresh ? [] : $this->proposals->forecasts($items);
        $byItem = [];
        foreach ($places as $place) {
            $byItem[$place->item][] = $place;
        }
        $findings = [];
        foreach ($byItem as $item => $sites) {
            array_push($findings, ...$this->decision->about($sites, $offers[$item] ?? [], $background, $known));
        }

        return $findings;
    }

    private function background(PlanningOptions $options): Background
    {
        $now = $this->clock->now();
        $today = $now->setTime(0, 0);
        $business = $this->business->get();
        // Sales end yesterday and change only when somebody brings more.
        $shared = $this->cache->get(sprintf('planning-v1-%s-%d', $today->format('Ymd'), $this->imports->lastApplied()), fn (): array => ['classes' => $this->data->valueClasses($today), 'seasons' => $this->data->seasons($today)]);
        $list = null === $options->list ? null : $this->lists->members($options->list) ?? throw InvalidValue::because('That order list is gone.');

        return new Background(
            $now, $options, $this->data->suppliers(), $shared['classes'], $this->data->policies(), $shared['seasons'], $this->spending->lastPrices(),
            $list['items'] ?? null, $list['site'] ?? null,
            PlanningOptions::VALUE === $options->start ? $this->data->daysForSales((float) $options->figure) : $options->figure,
            $business->orderCost->toFloat(), $business->holdingPercent->toFloat() / 100,
        );
    }

    private function share(PlanningRun $run, bool $afresh): void
    {
        $php = (new PhpExecutableFinder())->find(false) ?: 'php';
        $processes = [];
        for ($part = 0; $part < self::PROCESSES; ++$part) {
            $process = new Process([$php, $this->projectDir.'/bin/console', 'planning:part', (string) $run->id, (string) $part, (string) self::PROCESSES, ...($afresh ? ['--afresh'] : [])], null, null, null, null);
            $process->start();
            $processes[] = $process;
        }
        $most = 0;
        foreach ($processes as $process) {
            if (0 !== $process->wait()) {
                throw new \RuntimeException('Planning stopped: '.trim($process->getErrorOutput().' '.$process->getOutput()));
            }
            $most = max($most, (int) $process->getOutput());
        }
        $this->proposals->remark($run, sprintf('%d processes, %d MB each at most', self::PROCESSES, $most));
    }
}
