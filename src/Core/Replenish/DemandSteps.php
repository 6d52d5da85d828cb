<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\Demand\Distribution\Distribution;

/** Demand in steps: whole units where it comes in few of them, else as many steps as its range needs. */
final readonly class DemandSteps
{
    /** Steps that demand is cut into, at least. */
    private const STEPS = 60;
    private const TAIL = 1e-7;

    /**
     * @param non-empty-list<float> $probabilities by steps, from none on
     * @param float                 $step          stock units
     */
    private function __construct(public array $probabilities, public float $step)
    {
    }

    public static function of(Distribution $demand): self
    {
        if ($demand instanceof Counts && count($demand->probabilities) <= 4 * self::STEPS) {
            return new self($demand->probabilities, 1.0);
        }
        $most = $demand->mean() + 5 * $demand->deviation();
        $step = $most / self::STEPS;
        if ($step <= 0.0) {
            return new self([1.0], 1.0);
        }
        $probabilities = [];
        $before = 0.0;
        for ($k = 0; $before < 1 - self::TAIL && $k < 4 * self::STEPS; ++$k) {
            $until = $demand->cumulative(($k + 0.5) * $step);
            $probabilities[] = max(0.0, $until - $before);
            $before = $until;
        }

        return new self([] === $probabilities ? [1.0] : $probabilities, $step);
    }
}
