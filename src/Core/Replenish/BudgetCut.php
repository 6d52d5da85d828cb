<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/**
 * What to leave out when the money does not reach: what costs least to leave out.
 *
 * A customer who waits is never left out, and an empty shelf only after everything that still has stock. Of the others
 * the choice is a knapsack, searched by branch and bound; where costs are equal, the dearest is left out.
 * Sources: Dantzig, "Discrete-Variable Extremum Problems", Operations Research 5(2), 1957 (the bound); Horowitz &
 * Sahni,
 * "Computing Partitions with Applications to the Knapsack Problem", Journal of the ACM 21(2), 1974 (the search).
 */
final readonly class BudgetCut
{
    /** Choices whose costs differ by less are equal; home currency. */
    private const EQUAL = 0.005;
    /** Lines taken in or out while searching. */
    private const MOST_STEPS = 300_000;

    /**
     * @param list<int> $out keys left out
     * @param float     $gap by which another choice could cost less, at most; 0 where there is none
     */
    private function __construct(public array $out, public float $gap)
    {
    }

    /** @param array<int, BudgetLine> $lines by key */
    public static function of(array $lines, float $budget): self
    {
        $tiers = [[], []];
        foreach ($lines as $key => $line) {
            if (Reason::Rush === $line->reason) {
                $budget -= $line->value;
            } elseif ($line->value > 0) {
                $tiers[Reason::Out === $line->reason ? 0 : 1][$key] = $line;
            }
        }
        $out = [];
        $gap = 0.0;
        foreach ($tiers as $tier) {
            [$kept, $unproven] = self::best($tier, $budget);
            $gap += $unproven;
            foreach ($tier as $key => $line) {
                if (isset($kept[$key])) {
                    $budget -= $line->value;
                } else {
                    $out[] = $key;
                }
            }
        }

        return new self($out, $gap);
    }

    /**
     * @param array<int, BudgetLine> $lines by key
     *
     * @return array{array<int, true>, float} keys kept, and the gap
     */
    private static function best(array $lines, float $budget): array
    {
        uasort(
            $lines,
            static fn (BudgetLine $a, BudgetLine $b): int => [$b->loss / $b->value, $a->value]
                <=> [$a->loss / $a->value, $b->value],
        );
        $keys = array_keys($lines);
        $values = $worths = [];
        // Of the lines up to each, added up.
        $valueTo = $worthTo = [0.0];
        foreach (array_values($lines) as $i => $line) {
            $values[] = $line->value;
            $worths[] = $line->loss;
            $valueTo[] = $valueTo[$i] + $line->value;
            $worthTo[] = $worthTo[$i] + $worths[$i];
        }
        $count = count($keys);
        // What the lines from one on could be worth at most: as many as fit, and of the next one a part.
        $bound = static function (int $from, float $left) use ($values, $worths, $valueTo, $worthTo, $count): float {
            $low = $from;
            $high = $count;
            while ($low < $high) {
                $middle = intdiv($low + $high + 1, 2);
                if ($valueTo[$middle] - $valueTo[$from] <= $left) {
                    $low = $middle;
                } else {
                    $high = $middle - 1;
                }
            }
            $rest = $left - ($valueTo[$low] - $valueTo[$from]);

            return $worthTo[$low] - $worthTo[$from]
                + ($low < $count && $rest > 0 ? ($worths[$low] * $rest) / $values[$low] : 0.0);
        };
        $left = $budget + 1e-9;
        $root = $bound(0, $left);
        $best = -INF;
        $kept = $taken = [];
        $worth = 0.0;
        $at = $steps = 0;
        while (true) {
            while ($at < $count && $worth + $bound($at, $left) > $best + self::EQUAL) {
                for (; $at < $count && $values[$at] <= $left; ++$at, ++$steps) {
                    $taken[] = $at;
                    $left -= $values[$at];
                    $worth += $worths[$at];
                }
                ++$at;
                ++$steps;
            }
            if ($at >= $count && $worth > $best) {
                $best = $worth;
                $kept = $taken;
            }
            $last = array_pop($taken);
            if (null === $last || ++$steps > self::MOST_STEPS) {
                $gap = null === $last ? 0.0 : max(0.0, $root - $best);
                break;
            }
            $left += $values[$last];
            $worth -= $worths[$last];
            $at = $last + 1;
        }

        return [array_fill_keys(array_map(static fn (int $i): int => $keys[$i], $kept), true), $gap];
    }
}
