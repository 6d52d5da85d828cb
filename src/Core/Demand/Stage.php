<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/** Where an item stands in its life (common practice, no source). */
enum Stage: string
{
    case New = 'new';
    case Steady = 'steady';
    case Fading = 'fading';
    case Dead = 'dead';

    private const NEW_UNTIL_WEEKS = 26;
    private const LATELY_WEEKS = 13;
    /** Selling less than this share of what it sold, against the same season where that is known. */
    private const FADES_AT = 0.5;
    private const DEAD_AFTER_WEEKS = 26;
    private const YEAR = 52;

    public static function of(WeeklyHistory $history): self
    {
        $demand = $history->sinceFirstSale()->demand;
        $count = count($demand);
        if ($count <= self::NEW_UNTIL_WEEKS) {
            return self::New;
        }
        if (0.0 === (float) array_sum(array_slice($demand, -self::DEAD_AFTER_WEEKS))) {
            return self::Dead;
        }
        $mean = static function (array $weeks): ?float {
            $known = array_filter($weeks, static fn (mixed $value): bool => is_float($value));

            return [] === $known ? null : array_sum($known) / count($known);
        };
        $lately = $mean(array_slice($demand, -self::LATELY_WEEKS));
        $before =
            $count >= self::YEAR + self::LATELY_WEEKS
                ? $mean(array_slice($demand, -self::YEAR - self::LATELY_WEEKS, self::LATELY_WEEKS))
                : $mean(array_slice($demand, 0, -self::LATELY_WEEKS));

        return null !== $lately && null !== $before && $lately < self::FADES_AT * $before ? self::Fading : self::Steady;
    }
}
