<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Draws;
use TallBarrel\Core\Demand\Distribution\Shape;
use TallBarrel\Core\Demand\Forecast;

/**
 * What a policy would have done: played day by day over an item's past, each decision knowing only what came before it;
 * or over futures drawn from that past.
 */
final readonly class Replay
{
    private const SMOOTHING = 0.15;
    private const ERROR_SMOOTHING = 0.1;
    private const LEARNING_WEEKS = 13;
    /** Levels are settled anew so often. */
    private const WEEKS_BETWEEN = 4;
    private const BLOCK_WEEKS = 4;
    private const DAYS = 7;

    /**
     * @param list<?float> $weeks what was wanted, null where unknown
     *
     * @return Simulation|null null where there is too little past
     */
    public static function past(
        array $weeks,
        Policy $policy,
        LeadTime $leadTime,
        int $reviewDays,
        Economics $economics,
        int $seed = 1,
    ): ?Simulation {
        $known = array_values(array_filter($weeks, static fn (?float $week): bool => null !== $week));
        if (count($known) < 2 * self::LEARNING_WEEKS || array_sum($known) <= 0) {
            return null;
        }

        return self::play($known, self::LEARNING_WEEKS, $policy, $leadTime, $reviewDays, $economics, new Draws($seed));
    }

    /**
     * Futures put together from blocks of the past (moving-block bootstrap: Künsch, Annals of Statistics 17(3), 1989).
     *
     * @param list<?float> $weeks
     *
     * @return list<Simulation>
     */
    public static function futures(
        array $weeks,
        int $futures,
        int $length,
        Policy $policy,
        LeadTime $leadTime,
        int $reviewDays,
        Economics $economics,
        int $seed = 1,
    ): array {
        $known = array_values(array_filter($weeks, static fn (?float $week): bool => null !== $week));
        $count = count($known);
        if ($count < 2 * self::LEARNING_WEEKS || array_sum($known) <= 0) {
            return [];
        }
        $played = [];
        for ($future = 0; $future < $futures; ++$future) {
            $draws = new Draws($seed + $future);
            $drawn = array_slice($known, -self::LEARNING_WEEKS);
            while (count($drawn) < self::LEARNING_WEEKS + $length) {
                array_push(
                    $drawn,
                    ...array_slice($known, $draws->below($count - self::BLOCK_WEEKS + 1), self::BLOCK_WEEKS),
                );
            }
            $played[] = self::play(
                array_slice($drawn, 0, self::LEARNING_WEEKS + $length),
                self::LEARNING_WEEKS,
                $policy,
                $leadTime,
                $reviewDays,
                $economics,
                $draws,
            );
        }

        return $played;
    }

    /** @param list<float> $weeks */
    private static function play(
        array $weeks,
        int $learning,
        Policy $policy,
        LeadTime $leadTime,
        int $reviewDays,
        Economics $economics,
        Draws $draws,
    ): Simulation {
        $first = array_slice($weeks, 0, $learning);
        $level = array_sum($first) / $learning;
        $variance =
            array_sum(array_map(static fn (float $week): float => ($week - $level) ** 2, $first)) / ($learning - 1);
        $variance = max($variance, $level);
        $settled = [];
        foreach (array_slice($weeks, $learning) as $week => $units) {
            if (0 === $week % self::WEEKS_BETWEEN) {
                $settled[$week] = self::settle($level, sqrt($variance), $policy, $leadTime, $reviewDays, $economics);
            }
            $error = $units - $level;
            $variance += self::ERROR_SMOOTHING * ($error * $error - $variance);
            $level += self::SMOOTHING * $error;
        }
        $played = array_slice($weeks, $learning);

        return Simulation::run(
            self::DAYS * count($played),
            static fn (int $day): StockPolicy => $settled[
                intdiv(intdiv($day, self::DAYS), self::WEEKS_BETWEEN) * self::WEEKS_BETWEEN
            ],
            static fn (int $day): float => $played[intdiv($day, self::DAYS)] / self::DAYS,
            static fn (int $day): int => max(
                0,
                (int) round($leadTime->days + $leadTime->spread * (2 * $draws->share() - 1) * 1.732),
            ),
            $reviewDays,
            $economics->orderCost,
            $economics->holding() / 365,
            0.0,
            false,
        );
    }

    private static function settle(
        float $level,
        float $sigma,
        Policy $policy,
        LeadTime $leadTime,
        int $reviewDays,
        Economics $economics,
    ): StockPolicy {
        $expected = ($level * ($leadTime->days + $reviewDays)) / self::DAYS;
        $deviation = $sigma * sqrt(($leadTime->days + $reviewDays) / self::DAYS);
        $shape = Shape::fitting($expected, $deviation, []);
        $forecast = new Forecast(
            'replay',
            [$level],
            $sigma,
            null,
            0.5,
            Shape::Counts === $shape && $expected > 20 ? Shape::Gamma : $shape,
        );
        $levels = Levels::of($policy, $forecast, $leadTime, $reviewDays, $economics);

        return match (true) {
            PolicyKind::ByHand === $policy->kind => StockPolicy::upTo(-1.0, 0.0),
            null !== $levels->lot => StockPolicy::inLots($levels->reorderPoint, $levels->lot),
            PolicyKind::Par === $policy->kind,
            PolicyKind::Periodic === $policy->kind,
            PolicyKind::LotForLot === $policy->kind => StockPolicy::always($levels->orderUpTo),
            PolicyKind::MinMax === $policy->kind => StockPolicy::upTo($levels->reorderPoint - 1e-9, $levels->orderUpTo),
            default => StockPolicy::upTo($levels->reorderPoint, $levels->orderUpTo),
        };
    }
}
