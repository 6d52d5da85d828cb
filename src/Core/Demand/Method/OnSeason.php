<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand\Method;

/** Another method, working on the series with its season taken out; the season is put back on what it forecasts. */
final readonly class OnSeason implements Model
{
    public function __construct(private SeasonalIndex $season, private Model $inner)
    {
    }

    /**
     * @param list<?float> $demand
     *
     * @return list<?float>
     */
    public static function without(SeasonalIndex $season, array $demand): array
    {
        $terms = $season->terms;
        $period = count($terms);
        $plain = [];
        $phase = 0;
        $additive = Season::Additive === $season->kind;
        foreach ($demand as $value) {
            $plain[] = match (true) {
                null === $value => null,
                $additive => \floatval($value) - \floatval($terms[$phase]),
                default => $value / $terms[$phase],
            };
            if (++$phase === $period) {
                $phase = 0;
            }
        }

        return $plain;
    }

    public function roll(array $demand, array $origins, int $ahead): array
    {
        $terms = $this->season->terms;
        $period = count($terms);
        $additive = Season::Additive === $this->season->kind;
        $rolled = [];
        foreach ($this->inner->roll(self::without($this->season, $demand), $origins, $ahead) as $origin => $means) {
            $phase = $origin % $period;
            $put = [];
            foreach ($means as $mean) {
                $seen = $additive
                    ? \floatval($mean) + \floatval($terms[$phase])
                    : \floatval($mean) * \floatval($terms[$phase]);
                $put[] = $seen > 0.0 ? $seen : 0.0;
                if (++$phase === $period) {
                    $phase = 0;
                }
            }
            $rolled[$origin] = $put;
        }

        return $rolled;
    }
}
