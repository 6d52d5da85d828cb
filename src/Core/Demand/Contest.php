<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Method\Autoregression;
use TallBarrel\Core\Demand\Method\Combination;
use TallBarrel\Core\Demand\Method\Intermittent;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\Demand\Method\Model;
use TallBarrel\Core\Demand\Method\MovingAverage;
use TallBarrel\Core\Demand\Method\Naive;
use TallBarrel\Core\Demand\Method\OnLogarithm;
use TallBarrel\Core\Demand\Method\OnSeason;
use TallBarrel\Core\Demand\Method\Season;
use TallBarrel\Core\Demand\Method\SeasonalIndex;
use TallBarrel\Core\Demand\Method\Smoothing;
use TallBarrel\Core\Demand\Method\Theta;
use TallBarrel\Core\Demand\Method\Trend;
use TallBarrel\Core\InvalidValue;

/**
 * Methods against each other on the last part of a series. Each has its parameters fitted to what came before, is then
 * carried along, and forecasts from every position of that part over the whole horizon (rolling origin); the one with
 * the smallest squared error there is fitted anew to everything and forecasts what is to come.
 *
 * Source of the design: Tashman, "Out-of-Sample Tests of Forecasting Accuracy", International Journal of Forecasting
 * 16(4), 2000.
 */
final class Contest
{
    /** Fewer known values than this are not split: the mean of what is known is all there is. */
    private const FEWEST = 6;
    /** With fewer than this the mean of all of them is a method like the others. */
    private const FEW = 26;
    private const MOST_ORIGINS = 60;
    /** A method enters the combination if its error is within this factor of the best one's. */
    private const NEAR = 1.1;
    private const MOST_COMBINED = 3;
    /** The combination is taken even where it did a little worse than the best: it is less often badly wrong. */
    private const MIX_ANYWAY = 1.05;
    /** What is more elaborate than the naive must beat it by this share, or the naive is taken. */
    private const CLEARLY = 0.995;
    /** For each figure a method settles by the series, over the number of errors that do not overlap. */
    private const HANDICAP = 0.03;
    /** From this share of zero values the methods for intermittent demand enter beside the others. */
    private const INTERMITTENT = 0.15;
    /** Where demand comes only now and then, the mean of the last so many values. */
    private const LONG_WINDOW = 52;
    private const TOLERANCE = 1e-3;
    private const EVALUATIONS = 70;
    private const LONG_PERIOD = 24;

    /**
     * @param list<?float>       $demand     one value a period, null where unknown, at least one known
     * @param int                $period     values in a season, 1 for none
     * @param int                $horizon    how many values ahead matter
     * @param PooledSeason|null  $pooled     the season of the category
     * @param MethodName|null    $only       this method and no contest
     * @param bool               $cumulative whether the sum over the horizon matters, not each value of it
     *
     * @throws InvalidValue if no value is known, or the method asked for cannot be fitted
     */
    public static function over(
        array $demand,
        int $period,
        int $horizon,
        ?PooledSeason $pooled = null,
        ?MethodName $only = null,
        bool $cumulative = false,
    ): Outcome {
        if ($horizon < 1 || $period < 1) {
            throw InvalidValue::because(
                sprintf('A horizon of %d and a period of %d make no forecast; expected 1 or more.', $horizon, $period),
            );
        }
        $count = count($demand);
        $known = array_values(array_filter($demand, static fn (?float $value): bool => null !== $value));
        if ([] === $known) {
            throw InvalidValue::because('There is no known value to forecast from.');
        }
        $from = self::split($count, $period, $horizon);
        if (count($known) < self::FEWEST || $count - $from < 2) {
            return self::short($demand, $horizon, $period, $only);
        }
        $past = array_slice($demand, 0, $from);
        if ([] === array_filter($past, static fn (?float $value): bool => null !== $value)) {
            return self::short($demand, $horizon, $period, $only);
        }
        $origins = [];
        $stride = max(1, intdiv($count - $from, self::MOST_ORIGINS));
        for ($origin = $count - 1; $origin >= $from; $origin -= $stride) {
            $origins[] = $origin;
        }
        $origins = array_reverse($origins);
        $scale = new ErrorScale($past, $period);
        $models = self::models($past, $period, $pooled?->judged($count), $only);
        if ([] === $models) {
            throw InvalidValue::because(
                sprintf('%d values are too few for %s.', $count, null === $only ? 'any method' : $only->value),
            );
        }
        $rolled = $scores = [];
        foreach ($models as $name => $model) {
            $rolled[$name] = $model->roll($demand, $origins, $horizon);
            $scores[$name] = $scale->score($demand, $rolled[$name], $cumulative)
                ->handicapped(MethodName::from($name)->freedom() * self::HANDICAP * $horizon / count($origins));
        }
        $best = self::best($scores);
        $winners = [$best => 1.0];
        if (null === $only) {
            $mixed = self::mixture($scores);
            if (count($mixed) > 1) {
                $name = MethodName::Combination->value;
                $rolled[$name] = Combination::of(
                    array_map(static fn (string $one): array => [$rolled[$one], $mixed[$one]], array_keys($mixed)),
                );
                $scores[$name] = $scale->score($demand, $rolled[$name], $cumulative);
                if ($scores[$name]->deciding <= self::MIX_ANYWAY * $scores[$best]->deciding) {
                    [$best, $winners] = [$name, $mixed];
                }
            }
            $naive = $scores[MethodName::Naive->value] ?? null;
            if (null !== $naive && $scores[$best]->deciding > self::CLEARLY * $naive->deciding) {
                [$best, $winners] = [MethodName::Naive->value, [MethodName::Naive->value => 1.0]];
            }
        }
        $final = [];
        $seldom = null === $only && Pattern::of($past)->comesNowAndThen();
        foreach ($winners as $name => $weight) {
            // A method that cannot be fitted to the whole is carried on as it stood.
            $final[] = [
                ($seldom
                    ? self::seldom($demand, $pooled?->used($count), MethodName::from($name))
                    : self::models($demand, $period, $pooled?->used($count), MethodName::from($name)))[$name] ??
                $models[$name],
                $weight,
            ];
        }
        $means = (new Combination($final))->roll($demand, [$count], $horizon)[$count];

        return new Outcome(
            MethodName::from($best),
            array_keys($winners),
            $means,
            $scores,
            ErrorScale::errors($demand, $rolled[$best]),
            $scale->meanAbsolute,
            $final,
            $count,
        );
    }

    /** Where the last part begins: long enough to judge by, short enough to leave something to learn from. */
    private static function split(int $count, int $period, int $horizon): int
    {
        $wanted = max(3 * $horizon, $period, 12);
        $least = $period > 1 && $count >= 3 * $period ? 2 * $period : max(3, (int) ceil(0.5 * $count));

        return max($least, $count - $wanted, (int) floor(0.4 * $count));
    }

    /**
     * @param array<string, Score> $scores
     */
    private static function best(array $scores): string
    {
        $best = (string) array_key_first($scores);
        foreach ($scores as $name => $score) {
            if ($score->deciding < $scores[$best]->deciding) {
                $best = $name;
            }
        }

        return $best;
    }

    /**
     * The few best, weighted by the inverse of their squared error.
     *
     * @param array<string, Score> $scores
     *
     * @return array<string, float>
     */
    private static function mixture(array $scores): array
    {
        uasort($scores, static fn (Score $a, Score $b): int => $a->deciding <=> $b->deciding);
        $least = $scores[(string) array_key_first($scores)]->deciding;
        if ($least <= 0.0) {
            return [];
        }
        $weights = [];
        foreach ($scores as $name => $score) {
            if ($score->deciding <= self::NEAR * $least && count($weights) < self::MOST_COMBINED) {
                $weights[$name] = 1 / $score->deciding ** 2;
            }
        }
        $sum = array_sum($weights);

        return array_map(static fn (float $weight): float => $weight / $sum, $weights);
    }

    /**
     * The methods that fit the series, with their parameters settled by it.
     *
     * @param list<?float> $past
     *
     * @return array<string, Model>
     */
    private static function models(array $past, int $period, ?SeasonalIndex $pooled, ?MethodName $only): array
    {
        if (null === $only && Pattern::of($past)->comesNowAndThen()) {
            return self::seldom($past, $pooled);
        }
        $count = count($past);
        $known = $zeros = 0;
        $positive = true;
        foreach ($past as $value) {
            if (null !== $value) {
                ++$known;
                $zeros += $value <= 0.0 ? 1 : 0;
                $positive = $positive && $value > 0.0;
            }
        }
        $wants = static fn (MethodName $name, bool $fits): bool => null === $only ? $fits : $only === $name;
        $seasonal = $period > 1 && $count >= 2 * $period;
        // A year of weeks holds too little to fit a trend that runs beside a season.
        $trended = $count >= 10;
        $intermittent = $known > 0 && $zeros >= self::INTERMITTENT * $known && $zeros < $known;
        $models = [];
        if ($wants(MethodName::Naive, true)) {
            $models[MethodName::Naive->value] = new Naive();
        }
        if ($wants(MethodName::SeasonalNaive, $period > 1 && $count > $period) && $period > 1 && $count >= $period) {
            $models[MethodName::SeasonalNaive->value] = new Naive($period);
        }
        if ($wants(MethodName::Mean, $count < self::FEW)) {
            $models[MethodName::Mean->value] = MovingAverage::of($count);
        }
        if ($wants(MethodName::MovingAverage, true)) {
            $models[MethodName::MovingAverage->value] = MovingAverage::fit($past);
        }
        $simple =
            $wants(MethodName::Simple, true) || $wants(MethodName::Theta, true)
                ? self::smoothing($past, Trend::None)
                : null;
        if (null !== $simple && $wants(MethodName::Simple, true)) {
            $models[MethodName::Simple->value] = $simple;
        }
        if ($wants(MethodName::Holt, $trended && !$intermittent) && $known >= 2) {
            $models[MethodName::Holt->value] = self::smoothing($past, Trend::Linear);
        }
        if ($wants(MethodName::DampedHolt, $trended && !$intermittent) && $known >= 2) {
            $models[MethodName::DampedHolt->value] = self::smoothing($past, Trend::Damped);
        }
        if ($seasonal) {
            foreach (
                [
                    [MethodName::HoltWintersAdditive, Season::Additive, true],
                    [MethodName::HoltWintersMultiplicative, Season::Multiplicative, $positive],
                ] as [$name, $kind, $fits]
            ) {
                if ($wants($name, $fits && !$intermittent)) {
                    $models[$name->value] = self::smoothing(
                        $past,
                        $period >= self::LONG_PERIOD ? Trend::None : Trend::Linear,
                        $kind,
                        $period,
                    );
                }
            }
        }
        if ($wants(MethodName::HoltWintersByShares, $positive && $period < self::LONG_PERIOD)
            && $positive && $seasonal) {
            $models[MethodName::HoltWintersByShares->value] = new OnLogarithm(
                self::smoothing(OnLogarithm::of($past), Trend::Linear, Season::Additive, $period),
            );
        }
        $index =
            $period > 1
            && SeasonalIndex::canBeSeen($count, $period)
            && ($wants(MethodName::SimpleOnSeason, true)
                || $wants(MethodName::DampedOnSeason, true)
                || $wants(MethodName::Autoregression, true)
                || $wants(MethodName::Theta, true))
                ? SeasonalIndex::found($past, $period, $positive ? Season::Multiplicative : Season::Additive)
                : null;
        $plain = null === $index ? $past : OnSeason::without($index, $past);
        $inner = null === $index ? $simple : self::smoothing($plain, Trend::None);
        $put = static fn (Model $model): Model => null === $index ? $model : new OnSeason($index, $model);
        if (null !== $index && null !== $inner && $wants(MethodName::SimpleOnSeason, true)) {
            $models[MethodName::SimpleOnSeason->value] = $put($inner);
        }
        if (null !== $index && $wants(MethodName::DampedOnSeason, $trended)) {
            $models[MethodName::DampedOnSeason->value] = $put(self::smoothing($plain, Trend::Damped));
        }
        if (null !== $inner && $wants(MethodName::Theta, $trended && !$intermittent)) {
            $models[MethodName::Theta->value] = $put(Theta::fit($plain, $inner));
        }
        if ($wants(MethodName::Autoregression, $count >= 20 && !$intermittent) && $known >= 3) {
            $models[MethodName::Autoregression->value] = $put(Autoregression::fit($plain));
        }
        if (null !== $pooled && $wants(MethodName::PooledSeason, true)) {
            $models[MethodName::PooledSeason->value] = new OnSeason(
                $pooled,
                self::smoothing(OnSeason::without($pooled, $past), Trend::None),
            );
        }
        foreach (
            [
                [MethodName::Croston, Intermittent::CROSTON],
                [MethodName::Sba, Intermittent::SBA],
                [MethodName::Tsb, Intermittent::TSB],
            ] as [$name, $kind]
        ) {
            if ($wants($name, $intermittent)) {
                $models[$name->value] = Intermittent::fit($kind, $past);
            }
        }

        return $models;
    }

    /**
     * Of demand that comes now and then every value is mostly zero: what the last one was says nothing, nor do trends
     * and
     * seasons of its own. Means over long times, and size and chance apart, are what can be told.
     *
     * @param list<?float>    $past
     * @param MethodName|null $only one of them; null for all
     *
     * @return array<string, Model>
     */
    private static function seldom(array $past, ?SeasonalIndex $pooled, ?MethodName $only = null): array
    {
        $wants = static fn (MethodName $name): bool => null === $only || $only === $name;
        $models = [];
        if ($wants(MethodName::Mean)) {
            $models[MethodName::Mean->value] = MovingAverage::of(count($past));
        }
        if ($wants(MethodName::Simple)) {
            $models[MethodName::Simple->value] = self::smoothing($past, Trend::None);
        }
        if ($wants(MethodName::Sba)) {
            $models[MethodName::Sba->value] = Intermittent::fit(Intermittent::SBA, $past);
        }
        if ($wants(MethodName::Tsb)) {
            $models[MethodName::Tsb->value] = Intermittent::fit(Intermittent::TSB, $past);
        }
        if (count($past) > self::LONG_WINDOW && $wants(MethodName::MovingAverage)) {
            $models[MethodName::MovingAverage->value] = MovingAverage::of(self::LONG_WINDOW);
        }
        if (null !== $pooled && $wants(MethodName::PooledSeason)) {
            $models[MethodName::PooledSeason->value] = new OnSeason(
                $pooled,
                self::smoothing(OnSeason::without($pooled, $past), Trend::None),
            );
        }

        return $models;
    }

    /** @param list<?float> $demand */
    private static function smoothing(array $demand, Trend $trend, ?Season $kind = null, int $period = 1): Smoothing
    {
        return Smoothing::fit($demand, $trend, $kind, $period, null, self::TOLERANCE, self::EVALUATIONS);
    }

    /**
     * Too little to hold a contest: the mean of what is known, or the method asked for.
     *
     * @param list<?float> $demand
     */
    private static function short(array $demand, int $horizon, int $period, ?MethodName $only): Outcome
    {
        $name = $only ?? MethodName::MovingAverage;
        $model =
            null === $only
                ? MovingAverage::of(count($demand))
                : self::models($demand, $period, null, $only)[$only->value] ??
                    throw InvalidValue::because(sprintf('%d values are too few for %s.', count($demand), $only->value));
        $count = count($demand);
        $origins = $count > 1 ? range(1, $count - 1) : [];
        $rolled = [] === $origins ? [] : $model->roll($demand, $origins, $horizon);
        $scale = new ErrorScale($demand, 1);

        return new Outcome(
            $name,
            [$name->value],
            $model->roll($demand, [$count], $horizon)[$count],
            [] === $rolled ? [] : [$name->value => $scale->score($demand, $rolled, false)],
            ErrorScale::errors($demand, $rolled),
            $scale->meanAbsolute,
            [[$model, 1.0]],
            $count,
        );
    }
}
