<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Stage;

/** What came out for one place looked at alone, before other sites' surplus is set against it. */
final readonly class PlaceOutcome
{
    /** Beyond these a forecast is taken to lean: the bias as a share, and the tracking signal. */
    private const LEANS = 0.25;
    private const TRACKING_LIMIT = 15.0;

    /** @param string $class of value and pattern, such as "A-smooth" */
    public function __construct(
        public ItemSite $place,
        public KnownForecast $known,
        public string $class,
        public Policy $policy,
        public Sourced $sourced,
        public Proposal $proposal,
        public Evidence $evidence,
    ) {
    }

    public function forecast(): Forecast
    {
        return $this->known->forecast;
    }

    public function stage(): Stage
    {
        return Stage::of($this->place->record->own);
    }

    public function leans(): bool
    {
        return abs($this->forecast()->bias) > self::LEANS && abs($this->forecast()->tracking) > self::TRACKING_LIMIT;
    }

    /** Money a week a leaning forecast goes astray, home currency; null where it does not lean. */
    public function astray(): ?float
    {
        return $this->leans()
            ? abs($this->forecast()->bias) * 7 * $this->forecast()->perDay() * $this->place->item->worth->unitCost
            : null;
    }

    /** Whether something is short here that another site may have; what is bought ahead or on request is not. */
    public function takes(): bool
    {
        return $this->proposal->packs->isPositive()
            && !in_array($this->proposal->reason, [Reason::Asked, Reason::PriceRise], true)
            && $this->proposal->needed->isPositive();
    }

    /** Whole stock units this site could let another have at most: what stands here and is not promised. */
    public function mayGive(): float
    {
        return in_array($this->proposal->reason, [Reason::Rush, Reason::Out], true)
            ? 0.0
            : max(0.0, floor($this->place->stock->onHand->minus($this->place->stock->promised)->toFloat()));
    }

    /** Days until what is ordered for this place could be here: now where it is due, else at the next chance. */
    public function daysToNextDelivery(): float
    {
        return $this->sourced->leadTime->days + ($this->takes() ? 0 : $this->sourced->reviewDays);
    }

    /** Stock units there and coming within so many days, less what is promised and planned. */
    public function freeWithin(float $days): float
    {
        $stock = $this->place->stock;

        return $stock->onHand->minus($stock->promised)->plus($stock->coming->within($days))->toFloat()
            - PlannedDemand::until($stock->planned, $stock->coming->today, $days);
    }

    /** Stock units promised to customers that are not there. */
    public function waiting(): float
    {
        return max(0.0, ceil($this->place->stock->promised->minus($this->place->stock->onHand)->toFloat()));
    }

    /** What is lost with each stock unit that cannot be sold, home currency. */
    public function margin(): float
    {
        $worth = $this->place->item->worth;

        return null === $worth->salesPrice ? 0.0 : max(0.0, $worth->salesPrice - $worth->unitCost);
    }
}
