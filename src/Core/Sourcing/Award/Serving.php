<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/**
 * Which lines one supplier would serve, and at which tier of its freight, when each line offers a price for being
 * taken:
 * a bound, since limits are kept by taking lines in part.
 *
 * @phpstan-import-type Tier from Search
 */
final readonly class Serving
{
    private const TINY = Search::TINY;
    /** Limits of one tier that are kept in turn. */
    private const PASSES = 4;
    private const LINES_IN_TURN = 4;

    /**
     * @param array<int, Tier>                       $tiers
     * @param array<int, array{float, float, float}> $uses  value, kilograms, packs by line
     */
    public function __construct(private array $tiers, private array $uses)
    {
    }

    /**
     * Each way of using the supplier.
     *
     * @param list<int>         $open
     * @param array<int, float> $column cost by line
     * @param array<int, float> $prices
     *
     * @return array<int, array{float, array<int, float>, array<int, float>}> by tier: value, share of each line taken,
     *      what one of a resource is worth
     */
    public function each(array $open, array $column, array $prices): array
    {
        [$gain, $taken, $sums] = $this->wanted($column, $prices);
        $ways = [];
        foreach ($open as $tier) {
            $ways[$tier] =
                Search::CLOSED === $tier
                    ? [0.0, [], []]
                    : $this->within($this->tiers[$tier], $column, $prices, $gain, $taken, $sums);
        }

        return $ways;
    }

    /**
     * The cheapest way to use the supplier, given what the lines offer.
     *
     * @param list<int>         $open
     * @param array<int, float> $column cost by line
     * @param array<int, float> $prices
     *
     * @return array{float, array<int, float>, int} value, share of each line taken, tier
     */
    public function cheapest(array $open, array $column, array $prices): array
    {
        [$gain, $taken, $sums] = $this->wanted($column, $prices);
        $best = [\INF, [], Search::CLOSED];
        foreach ($open as $tier) {
            if (Search::CLOSED === $tier) {
                $best = 0.0 < $best[0] ? [0.0, [], Search::CLOSED] : $best;
            } elseif ($this->tiers[$tier]['cost'] + $gain < $best[0]) {
                // Limits can only make it dearer.
                [$value, $some] = $this->within($this->tiers[$tier], $column, $prices, $gain, $taken, $sums);
                $best = $value < $best[0] ? [$value, $some, $tier] : $best;
            }
        }

        return $best;
    }

    /**
     * The cheapest way, but a line that a limit would have taken in part is taken whole or not at all, a few of them in
     * turn: a higher bound for the same prices.
     *
     * @param list<int>         $open
     * @param array<int, float> $column cost by line
     * @param array<int, float> $prices
     */
    public function wholeLines(array $open, array $column, array $prices): float
    {
        $best = \INF;
        $ways = $this->each($open, $column, $prices);
        uasort($ways, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        foreach ($ways as $tier => [$value]) {
            if ($value >= $best) {
                break;
            }
            $best = min(
                $best,
                Search::CLOSED === $tier
                    ? $value
                    : $this->inWhole($this->tiers[$tier], $column, $prices, self::LINES_IN_TURN),
            );
        }

        return $best;
    }

    /**
     * @param Tier              $tier
     * @param array<int, float> $column
     * @param array<int, float> $prices
     */
    private function inWhole(array $tier, array $column, array $prices, int $turns): float
    {
        [$gain, $taken, $sums] = $this->wanted($column, $prices);
        [$value, $some] = $this->within($tier, $column, $prices, $gain, $taken, $sums);
        if (0 === $turns || \INF === $value) {
            return $value;
        }
        foreach ($some as $line => $part) {
            if ($part > self::TINY && $part < 1 - self::TINY) {
                $cost = $column[$line];
                unset($column[$line]);
                $without = $this->inWhole($tier, $column, $prices, $turns - 1);
                $tier['cost'] += $cost - $prices[$line];
                foreach ($tier['from'] as $r => $limit) {
                    $tier['from'][$r] = max(0.0, $limit - $this->uses[$line][$r]);
                }
                foreach ($tier['upTo'] as $r => $limit) {
                    $tier['upTo'][$r] = $limit - $this->uses[$line][$r];
                    if ($tier['upTo'][$r] < -self::TINY) {
                        return $without;
                    }
                }

                return max($value, min($without, $this->inWhole($tier, $column, $prices, $turns - 1)));
            }
        }

        return $value;
    }

    /**
     * The lines a supplier would take if an order cost nothing and had no limits.
     *
     * @param array<int, float> $column
     * @param array<int, float> $prices
     *
     * @return array{float, array<int, float>, array{float, float, float}} what it gains, below zero; lines; what they
     *      use
     */
    private function wanted(array $column, array $prices): array
    {
        $gain = 0.0;
        $taken = [];
        $sums = [0.0, 0.0, 0.0];
        foreach ($column as $i => $cost) {
            $reduced = $cost - $prices[$i];
            if ($reduced < 0) {
                $gain += $reduced;
                $taken[$i] = 1.0;
                $use = $this->uses[$i];
                $sums[0] += $use[0];
                $sums[1] += $use[1];
                $sums[2] += $use[2];
            }
        }

        return [$gain, $taken, $sums];
    }

    /**
     * What is taken, brought within the limits of a tier, one limit after the other, each counting what the others are
     * worth so far: a bound on the cost of keeping all of them. A line may be taken in part.
     *
     * @param Tier                       $tier
     * @param array<int, float>          $column
     * @param array<int, float>          $prices
     * @param array<int, float>          $taken
     * @param array{float, float, float} $sums
     *
     * @return array{float, array<int, float>, array<int, float>}
     */
    private function within(array $tier, array $column, array $prices, float $gain, array $taken, array $sums): array
    {
        $best = [$tier['cost'] + $gain, $taken, []];
        $worths = [];
        for ($pass = 0; $pass < self::PASSES; ++$pass) {
            $missed = self::missed($tier, $sums);
            if (null === $missed) {
                break;
            }
            [$resource, $limit, $lower] = $missed;
            unset($worths[$resource]);
            $kept = $this->keeping($resource, $limit, $lower, $tier, $column, $prices, $worths);
            if (null === $kept) {
                return [\INF, [], []];
            }
            [$value, $some, $worth] = $kept;
            if (abs($worth) > 0.0) {
                $worths[$resource] = $worth;
            }
            if ($value > $best[0]) {
                $best = [$value, $some, $worths];
            }
            $sums = [0.0, 0.0, 0.0];
            foreach ($some as $i => $part) {
                $use = $this->uses[$i];
                $sums[0] += $part * $use[0];
                $sums[1] += $part * $use[1];
                $sums[2] += $part * $use[2];
            }
        }

        return $best;
    }

    /**
     * @param Tier                       $tier
     * @param array{float, float, float} $sums
     *
     * @return array{int, float, bool}|null the resource whose limit is missed by most, the limit, whether it is a lower
     *      one
     */
    private static function missed(array $tier, array $sums): ?array
    {
        $worst = self::TINY;
        $missed = null;
        foreach ($tier['from'] as $r => $limit) {
            if (($limit - $sums[$r]) / max($limit, self::TINY) > $worst) {
                [$worst, $missed] = [($limit - $sums[$r]) / max($limit, self::TINY), [$r, $limit, true]];
            }
        }
        foreach ($tier['upTo'] as $r => $limit) {
            if (($sums[$r] - $limit) / max($limit, self::TINY) > $worst) {
                [$worst, $missed] = [($sums[$r] - $limit) / max($limit, self::TINY), [$r, $limit, false]];
            }
        }

        return $missed;
    }

    /**
     * The cheapest way to keep one limit, counting what the resources of others are worth.
     *
     * @param Tier              $tier
     * @param array<int, float> $column
     * @param array<int, float> $prices
     * @param array<int, float> $worths of one of a resource: above zero where more is needed, below where less
     *
     * @return array{float, array<int, float>, float}|null value, share of each line taken, worth of the resource; null
     *      where it cannot be kept
     */
    private function keeping(
        int $resource,
        float $limit,
        bool $lower,
        array $tier,
        array $column,
        array $prices,
        array $worths,
    ): ?array {
        $value = $tier['cost'];
        foreach ($worths as $r => $worth) {
            $value += $worth * ($worth > 0 ? $tier['from'][$r] : $tier['upTo'][$r]);
        }
        $ratios = $taken = [];
        $sum = 0.0;
        foreach ($column as $i => $cost) {
            $reduced = $cost - $prices[$i];
            foreach ($worths as $r => $worth) {
                $reduced -= $worth * $this->uses[$i][$r];
            }
            $use = $this->uses[$i][$resource];
            if ($reduced < 0) {
                $value += $reduced;
                $taken[$i] = 1.0;
                $sum += $use;
            }
            // By what one of the resource costs to get, or brings to give up.
            if ($use > self::TINY && $reduced < 0 !== $lower) {
                $ratios[$i] = abs($reduced) / $use;
            }
        }
        $miss = $lower ? $limit - $sum : $sum - $limit;
        if ($miss <= self::TINY) {
            return [$value, $taken, 0.0];
        }
        asort($ratios);
        foreach ($ratios as $i => $ratio) {
            $use = $this->uses[$i][$resource];
            $part = min(1.0, $miss / $use);
            $value += $part * $ratio * $use;
            $taken[$i] = $lower ? $part : 1.0 - $part;
            $miss -= $part * $use;
            if ($miss <= self::TINY) {
                return [$value, $taken, $lower ? $ratio : -$ratio];
            }
        }

        return null;
    }
}
