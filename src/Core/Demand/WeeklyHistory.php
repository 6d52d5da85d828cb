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
     * Returns are netted: a week that took back more than it sold lowers the weeks before it
     *
     * @throws InvalidValue if the two are of different length
     */
    public static function of(array $sold, array $daysOut): self
    {
        if (count($sold) !== count($daysOut)) {
            throw InvalidValue::because(
                sprintf('%d weeks of sales, but %d of days without stock.', count($sold), count($daysOut)),
            );
        }
        $sold = self::netted(array_map(floatval(...), $sold));
        $demand = [];
        foreach ($sold as $week => $quantity) {
            $days = 7 - max(0, min(7, $daysOut[$week]));
            $demand[] = $days >= self::FEWEST_DAYS ? ($quantity * 7) / $days : null;
        }

        return new self($sold, $demand);
    }

    /**
     * The same sales, with another view of what was wanted.
     *
     * @param array<int, ?float> $weeks stock units by week, null for unknown
     */
    public function corrected(array $weeks): self
    {
        return new self($this->sold, array_values(array_replace($this->demand, $weeks)));
    }

    /** Only the last so many weeks. */
    public function last(int $weeks): self
    {
        return new self(array_slice($this->sold, -$weeks), array_slice($this->demand, -$weeks));
    }

    /**
     * Only the weeks from one to another, counted back: 0 is the last.
     */
    public function between(int $fromAgo, int $toAgo): self
    {
        $from = max(0, $this->weeks() - 1 - $fromAgo);
        $length = max(0, $this->weeks() - $toAgo - $from);

        return new self(array_slice($this->sold, $from, $length), array_slice($this->demand, $from, $length));
    }

    /** As if so much more, or less, had been sold. */
    public function times(float $factor): self
    {
        return new self(
            array_map(static fn (float $week): float => $week * $factor, $this->sold),
            array_map(static fn (?float $week): ?float => null === $week ? null : $week * $factor, $this->demand),
        );
    }

    /** The mean of the known weeks; null where there is none. */
    public function meanDemand(): ?float
    {
        $known = array_filter($this->demand, static fn (?float $value): bool => null !== $value);

        return [] === $known ? null : array_sum($known) / count($known);
    }

    /** Weeks of which something can be said. */
    public function knownWeeks(): int
    {
        return count(array_filter($this->demand, static fn (?float $value): bool => null !== $value));
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

    /**
     * @param list<float> $sold
     *
     * @return list<float>
     */
    private static function netted(array $sold): array
    {
        $back = 0.0;
        for ($week = count($sold) - 1; $week >= 0; --$week) {
            $sold[$week] -= $back;
            $back = max(0.0, -$sold[$week]);
            $sold[$week] = max(0.0, $sold[$week]);
        }

        return array_values($sold);
    }
}
