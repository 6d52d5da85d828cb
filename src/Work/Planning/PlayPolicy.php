<?php

declare(strict_types=1);

namespace TallBarrel\Work\Planning;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Messenger\MessageBusInterface;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\Replay;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Planning\ClassFigures;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\Proposals;

/**
 * Service against money in stock for one class: its items' past played again at one service level after the other.
 *
 * @phpstan-type Point array{level: float, served: float, stock: float, orders: float, stockOuts: float, low: float,
 *      high: float}
 */
final readonly class PlayPolicy
{
    public const LEVELS = [0.8, 0.85, 0.9, 0.93, 0.95, 0.97, 0.98, 0.99, 0.995];
    private const PLACES = 16;
    private const FUTURES = 4;
    private const WEEKS = 52;
    /** After so long a worker is asked again. */
    private const SECONDS_TO_PLAY = 60;

    public function __construct(
        private PlanningData $data,
        private ClassFigures $figures,
        private Proposals $proposals,
        private CurrentBusiness $business,
        private ClockInterface $clock,
        private CacheItemPoolInterface $cache,
        private MessageBusInterface $bus,
    ) {
    }

    /**
     * What has been played; where it has not, a worker is asked to.
     *
     * @param Policy      $policy to be played at each of the levels; its own does not matter
     * @param list<float> $marks  levels that must be among them
     *
     * @return array{points: list<Point>, places: int, of: int}|null points by level; money for the whole class, per
     *                                                               average day; orders and stock-outs a year; null
     *                                                               while it is being played
     */
    public function of(string $class, Policy $policy, array $marks): ?array
    {
        // A level moved along the curve finds it played already.
        $policy = $policy->aimingAt(ServiceTarget::of($policy->target->kind, self::LEVELS[0]));
        $levels = array_values(array_unique([...self::LEVELS, ...$marks]));
        sort($levels);
        $run = $this->proposals->lastRun();
        $key =
            'curve-'.
            hash('xxh128', serialize([$class, $policy, $levels, $run?->id, $this->clock->now()->format('Ymd')]));
        $played = $this->played($key);
        $asked = $this->cache->getItem('asked-'.$key);
        if (null !== $played || $asked->isHit()) {
            return $played;
        }
        $this->cache->save($asked->set(true)->expiresAfter(self::SECONDS_TO_PLAY));
        $this->bus->dispatch(new PolicyToPlay($key, $class, $policy, $levels));

        return $this->played($key);
    }

    #[AsMessageHandler]
    public function carryOut(PolicyToPlay $message): void
    {
        $result = $this->cache->getItem($message->key);
        if (!$result->isHit()) {
            $this->cache->save(
                $result->set($this->play($message->class, $message->policy, $message->levels))->expiresAfter(86400),
            );
        }
    }

    /** @return array{points: list<Point>, places: int, of: int}|null */
    private function played(string $key): ?array
    {
        /** @var array{points: list<Point>, places: int, of: int}|null $played */
        $played = $this->cache->getItem($key)->get();

        return $played;
    }

    /**
     * @param list<float> $levels
     *
     * @return array{points: list<Point>, places: int, of: int}
     */
    private function play(string $class, Policy $policy, array $levels): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $items = $this->figures->sample($class, self::PLACES);
        $offers = $this->data->offers($today, $items);
        $suppliers = $this->data->suppliers();
        $business = $this->business->get();
        $places = array_slice(
            array_values(
                array_filter(
                    $this->data->itemSites($today, $items),
                    static fn ($place): bool => null === $place->steering->policy,
                ),
            ),
            0,
            2 * self::PLACES,
        );
        $points = [];
        $played = 0;
        $value = 0.0;
        foreach ($levels as $level) {
            $aimed = $policy->aimingAt(ServiceTarget::of($policy->target->kind, $level));
            $demand = $served = $stock = $orders = $stockOuts = $value = 0.0;
            /** @var array<int, array{float, float}> $futures demand and what was served of it */
            $futures = [];
            $played = 0;
            foreach ($places as $i => $place) {
                $worth = $place->item->worth;
                $offer = isset($offers[$place->item->id]) ? OfferTerms::choose($offers[$place->item->id], 1) : null;
                $terms = null === $offer ? null : $suppliers[$offer->supplierId];
                $lead = LeadTime::fromDeliveries($offer->leadDays ?? 7, $terms->leadTimesMet ?? []);
                $review = $terms?->orderDays->reviewDays() ?? 7;
                $economics = new Economics(
                    $worth->unitCost,
                    $business->orderCost()->toFloat(),
                    $business->holdingPercent()->toFloat() / 100,
                    $worth->salesPrice,
                    $offer?->unitBreaks() ?? [],
                    null,
                    $worth->shelfDays,
                    BreakKind::Incremental === $offer?->prices->kind,
                );
                $weeks = Cleaning::of($place->record->own, $place->record->verdicts)->history->sinceFirstSale()->demand;
                $past = Replay::past($weeks, $aimed, $lead, $review, $economics, $i + 1);
                if (null === $past) {
                    continue;
                }
                ++$played;
                $years = $past->periods / 365;
                $demand += $past->demand;
                $served += $past->demand * $past->fillRate;
                $stock += $past->averageStock * $worth->unitCost;
                $value += ((7 * $past->demand) / $past->periods) * $worth->unitCost;
                $orders += $past->orders / $years;
                $stockOuts += $past->stockOuts / $years;
                foreach (
                    Replay::futures(
                        $weeks,
                        self::FUTURES,
                        self::WEEKS,
                        $aimed,
                        $lead,
                        $review,
                        $economics,
                        100 * ($i + 1),
                    ) as $n => $future
                ) {
                    $futures[$n] = [
                        ($futures[$n][0] ?? 0.0) + $future->demand,
                        ($futures[$n][1] ?? 0.0) + $future->demand * $future->fillRate,
                    ];
                }
            }
            $shares = array_map(static fn (array $one): float => $one[0] > 0 ? $one[1] / $one[0] : 1.0, $futures);
            if ($demand > 0) {
                $points[] = [
                    'level' => $level,
                    'served' => $served / $demand,
                    'stock' => $stock,
                    'orders' => $orders,
                    'stockOuts' => $stockOuts,
                    'low' => [] === $shares ? 0.0 : min($shares),
                    'high' => [] === $shares ? 0.0 : max($shares),
                ];
            }
        }
        $figures = $this->figures->all()[$class] ?? ['places' => 0, 'weekly' => 0.0];
        $of = $figures['places'];
        // Money is scaled by money, what is counted by places.
        $scale = $played > 0 ? $of / $played : 0.0;
        $worth = $value > 0 ? $figures['weekly'] / $value : 0.0;

        return [
            'points' => array_map(
                static fn (array $point): array => [
                    'stock' => $point['stock'] * $worth,
                    'orders' => $point['orders'] * $scale,
                    'stockOuts' => $point['stockOuts'] * $scale,
                ] + $point,
                $points,
            ),
            'places' => $played,
            'of' => $of,
        ];
    }
}
