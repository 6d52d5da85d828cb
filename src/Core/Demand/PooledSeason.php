<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

use TallBarrel\Core\Demand\Method\SeasonalIndex;

/**
 * The season of a whole category, for items whose own history is too short or too noisy to show one. In the contest it
 * must not have seen the values it is judged by, so there are two: one from all years, one without the last.
 */
final readonly class PooledSeason
{
    /**
     * @param list<float> $used   factors by periods ago, counted from 0, from all the category's history
     * @param list<float> $judged the same from what was known before the last season
     */
    public function __construct(private array $used, private array $judged)
    {
    }

    /** For a series of so many values, by phase from its first. */
    public function used(int $count): SeasonalIndex
    {
        return self::turned($this->used, $count);
    }

    public function judged(int $count): SeasonalIndex
    {
        return self::turned($this->judged, $count);
    }

    /** @return list<float> what distinguishes it from another */
    public function figures(): array
    {
        return [...$this->used, ...$this->judged];
    }

    /** @param list<float> $byAgo */
    private static function turned(array $byAgo, int $count): SeasonalIndex
    {
        $period = count($byAgo);
        $terms = [];
        for ($phase = 0; $phase < $period; ++$phase) {
            $terms[] = $byAgo[((($count - $phase) % $period) + $period) % $period];
        }

        return SeasonalIndex::of($terms);
    }
}
