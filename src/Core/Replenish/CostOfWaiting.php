<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** What it costs, expected, if an item is not ordered now but at the next chance; money in the home currency. */
final readonly class CostOfWaiting
{
    /**
     * @param float $missed stock units wanted and not there that an order now would have brought in time, expected
     * @param float $margin lost with them
     * @param float $dearer what the same order costs more then, less what is saved by not holding it meanwhile
     */
    private function __construct(public float $missed, public float $margin, public float $dearer)
    {
    }

    /**
     * An order now arrives after the lead time, one of the next chance a review later: what is missed in between is the
     * expected shortage until then less that until an order now could be here, which nothing can help any more.
     * Source: Silver, Pyke & Peterson, chapter 7 (units short in a review interval of the (R, S) system); from memory.
     */
    public static function of(
        Need $need,
        StockPosition $position,
        Requirement $requirement,
        RoundedToPacks $rounded,
    ): self {
        $lead = $need->leadTime->days;
        $units = $rounded->packs->multipliedBy($need->rule->pack->content)->toFloat();
        $missed = $units > 0
            ? max(
                0.0,
                self::shortBy($need, $position, $position->horizon) - self::shortBy($need, $position, $lead),
            )
            : 0.0;
        $dearer = null === $requirement->rise
            ? 0.0
            : max(
                0.0,
                $need->economics->unitCost * $requirement->rise[0] * $units - self::holding($need, $requirement),
            );

        return new self($missed, $missed * $need->economics->margin(), $dearer);
    }

    public function total(): float
    {
        return $this->margin + $this->dearer;
    }

    /** Stock units expected to be short within so many days if nothing is ordered. */
    private static function shortBy(Need $need, StockPosition $position, float $days): float
    {
        $there = $position->free->plus($need->coming->within($days))->toFloat()
            - PlannedDemand::until($need->planned, $need->today, $days);

        return $need->forecast->distribution($days, $need->leadTime->spread)->loss($there);
    }

    /** Of what is bought ahead, until it is used: half of it, on average. */
    private static function holding(Need $need, Requirement $requirement): float
    {
        $ahead = $requirement->ahead->toFloat();
        $perDay = $need->forecast->perDay();

        return $perDay > 0 ? ($ahead / 2) * $need->economics->holding() * ($ahead / $perDay / 365) : 0.0;
    }
}
