<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Distribution\Counts;
use TallBarrel\Core\InvalidValue;

/** Demand in whole units over lead times that are known or vary, for policies in plain figures. */
final readonly class LeadTimeDemand
{
    /**
     * @param non-empty-array<int, float> $leadTimes probability by periods from order to arrival
     *
     * @throws InvalidValue if the probabilities do not add up to one
     */
    public function __construct(private Counts $perPeriod, private array $leadTimes)
    {
        if (abs(array_sum($leadTimes) - 1) > 1e-6 || min(array_keys($leadTimes)) < 0 || min($leadTimes) < 0) {
            throw InvalidValue::because('Lead times are 0 or more periods, with probabilities that add up to 1.');
        }
    }

    /** Over the lead time and so many periods more. */
    public function with(int $more): Counts
    {
        $parts = [];
        foreach ($this->leadTimes as $periods => $probability) {
            $parts[] = [$this->perPeriod->times($periods + $more), $probability];
        }

        return Counts::mixture($parts);
    }

    /**
     * The level, brought up to at every review, that serves the share asked for; where that would overshoot by much,
     * the
     * level below if it is nearer. Orders may overtake each other: each order of the past is still out with the
     * probability that its lead time is longer than its age.
     */
    public function levelFor(float $share, int $review): int
    {
        $pairs = $this->unserved($review);
        $wanted = $review * $this->perPeriod->mean();
        $served = static function (int $level) use ($pairs, $wanted): float {
            $short = 0.0;
            foreach ($pairs as [$after, $before]) {
                $short += max(0.0, $after->loss($level) - $before->loss($level));
            }

            return 1 - $short / $wanted;
        };
        $low = -1;
        $high = (int) ceil($pairs[count($pairs) - 1][0]->mean() + 12 * $pairs[count($pairs) - 1][0]->deviation() + 10);
        while ($high - $low > 1) {
            $middle = intdiv($low + $high, 2);
            if ($served($middle) >= $share) {
                $high = $middle;
            } else {
                $low = $middle;
            }
        }

        return $low >= 0
            && $served($high) - $share > FillRate::OVERSHOOT
            && $share - $served($low) < $served($high) - $share
            ? $low
            : $high;
    }

    /**
     * For each period of a review cycle, what the level must have covered after its demand and before it.
     *
     * @return list<array{Counts, Counts}>
     */
    private function unserved(int $review): array
    {
        $lot = $this->perPeriod->times($review);
        $longest = max(array_keys($this->leadTimes));
        $pairs = [];
        for ($offset = 0; $offset < $review; ++$offset) {
            // The order of this cycle's review brought what was wanted in the cycle before, and so on back.
            $out = Counts::of([1.0]);
            for ($age = $offset; $age < $longest; $age += $review) {
                $still = 0.0;
                foreach ($this->leadTimes as $periods => $probability) {
                    $still += $periods > $age ? $probability : 0.0;
                }
                if ($still > 0) {
                    $out = $out->plus(
                        $still < 1 ? Counts::mixture([[$lot, $still], [Counts::of([1.0]), 1 - $still]]) : $lot,
                    );
                }
            }
            $before = $offset > 0 ? $out->plus($this->perPeriod->times($offset)) : $out;
            $pairs[] = [$before->plus($this->perPeriod), $before];
        }

        return $pairs;
    }
}
