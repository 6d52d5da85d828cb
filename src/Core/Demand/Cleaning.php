<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * Finds weeks that are not like those around them: a one-off bulk sale, or a week in which nothing was recorded though
 * the item sells every week. A person's word goes before the test's.
 *
 * Source of the test: Hampel, "The Influence Curve and its Role in Robust Estimation", Journal of the American
 * Statistical Association 69, 1974: the distance from the median in median absolute deviations. What returns a year
 * later is a season and not marked.
 */
final readonly class Cleaning
{
    private const NEIGHBOURS = 6;
    /** With fewer weeks beside it nothing is odd. */
    private const FEWEST_AROUND = 3;
    private const FAR = 5.0;
    private const TO_DEVIATION = 1.4826;
    /** More marks than this share of the weeks: the item is like that. */
    private const MOST_MARKED = 0.05;
    private const YEAR = 52;

    /** @param list<Mark> $marks by week */
    private function __construct(public WeeklyHistory $history, public array $marks)
    {
    }

    /**
     * @param array<int, bool> $verdicts by week: true keeps it as it is, false leaves it out
     */
    public static function of(WeeklyHistory $history, array $verdicts = []): self
    {
        $demand = $history->demand;
        $found = self::oddOnes($demand, self::YEAR);
        if (count($found) > max(1, self::MOST_MARKED * count($demand))) {
            $found = [];
        }
        $marks = $corrected = [];
        foreach ($demand as $week => $value) {
            if (null === $value || (!isset($found[$week]) && !isset($verdicts[$week]))) {
                continue;
            }
            $kept = $verdicts[$week] ?? false;
            [$kind, $taken] = $found[$week] ?? [Mark::LEFT_OUT, null];
            if ($kept && !isset($found[$week])) {
                continue;
            }
            $marks[] = new Mark($week, $kind, $value, $taken, $kept);
            if (!$kept) {
                $corrected[$week] = $taken;
            }
        }

        return new self([] === $corrected ? $history : $history->corrected($corrected), $marks);
    }

    /**
     * A series of any kind, what is odd in it taken for what is usual there.
     *
     * @param list<?float> $series
     * @param int          $period values in a season, 1 for none
     *
     * @return list<?float>
     */
    public static function ofSeries(array $series, int $period): array
    {
        $odd = self::oddOnes($series, $period);
        if (count($odd) > max(1, self::MOST_MARKED * count($series))) {
            return $series;
        }
        foreach ($odd as $at => [, $taken]) {
            $series[$at] = $taken;
        }

        return array_values($series);
    }

    /**
     * @param list<?float> $demand
     *
     * @return array<int, array{string, ?float}> kind and what it is taken for
     */
    private static function oddOnes(array $demand, int $period): array
    {
        $known = array_values(array_filter($demand, static fn (?float $value): bool => null !== $value));
        $enough = min(self::NEIGHBOURS, count($known) - 1);
        if ([] === $known || $enough < self::FEWEST_AROUND) {
            return [];
        }
        $highest = max($known);
        $usual = self::median($known);
        $sizes = array_values(array_filter($known, static fn (float $value): bool => $value > 0));
        $size = match (count($sizes)) {
            0 => 0.0,
            count($known) => $usual,
            default => self::median($sizes),
        };
        $odd = [];
        $end = count($demand);
        foreach ($demand as $week => $value) {
            // Most weeks cannot be odd: spare them the sorting.
            if (null === $value || ($value > 0 && ($value <= 2 * $usual || $value < 0.5 * $highest))) {
                continue;
            }
            if (0.0 === $value && $usual < 8) {
                continue;
            }
            $around = [];
            for (
                $k = max(0, $week - self::NEIGHBOURS), $last = min($end - 1, $week + self::NEIGHBOURS);
                $k <= $last;
                ++$k
            ) {
                if ($k !== $week && null !== $demand[$k]) {
                    $around[] = $demand[$k];
                }
            }
            if (count($around) < $enough) {
                continue;
            }
            $median = self::median($around);
            $spread = max(
                self::TO_DEVIATION *
                    self::median(array_map(static fn (float $one): float => abs($one - $median), $around)),
                sqrt(max($median, $size)),
                0.1 * $median,
            );
            if (
                $value > max(2.5 * $median, 3 * $size, $median + self::FAR * $spread)
                && !self::comesBack($demand, $week, $median + ($value - $median) / 3, $period)
            ) {
                $odd[$week] = [Mark::BULK, $median];
            } elseif (0.0 === $value && $median > self::FAR * $spread * 0.8 && min($around) > 0) {
                $odd[$week] = [Mark::GAP, null];
            }
        }

        return $odd;
    }

    /**
     * A season before or after it was high as well.
     *
     * @param list<?float> $demand
     */
    private static function comesBack(array $demand, int $week, float $high, int $period): bool
    {
        foreach ($period > 1 ? [-$period, $period] : [] as $year) {
            for ($k = $week + $year - 1; $k <= $week + $year + 1; ++$k) {
                if (($demand[$k] ?? 0.0) >= $high) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @param non-empty-list<float> $values */
    private static function median(array $values): float
    {
        sort($values);
        $middle = intdiv(count($values), 2);

        return 0 === count($values) % 2 ? ($values[$middle - 1] + $values[$middle]) / 2 : $values[$middle];
    }
}
