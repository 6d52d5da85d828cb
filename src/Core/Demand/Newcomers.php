<?php

declare(strict_types=1);

namespace TallBarrel\Core\Demand;

/**
 * What items of a kind sell a week, for those that are too new to tell by themselves: with few weeks of its own an item
 * is
 * drawn towards the middle of what is like it, the less the more weeks it has. Source of the weighing: the credibility
 * formula n / (n + k), Bühlmann, "Experience rating and credibility", ASTIN Bulletin 4(3), 1967; k by judgement.
 */
final readonly class Newcomers
{
    /** With so many weeks of its own, an item speaks for itself. */
    public const NEW_WEEKS = 26;
    /** So many weeks of its own weigh as much as what is like it. */
    private const HALF = 8;
    /** Like it is what costs from half to twice as much, where there are so many. */
    private const BAND = 2.0;
    private const ENOUGH = 3;

    /**
     * @param array<string, list<array{float, float}>> $byCategory sales price (0 where there is none) and weekly sales
     */
    public function __construct(private array $byCategory = [])
    {
    }

    /** Stock units a week of the middle one of what is like it; null where too little is. */
    public function usual(string $category, ?float $price): ?float
    {
        $all = $this->byCategory[$category] ?? [];
        $band = null === $price || $price <= 0.0
            ? []
            : array_filter(
                $all,
                static fn (array $one): bool => $one[0] >= $price / self::BAND && $one[0] <= $price * self::BAND,
            );
        $rates = array_column(count($band) >= self::ENOUGH ? $band : $all, 1);
        if (count($rates) < self::ENOUGH) {
            return null;
        }
        sort($rates);
        $middle = intdiv(count($rates), 2);

        return 0 === count($rates) % 2 ? ($rates[$middle - 1] + $rates[$middle]) / 2 : $rates[$middle];
    }

    /** Share that an item's own weeks have in its forecast, 0 to 1. */
    public static function ownShare(int $weeks): float
    {
        return $weeks >= self::NEW_WEEKS ? 1.0 : $weeks / ($weeks + self::HALF);
    }
}
