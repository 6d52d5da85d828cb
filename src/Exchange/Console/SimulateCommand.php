<?php

declare(strict_types=1);

namespace TallBarrel\Exchange\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Replenish\BestReorderLevels;
use TallBarrel\Core\Replenish\CycleService;
use TallBarrel\Core\Replenish\FillRate;
use TallBarrel\Core\Replenish\LeadTimeDemand;
use TallBarrel\Core\Replenish\Simulation;
use TallBarrel\Core\Replenish\StockPolicy;
use TallBarrel\Core\Replenish\WayDown;

#[AsCommand(
    'replenish:simulate',
    'Plays a stock policy over demand that is given or drawn, and finds the best levels where there are costs.',
),]
final class SimulateCommand extends AnswerFromFile
{
    protected const FILE = 'JSON with demand, lead_time, costs, policy, periods, seed; see docs/planning.md';

    protected function answer(string $file): array
    {
        $scenario = ScenarioFile::read($file);
        $perPeriod = Counts::rounding($scenario->demand);
        $leads = new LeadTimeDemand($perPeriod, $scenario->leadTimes);
        $best =
            $scenario->costs['holding'] > 0
            && $scenario->costs['shortage'] > 0
            && 1 === $scenario->review
            && $scenario->backorders
            && null === $scenario->series
                ? BestReorderLevels::of(
                    $perPeriod,
                    $leads->with(1),
                    $scenario->costs['order'],
                    $scenario->costs['holding'],
                    $scenario->costs['shortage'],
                )
                : null;
        [$policy, $words] = $this->policy($scenario, $perPeriod, $leads, $best);
        $draws = new Draws($scenario->seed);
        $leadDraws = new Draws($scenario->seed + 1);
        $series = $scenario->series;
        $lead = Counts::of(
            array_values(
                array_replace(array_fill(0, max(array_keys($scenario->leadTimes)) + 1, 0.0), $scenario->leadTimes),
            ),
        );
        $result = Simulation::run(
            $scenario->periods,
            static fn (int $period): StockPolicy => $policy,
            null === $series
                ? static fn (int $period): float => max(0.0, $draws->of($scenario->demand))
                : static fn (int $period): float => $series[$period % count($series)],
            static fn (int $period): int => (int) $leadDraws->of($lead),
            $scenario->review,
            $scenario->costs['order'],
            $scenario->costs['holding'],
            $scenario->costs['shortage'],
            $scenario->backorders,
            $scenario->warmUp,
            $scenario->startStock,
        );

        return [
            'policy' => $words,
            'fill_rate' => round($result->fillRate, 6),
            'cycle_service' => round($result->cycleService, 6),
            'average_stock' => round($result->averageStock, 4),
            'average_backorders' => round($result->averageOwed, 4),
            'orders' => $result->orders,
            'average_order' => round($result->averageOrder, 4),
            'stock_outs' => $result->stockOuts,
            'cost_per_period' => round($result->costPerPeriod, 6),
            'demand' => round($result->demand, 4),
            'periods' => $result->periods,
            'seed' => $scenario->seed,
            'best' => null === $best
                    ? null
                    : [
                        's' => $best->reorderPoint,
                        'S' => $best->orderUpTo,
                        'cost_per_period' => round($best->costPerPeriod, 6),
                    ],
        ];
    }

    /** @return array{StockPolicy, array<string, mixed>} */
    private function policy(
        ScenarioFile $scenario,
        Counts $perPeriod,
        LeadTimeDemand $leads,
        ?BestReorderLevels $best,
    ): array {
        $figures = $scenario->figures;
        $service = $scenario->service;
        if ('best' === $scenario->policy) {
            if (null === $best) {
                throw InvalidValue::because(
                    'The best levels need a demand distribution, a review of 1, backorders, and costs of holding and '
                    .'shortage above 0.',
                );
            }

            return [
                StockPolicy::upTo($best->reorderPoint, $best->orderUpTo),
                ['type' => 's-S', 's' => $best->reorderPoint, 'S' => $best->orderUpTo],
            ];
        }
        $until = $leads->with($scenario->review);
        if ('order-up-to' === $scenario->policy) {
            $level =
                null === $service
                    ? $figures['S']
                    : ($service->isFill()
                        ? $leads->levelFor($service->level, $scenario->review)
                        : $leads->levelForCycles($service->level, $scenario->review));

            return [StockPolicy::always($level), ['type' => 'order-up-to', 'S' => $level]];
        }
        $toLevel = 's-S' === $scenario->policy;
        $point = $figures['s'] ?? 0.0;
        if (null !== $service) {
            $point = $service->isFill()
                ? FillRate::reorderPoint(
                    $service->level,
                    $figures['Q'],
                    $until,
                    $leads->with(0),
                    $toLevel ? WayDown::of($perPeriod->times($scenario->review), $figures['Q']) : null,
                )
                : CycleService::reorderPoint(
                    $service->level,
                    $figures['Q'],
                    $until,
                    $leads->with(0),
                    $perPeriod->times($scenario->review),
                    $toLevel,
                );
        }
        if ($toLevel) {
            $level = null === $service ? $figures['S'] : $point + $figures['Q'];

            return [StockPolicy::upTo($point, $level), ['type' => 's-S', 's' => $point, 'S' => $level]];
        }

        return [StockPolicy::inLots($point, $figures['Q']), ['type' => 's-Q', 's' => $point, 'Q' => $figures['Q']]];
    }
}
