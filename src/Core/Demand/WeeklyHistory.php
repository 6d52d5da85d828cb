<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\InvalidValue;

/**
 * What an item sold at a site, week by week, oldest first; a week is seven days, and the last one ended yesterday.
 *
 * Days with nothing on the shelf are days without an answer, not days without demand. A week with at least three days
 * in stock is scaled up to seven (the sales of those days stand for the others); with fewer, its demand is unknown.
 */
final readonly class WeeklyHistory
{
    private const FEWEST_DAYS = 3;

    /**
     * @param list<float>  $sold   stock units sold, as booked
     * @param list<?float> $demand stock units wanted, null where unknown
     */
    private function __construct(public array $sold, public array $demand)
    {
    }

    /**
     * @param list<float|int> $sold    stock units per week
     * @param list<int>       $daysOut days of that week with nothing on the shelf, 0 to 7
     *
     * @throws InvalidValue if the two are of different length
     */
    public static function of(array $sold, array $daysOut): self
    {
        if (count($sold) !== count($daysOut)) {
            throw InvalidValue::because(sprintf('%d weeks of sales, but %d of days without stock.', count($sold), count($daysOut)));
        }
        $demand = [];
        foreach ($sold as $week => $quantity) {
            $days = 7 - max(0, min(7, $daysOut[$week]));
            $demand[] = $days >= self::FEWEST_DAYS ? max(0.0, (float) $quantity) * 7 / $days : null;
        }

        return new self(array_map(floatval(...), $sold), $demand);
    }

    public function weeks(): int
    {
        return count($this->demand);
    }

    /** @return list<float> of the last so many weeks; unknown weeks count as what was sold */
    public function lastSold(int $weeks): array
    {
        return array_slice($this->sold, -$weeks);
    }

    /** Weeks before the first sale say nothing: the item was not there yet. */
    public function sinceFirstSale(): self
    {
        foreach ($this->sold as $week => $quantity) {
            if ($quantity > 0) {
                return new self(array_slice($this->sold, $week), array_slice($this->demand, $week));
            }
        }

        return new self([], []);
    }
}
