<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Method\Combination;
use TallBarrel\Core\Demand\Method\MethodName;
use TallBarrel\Core\Demand\Method\Model;

/** What a contest came to. */
final readonly class Outcome
{
    /**
     * @param list<string> $parts the methods behind it: one, or those combined
     * @param list<float> $means expected values over the horizon
     * @param array<string, Score>                                                   $scores  by method
     * @param array{each: array<int, list<float>>, sum: array<int, list<float>>} $errors made by the winner, by steps
     *      ahead
     * @param float $scale mean absolute error of the naive method
     * @param non-empty-list<array{Model, float}>                                    $models
     */
    public function __construct(
        public MethodName $method,
        public array $parts,
        public array $means,
        public array $scores,
        public array $errors,
        public float $scale,
        private array $models,
        private int $count,
    ) {
    }

    /**
     * Further ahead than the horizon.
     *
     * @param list<?float> $demand the series of the contest
     *
     * @return list<float>
     */
    public function ahead(array $demand, int $periods): array
    {
        return (new Combination($this->models))->roll($demand, [$this->count], $periods)[$this->count];
    }
}
