<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Distribution\Distribution;
use TallBarrel\Core\Demand\Distribution\Shape;

/**
 * What is expected to be wanted in the weeks to come, and how far off the method has been over the horizon that
 * matters.
 *
 * @phpstan-type ContestLine array{method: string, words: string, mase: float, bias: float, used: bool}
 * @phpstan-type ForecastData array{method: string, weeks: list<float>, sigma: float, growth: float, offBy: float|null,
 *      shape: string, errors: list<float>, contest: list<ContestLine>, bias: float, tracking: float, mase: float|null,
 *      horizon: int, adjustments?: list<array{float, int}>}
 */
final readonly class Forecast
{
    /**
     * @param string            $method  the method's name, in words
     * @param list<float>       $weeks   stock units expected in each coming week; the last one stands for all after it
     * @param float             $sigma   standard deviation of one week's forecast error, in stock units
     * @param float|null $offBy sum of absolute errors over sum of demand, one week ahead, last 12 known weeks; null if
     *      nothing sold
     * @param float             $growth  the error over k weeks has deviation sigma × k^growth, as seen at the horizon
     * @param list<float>       $errors  standardised errors at the horizon, kept for the shape that uses them
     * @param list<ContestLine> $contest the methods and how each did, best first
     * @param float             $bias    forecast − demand as a share of demand, over the contest
     * @param float             $tracking tracking signal of the last errors, see ErrorScale
     * @param float|null        $mase    mean absolute scaled error; null where no contest could be held
     * @param int               $horizon weeks ahead the method was chosen for
     * @param list<array{float, int}> $adjustments a person's: factor, and how many weeks it holds
     */
    public function __construct(
        public string $method,
        public array $weeks,
        public float $sigma,
        public ?float $offBy,
        public float $growth = 0.5,
        public Shape $shape = Shape::Normal,
        public array $errors = [],
        public array $contest = [],
        public float $bias = 0.0,
        public float $tracking = 0.0,
        public ?float $mase = null,
        public int $horizon = 1,
        public array $adjustments = [],
    ) {
    }

    public static function none(): self
    {
        return new self('no sales yet', [0.0], 0.0, null);
    }

    /** Stock units expected within so many days from today. */
    public function over(float $days): float
    {
        $sum = 0.0;
        // After the last forecast week and the last adjusted one, all weeks are alike.
        $last = count($this->weeks) - 1;
        foreach ($this->adjustments as [, $weeks]) {
            $last = max($last, $weeks);
        }
        $plain = [] === $this->adjustments;
        for ($week = 0; $days > 0; ++$week) {
            $units = $plain ? $this->weeks[min($week, $last)] : $this->week($week);
            if ($week >= $last) {
                return $sum + ($units * $days) / 7;
            }
            $sum += $units * ($days < 7.0 ? $days : 7.0) / 7;
            $days -= 7;
        }

        return $sum;
    }

    /** Stock units expected in a coming week, counted from 0. */
    public function week(int $week): float
    {
        $units = $this->weeks[min($week, count($this->weeks) - 1)];
        foreach ($this->adjustments as [$factor, $weeks]) {
            $units *= $week < $weeks ? $factor : 1.0;
        }

        return $units;
    }

    /** Stock units a day, over the next four weeks. */
    public function perDay(): float
    {
        return $this->over(28) / 28;
    }

    /** Days until so many stock units are gone; null if that is never within five years. */
    public function daysOf(float $stockUnits): ?float
    {
        if ($stockUnits <= 0) {
            return 0.0;
        }
        for ($week = 0; $week < 260; ++$week) {
            $rate = $this->week($week);
            if ($rate >= $stockUnits) {
                return 7 * ($week + $stockUnits / $rate);
            }
            $stockUnits -= $rate;
        }

        return null;
    }

    /** Standard deviation of the forecast error over so many days, in stock units. */
    public function sigmaOver(float $days): float
    {
        // Under a week the days' errors are taken as independent.
        return $days <= 0 ? 0.0 : $this->sigma * ($days / 7) ** ($days < 7 ? 0.5 : $this->growth);
    }

    /**
     * What may be wanted over a time that may itself vary.
     *
     * @param float $days   its mean
     * @param float $spread its standard deviation, in days
     */
    public function distribution(float $days, float $spread = 0.0): Distribution
    {
        $sigma = self::deviationOver($this->sigmaOver($days), $this->perDay(), $spread);

        return $this->shape->with($this->over($days), $sigma, $this->errors);
    }

    /**
     * Standard deviation of demand over a time that varies itself, in stock units.
     *
     * Source: Silver, Pyke & Peterson, "Inventory Management and Production Planning and Scheduling", chapter 7, with
     * demand and lead time varying independently: σ² = D σ_d² + d² σ_L².
     *
     * @param float $sigmaOfDemand standard deviation of demand over the mean time, in stock units
     * @param float $demandPerDay  stock units a day
     * @param float $spreadOfDays  standard deviation of the time, in days
     */
    public static function deviationOver(float $sigmaOfDemand, float $demandPerDay, float $spreadOfDays): float
    {
        return sqrt($sigmaOfDemand ** 2 + ($demandPerDay * $spreadOfDays) ** 2);
    }

    /**
     * A person knows better: all weeks times a factor, until a day.
     *
     * @param float $factor 1.2 for a fifth more
     * @param int   $weeks  how many weeks it holds
     */
    public function adjusted(float $factor, int $weeks): self
    {
        return $this->with([...$this->adjustments, [$factor, $weeks]]);
    }

    /**
     * Between itself and what items like it sell, in as much doubt as both together and as those differ.
     *
     * @param float $usual    stock units a week
     * @param float $ownShare 0 to 1
     */
    public function drawnTowards(float $usual, float $ownShare, string $method): self
    {
        $weeks = array_map(static fn (float $own): float => $ownShare * $own + (1 - $ownShare) * $usual, $this->weeks);
        $sigma = max($ownShare * $this->sigma, sqrt($weeks[0]), (1 - $ownShare) * abs($this->weeks[0] - $usual) / 2);

        return new self(
            $method,
            $weeks,
            $sigma,
            $this->offBy,
            0.5,
            Shape::fitting(4 * $weeks[0], 2 * $sigma, []),
            horizon: $this->horizon,
            adjustments: $this->adjustments,
        );
    }

    /** As the method left it. */
    public function unadjusted(): self
    {
        return [] === $this->adjustments ? $this : $this->with([]);
    }

    /** @param list<array{float, int}> $adjustments */
    private function with(array $adjustments): self
    {
        return new self(
            $this->method,
            $this->weeks,
            $this->sigma,
            $this->offBy,
            $this->growth,
            $this->shape,
            $this->errors,
            $this->contest,
            $this->bias,
            $this->tracking,
            $this->mase,
            $this->horizon,
            $adjustments,
        );
    }

    /** With the digits that are kept, so that one that was kept proposes what it proposed when it was new. */
    public function rounded(): self
    {
        $short = static fn (float $value): float => round($value, 4);

        return new self(
            $this->method,
            array_map($short, $this->weeks),
            $short($this->sigma),
            $this->offBy,
            $short($this->growth),
            $this->shape,
            array_map(static fn (float $error): float => round($error, 2), $this->errors),
            $this->contest,
            $short($this->bias),
            $short($this->tracking),
            null === $this->mase ? null : $short($this->mase),
            $this->horizon,
            $this->adjustments,
        );
    }

    /** @return ForecastData */
    public function toArray(): array
    {
        return [
            'method' => $this->method,
            'weeks' => $this->weeks,
            'sigma' => $this->sigma,
            'growth' => $this->growth,
            'offBy' => $this->offBy,
            'shape' => $this->shape->value,
            'errors' => $this->errors,
            'contest' => $this->contest,
            'bias' => $this->bias,
            'tracking' => $this->tracking,
            'mase' => $this->mase,
            'horizon' => $this->horizon,
            'adjustments' => $this->adjustments,
        ];
    }

    /** @param ForecastData $data */
    public static function fromArray(array $data): self
    {
        return new self(
            $data['method'],
            array_map(floatval(...), $data['weeks']),
            (float) $data['sigma'],
            $data['offBy'],
            (float) $data['growth'],
            Shape::from($data['shape']),
            array_map(floatval(...), $data['errors']),
            $data['contest'],
            (float) $data['bias'],
            (float) $data['tracking'],
            $data['mase'],
            $data['horizon'],
            array_map(static fn (array $one): array => [(float) $one[0], $one[1]], $data['adjustments'] ?? []),
        );
    }
}
