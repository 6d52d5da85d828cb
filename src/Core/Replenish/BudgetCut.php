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

    /**
     * Several budgets to be kept, of months or of categories: each in turn by the best choice for it alone, then what
     * still fits all of them is taken back, most worth for its money first. What that may miss is in the gap: the best
     * of all choices leaves out no less than any one budget asks for.
     *
     * @param array<int, BudgetLine> $lines  by key
     * @param list<BudgetLimit>      $limits
     */
    public static function within(array $lines, array $limits): self
    {
        if (1 === count($limits) && array_keys($limits[0]->values) === array_keys($lines)) {
            return self::of(self::valued($lines, $limits[0]), $limits[0]->left);
        }
        $out = [];
        $least = 0.0;
        foreach ($limits as $limit) {
            $alone = self::of(self::valued($lines, $limit), $limit->left);
            $lost = array_sum(array_map(static fn (int $key): float => $lines[$key]->loss, $alone->out));
            $least = max($least, $lost - $alone->gap);
            $kept = array_diff_key($lines, $out);
            $out += array_fill_keys(self::of(self::valued($kept, $limit), $limit->left)->out, true);
        }
        $room = array_map(
            static fn (BudgetLimit $limit): float => $limit->left - array_sum(array_diff_key($limit->values, $out)),
            $limits,
        );
        uksort($out, static fn (int $a, int $b): int => $lines[$b]->loss * $lines[$a]->value
            <=> $lines[$a]->loss * $lines[$b]->value);
        foreach (array_keys($out) as $key) {
            $fits = true;
            foreach ($limits as $i => $limit) {
                $value = $limit->values[$key] ?? 0.0;
                $fits = $fits && (0.0 === $value || $value <= $room[$i] + self::EQUAL);
            }
            if ($fits) {
                unset($out[$key]);
                foreach ($limits as $i => $limit) {
                    $room[$i] -= $limit->values[$key] ?? 0.0;
                }
            }
        }
        $lost = array_sum(array_map(static fn (int $key): float => $lines[$key]->loss, array_keys($out)));

        return new self(array_keys($out), max(0.0, $lost - $least));
    }

    /**
     * The lines that fall under a limit, with what of them does.
     *
     * @param array<int, BudgetLine> $lines
     *
     * @return array<int, BudgetLine>
     */
    private static function valued(array $lines, BudgetLimit $limit): array
    {
        $under = [];
        foreach (array_intersect_key($limit->values, $lines) as $key => $value) {
            $under[$key] = new BudgetLine($value, $lines[$key]->loss, $lines[$key]->reason);
        }

        return $under;
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
