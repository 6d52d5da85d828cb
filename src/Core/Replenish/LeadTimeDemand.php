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
     * The level, brought up to at every review, that serves the share of demand asked for. Orders may overtake each
     * other: each order of the past is still out with the probability that its lead time is longer than its age.
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

        return self::nearest($served, $share, $pairs[count($pairs) - 1][0]);
    }

    /**
     * The level, brought up to at every review, at which the share of cycles asked for, each from one arrival to the
     * next, passes without a shortage. Looked at just before an arrival: what is out then is what was wanted in the
     * cycles whose orders are not here yet; a period without an arrival ends no cycle.
     */
    public function levelForCycles(float $share, int $review): int
    {
        $lot = $this->perPeriod->times($review);
        $nothing = $lot->probabilities[0];
        $longest = max(array_keys($this->leadTimes));
        $ends = [];
        for ($offset = 0; $offset < $review; ++$offset) {
            $out = $since = $this->perPeriod->times($offset);
            $without = 1.0;
            $still = $since;
            for ($age = $offset; $age <= $longest; $age += $review) {
                $now = $this->leadTimes[$age] ?? 0.0;
                $later = 0.0;
                foreach ($this->leadTimes as $periods => $probability) {
                    $later += $periods > $age ? $probability : 0.0;
                }
                $here = max(0.0, 1 - $now - $later);
                $zero = Counts::of([1.0]);
                if ($now + $later > 0) {
                    $out = $out->plus(Counts::mixture([[$lot, $now + $later], [$zero, $here]]));
                }
                // The same with nothing arriving: an order that would have come now was for nothing.
                $quiet = $here + $now * $nothing;
                $without *= $quiet + $later;
                if ($quiet + $later > 0) {
                    $still = $still->plus(Counts::mixture([[$lot, $later], [$zero, $quiet]]));
                }
            }
            $ends[] = [$out, $still, $without];
        }
        $arrivals = array_sum(array_map(static fn (array $end): float => 1 - $end[2], $ends));
        $covered = static function (int $level) use ($ends, $arrivals): float {
            $sum = 0.0;
            foreach ($ends as [$out, $still, $without]) {
                $sum += $out->cumulative($level) - $without * $still->cumulative($level);
            }

            return $sum / $arrivals;
        };

        return self::nearest($covered, $share, $ends[0][0]);
    }

    /**
     * Where the level would overshoot by much, the one below if it is nearer.
     *
     * @param callable(int): float $served share served by a level, rising with it
     */
    private static function nearest(callable $served, float $share, Counts $most): int
    {
        $low = -1;
        $high = (int) ceil($most->mean() + 12 * $most->deviation() + 10);
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
