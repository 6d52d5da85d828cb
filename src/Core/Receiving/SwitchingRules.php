<?php

declare(strict_types=1);

namespace TallBarrel\Core\Receiving;

/**
 * How strictly the next lot of one item from one supplier is judged, by how the lots before were found. Source: ISO
 * 2859-1:1999, clauses 9.3 and 9.4 (from memory): two of five lots in a row refused, tightened; five taken in a row,
 * back to normal; a switching score of 30, reduced, where that is wanted; a lot that is refused, or worse than reduced
 * inspection goes on with, back to normal; five refused while it is tightened, and inspection stops until the supplier
 * has mended it.
 */
final readonly class SwitchingRules
{
    private const LOOKED_BACK = 5;
    private const REFUSED = 2;
    private const TAKEN = 5;
    private const STOPPED = 5;
    private const GOOD_ENOUGH = 30;

    private function __construct(public Severity $severity, public bool $isStopped)
    {
    }

    /**
     * @param list<InspectedLot> $lots    the oldest first
     * @param string             $limit   one of SamplingPlan::LIMITS
     * @param bool               $reduces whether fewer are looked at where they were long good
     */
    public static function after(
        array $lots,
        string $limit,
        bool $reduces,
        InspectionLevel $level = InspectionLevel::Two,
    ): self {
        $severity = Severity::Normal;
        $lately = [];
        $score = $refused = 0;
        foreach ($lots as $lot) {
            $plan = SamplingPlan::of($lot->units, $limit, $severity, $level);
            $lately = array_slice([...$lately, $lot->accepted], -self::LOOKED_BACK);
            $score = self::score($score, $lot, $plan, $limit, $level);
            $refused += Severity::Tightened === $severity && !$lot->accepted ? 1 : 0;
            $next = match ($severity) {
                Severity::Normal => match (true) {
                    count($lately) - count(array_filter($lately)) >= self::REFUSED => Severity::Tightened,
                    $reduces && $score >= self::GOOD_ENOUGH => Severity::Reduced,
                    default => $severity,
                },
                Severity::Tightened => [] === array_filter($lately, static fn (bool $taken): bool => !$taken)
                    && count($lately) >= self::TAKEN ? Severity::Normal : $severity,
                Severity::Reduced => !$lot->accepted || $plan->endsReduced($lot->bad) ? Severity::Normal : $severity,
            };
            if ($next !== $severity) {
                [$severity, $lately, $score, $refused] = [$next, [], 0, 0];
            }
        }

        return new self($severity, $refused >= self::STOPPED);
    }

    /** 2 for a lot taken; 3, where some may be bad, if the next stricter limit takes it too; else it begins anew. */
    private static function score(
        int $score,
        InspectedLot $lot,
        SamplingPlan $plan,
        string $limit,
        InspectionLevel $level,
    ): int {
        if (!$lot->accepted) {
            return 0;
        }
        if ($plan->accepted < 2) {
            return $score + 2;
        }
        $place = (int) array_search($limit, SamplingPlan::LIMITS, true);
        $limit = SamplingPlan::LIMITS[max(0, $place - 1)];
        $stricter = SamplingPlan::of($lot->units, $limit, Severity::Normal, $level);

        return $stricter->accepts($lot->bad) ? $score + 3 : 0;
    }
}
