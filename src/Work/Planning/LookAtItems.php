<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Symfony\Component\Clock\ClockInterface;
use Symfony\Contracts\Cache\CacheInterface;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\PooledSeason;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\Decision;
use TallBarrel\Core\Replenish\Finding;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Core\Replenish\KnownForecast;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Import\ImportRuns;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\OrderLists;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Site\SiteWays;

/** Reads all there is about some items in bulk, lets Core decide, and stages what it comes to. */
final readonly class LookAtItems
{
    public function __construct(
        private PlanningData $data,
        private Proposals $proposals,
        private Decision $decision,
        private Spending $spending,
        private OrderLists $lists,
        private CurrentBusiness $business,
        private ImportRuns $imports,
        private CacheInterface $cache,
        private ClockInterface $clock,
        private SiteWays $ways,
    ) {
    }

    /**
     * @param list<int> $items
     * @param bool      $afresh whether every contest of forecasts is held anew, also where nothing has changed
     *
     * @return int how many items at sites
     */
    public function look(PlanningRun $run, array $items, bool $afresh = false): int
    {
        $today = $this->clock->now()->setTime(0, 0);
        $places = $this->data->itemSites($today, $items);
        $offers = $this->data->offers($today, $items);
        $background = $this->background($run->options(), array_merge(...array_values($offers)));
        $known = $afresh ? [] : $this->proposals->forecasts($items);
        $this->proposals->stage($run, $this->findings($background, $places, $offers, $known));

        return count($places);
    }

    /**
     * @param list<ItemSite>                $places
     * @param array<int, list<OfferTerms>>  $offers by item
     * @param array<string, KnownForecast>  $known
     *
     * @return list<Finding>
     */
    private function findings(Background $background, array $places, array $offers, array $known): array
    {
        $byItem = [];
        foreach ($places as $place) {
            $byItem[$place->item->id][] = $place;
        }
        $findings = [];
        foreach ($byItem as $item => $sites) {
            array_push($findings, ...$this->decision->about($sites, $offers[$item] ?? [], $background, $known));
        }

        return $findings;
    }

    /**
     * What sales say of all items, read once a day: they end yesterday and change only when somebody brings more. Of
     * workers that begin at once each goes its own way round, so that they do not all wait for the same of it.
     *
     * @return array{classes: array<int, ValueClass>, seasons: array<string, PooledSeason>, alike: Newcomers}
     */
    private function shared(\DateTimeImmutable $today): array
    {
        $sales = sprintf('%s-%d', $today->format('Ymd'), $this->imports->lastApplied());
        $classes = $seasons = [];
        $alike = new Newcomers();
        $reads = [
            function () use (&$classes, $sales, $today): void {
                $classes = $this->cache->get('classes-'.$sales, fn (): array => $this->data->valueClasses($today));
            },
            function () use (&$seasons, $sales, $today): void {
                $seasons = $this->cache->get('seasons-'.$sales, fn (): array => $this->data->seasons($today));
            },
            function () use (&$alike, $sales, $today): void {
                $alike = $this->cache->get('alike-'.$sales, fn (): Newcomers => $this->data->newcomers($today));
            },
        ];
        shuffle($reads);
        foreach ($reads as $read) {
            $read();
        }

        return ['classes' => $classes, 'seasons' => $seasons, 'alike' => $alike];
    }

    /** @param list<OfferTerms> $offers there are to choose from */
    private function background(PlanningOptions $options, array $offers): Background
    {
        $now = $this->clock->now();
        $today = $now->setTime(0, 0);
        $business = $this->business->get();
        $shared = $this->shared($today);
        $list =
            null === $options->list
                ? null
                : $this->lists->members($options->list) ?? throw InvalidValue::because('That order list is gone.');

        return new Background(
            $now,
            $options,
            $this->data->suppliers(),
            $shared['classes'],
            $this->data->policies(),
            $shared['seasons'],
            $this->spending->lastPrices(array_map(static fn (OfferTerms $offer): int => $offer->id, $offers)),
            $list['items'] ?? null,
            $list['site'] ?? null,
            PlanningOptions::VALUE === $options->start
                ? $this->data->daysForSales((float) $options->figure)
                : $options->figure,
            $business->orderCost()->toFloat(),
            $business->holdingPercent()->toFloat() / 100,
            $shared['alike'],
            $this->ways->all(),
        );
    }
}
