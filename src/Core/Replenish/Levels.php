<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;

/**
 * The levels a policy comes to for an item as it sells now, in stock units. At or below the reorder point it is
 * ordered; up to the order-up-to level, or in lots where the policy fixes them.
 */
final readonly class Levels
{
    private const SHORTEST_COVER = 7;
    /**
     * A shop does not tie up its money for longer than a quarter, however cheap the holding (common practice, no
     * source).
     */
    private const LONGEST_COVER = 91;
    private const WEEKS_LOOKED_AT = 26;

    /**
     * @param float      $untilNext   expected until an order after the next one arrives
     * @param float      $safety      kept against doubt
     * @param float      $coverDays   days from arrival that the order lasts
     * @param float|null $lot         fixed quantity, where the policy has one
     * @param CoverBasis $basis       why it is so many days
     * @param int|null   $otherCover  days the heuristic would cover, where that differs
     */
    private function __construct(
        public float $untilNext,
        public float $safety,
        public float $reorderPoint,
        public float $orderUpTo,
        public float $coverDays,
        public ?float $lot,
        public CoverBasis $basis,
        public ?int $otherCover,
    ) {
    }

    public static function of(
        Policy $policy,
        Forecast $forecast,
        LeadTime $leadTime,
        int $reviewDays,
        Economics $economics,
    ): self {
        $lead = $leadTime->days;
        $untilNext = $forecast->over($lead + $reviewDays);
        $perDay = $forecast->perDay();
        [$cover, $basis, $other] = self::cover($policy, $forecast, $lead, $reviewDays, $economics, $perDay);
        $lot = null;
        if (PolicyKind::FixedQuantity === $policy->kind) {
            $lot = $policy->amount ?? max(1.0, $forecast->over($lead + $cover) - $forecast->over($lead));
        }
        if (!$policy->kind->aimsAtService()) {
            [$min, $max] = match ($policy->kind) {
                PolicyKind::MinMax => [$policy->minimum ?? 0.0, $policy->amount ?? 0.0],
                PolicyKind::Par => [$policy->amount ?? 0.0, $policy->amount ?? 0.0],
                default => [0.0, 0.0],
            };

            return new self($untilNext, 0.0, $min, $max, $cover, null, $basis, null);
        }
        $size = $lot ?? max(0.0, $forecast->over($lead + $cover) - $forecast->over($lead + $reviewDays));
        $safety = SafetyStock::for($policy->target, $forecast, $leadTime, $reviewDays, $size, null === $lot);
        $reorderPoint = $untilNext + $safety;
        $upTo = match ($policy->kind) {
            PolicyKind::Periodic, PolicyKind::LotForLot => $reorderPoint,
            PolicyKind::FixedQuantity => $reorderPoint + ($lot ?? 0.0),
            default => $forecast->over($lead + $cover) + $safety,
        };

        return new self($untilNext, $safety, $reorderPoint, max($upTo, $reorderPoint), $cover, $lot, $basis, $other);
    }

    /**
     * @return array{float, CoverBasis, int|null} days an order lasts from arrival, why, and days the heuristic would
     *      cover where that differs
     */
    private static function cover(
        Policy $policy,
        Forecast $forecast,
        float $lead,
        int $reviewDays,
        Economics $economics,
        float $perDay,
    ): array {
        if (PolicyKind::CoverDays === $policy->kind) {
            return [max((float) $reviewDays, $policy->amount ?? 0.0), CoverBasis::AsAsked, null];
        }
        if (PolicyKind::CoverValue === $policy->kind && null !== $economics->salesPrice && $economics->salesPrice > 0) {
            $days = $forecast->daysOf(($policy->amount ?? 0.0) / $economics->salesPrice);

            return [
                max((float) $reviewDays, min((float) self::LONGEST_COVER, $days ?? self::LONGEST_COVER)),
                CoverBasis::ForSalesValue,
                null,
            ];
        }
        if (in_array($policy->kind, [PolicyKind::Periodic, PolicyKind::LotForLot], true)) {
            return [(float) $reviewDays, CoverBasis::UntilNextOrder, null];
        }
        if ($perDay <= 0 || $economics->holding() <= 0) {
            return [(float) max($reviewDays, self::SHORTEST_COVER), CoverBasis::NothingSells, null];
        }
        $longest = (float) max($reviewDays, min(self::LONGEST_COVER, $economics->shelfDays ?? self::LONGEST_COVER));
        if (count($forecast->weeks) > 1) {
            $weeks = [];
            $until = $forecast->over($lead);
            for ($week = 1; $week <= self::WEEKS_LOOKED_AT; ++$week) {
                $before = $until;
                $until = $forecast->over($lead + 7 * $week);
                $weeks[] = $until - $before;
            }
            $exact =
                7 * DynamicLots::wagnerWhitin($weeks, $economics->orderCost, $economics->holding() / 52)->firstCovers();
            $quick =
                7 * DynamicLots::silverMeal($weeks, $economics->orderCost, $economics->holding() / 52)->firstCovers();
            $days = (float) max(self::SHORTEST_COVER, $exact);
            $other = $quick === $exact ? null : $quick;
            $basis = CoverBasis::CheapestOverSeason;
        } else {
            $days = EconomicOrderQuantity::of($perDay * 365, $economics->orderCost, $economics->holding()) / $perDay;
            $other = null;
            $basis = CoverBasis::EconomicQuantity;
        }
        if (count($economics->breaks) > 1 && $policy->mayGoBeyond()) {
            $withBreaks = $economics->incremental
                ? EconomicOrderQuantity::incremental(...)
                : EconomicOrderQuantity::allUnits(...);
            $quantity = $withBreaks(
                $perDay * 365,
                $economics->orderCost,
                $economics->holdingShare,
                $economics->breaks,
            )[0];
            if ($quantity / $perDay > $days * 1.05) {
                [$days, $basis, $other] = [$quantity / $perDay, CoverBasis::ReachesBreak, null];
            }
        }

        return [max((float) $reviewDays, min($longest, $days)), $basis, $other];
    }
}
