<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;

/** How many periods, on average, the demand since an order stands at exactly so many units. */
final class Renewal
{
    /** @var list<float> */
    private array $visits = [];

    public function __construct(private readonly Counts $perPeriod)
    {
    }

    public function at(int $units): float
    {
        $p = $this->perPeriod->probabilities;
        $longest = count($p) - 1;
        for ($j = count($this->visits); $j <= $units; ++$j) {
            $sum = 0 === $j ? 1.0 : 0.0;
            for ($i = 1, $end = min($j, $longest); $i <= $end; ++$i) {
                $sum += $p[$i] * $this->visits[$j - $i];
            }
            $this->visits[] = $sum / (1 - $p[0]);
        }

        return $this->visits[$units];
    }
}
