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

    /** Stock units this site could let another have: only from a full unit on, and only where nothing is due here. */
    public function spare(): float
    {
        return Reason::Covered === $this->proposal->reason && $this->proposal->spare >= 1
            ? $this->proposal->spare
            : 0.0;
    }
}
