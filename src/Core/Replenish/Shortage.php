<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

/** That nothing will be left before an order sent now could be here. */
final readonly class Shortage
{
    /**
     * @param int   $outInDays days until nothing is left
     * @param float $sales     sales missed until the order is here, home currency
     */
    private function __construct(public int $outInDays, public float $sales)
    {
    }

    /** Null where what is there and coming lasts. */
    public static function of(PlaceOutcome $outcome, \DateTimeImmutable $today): ?self
    {
        $reason = $outcome->proposal->reason;
        if (Reason::Covered === $reason) {
            return null;
        }
        $stock = $outcome->place->stock;
        $forecast = $outcome->forecast();
        $onDay = max(1, (int) $today->diff($outcome->sourced->arrival)->days);
        $left = $stock->onHand->minus($stock->promised)->toFloat();
        $leaving = PlannedDemand::byDay($stock->planned, $today);
        $coming = Projection::over($onDay, $left, $stock->coming->schedule(), $forecast, 0.0, $onDay, $leaving);
        if (null === $coming->outOnDay && Reason::Rush !== $reason) {
            return null;
        }

        return new self(
            $coming->outOnDay ?? $onDay,
            ($outcome->place->item->worth->salesPrice ?? 0.0) * $coming->missed,
        );
    }
}
