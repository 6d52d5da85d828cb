<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/**
 * Splits lines of an award between two suppliers where that pays: to keep a capacity, to reach a minimum or free
 * freight, or where whole packs and price breaks make the parts cheaper than the whole. One line after the other, the
 * one that saves most first, as long as it saves more than handling one order line more costs. What each supplier gets
 * apart from that stays (common practice, no source).
 */
final class Splitting
{
    private const MOST_SPLITS = 12;

    /** @var array<int|string, Bid|null> by line, supplier and units */
    private array $asked = [];
    /** @var array<int|string, array{float, float, float}> value, kilograms, packs by supplier */
    private array $sums = [];
    /** @var array<string, Split> by line */
    private array $splits = [];

    private function __construct(
        private readonly Basket $basket,
        private readonly Award $award,
        private readonly PartsOfLines $parts,
        private readonly float $handling,
    ) {
        foreach ($award->chosen as $line => $supplier) {
            $bid = $basket->lines[$line][$supplier];
            $this->sums[$supplier] = self::moved($this->sums[$supplier] ?? [0.0, 0.0, 0.0], $bid, 1);
        }
    }

    /** @param float $handling of one order line more, home currency */
    public static function of(Basket $basket, Award $award, PartsOfLines $parts, float $handling): Award
    {
        $splitting = new self($basket, $award, $parts, $handling);
        while (count($splitting->splits) < self::MOST_SPLITS && $splitting->splitOne()) {
            continue;
        }
        if ([] === $splitting->splits) {
            return $award;
        }
        $lines = $basket->lines;
        $chosen = $award->chosen;
        foreach ($splitting->splits as $split) {
            // The second part is a line of its own, of a name no line has.
            $second = $split->line."\0second";
            $lines[$split->line] = [$split->first => $splitting->ask($split->line, $split->first, $split->firstUnits)];
            $lines[$second] = [$split->second => $splitting->ask($split->line, $split->second, $split->secondUnits)];
            $chosen[$split->line] = $split->first;
            $chosen[$second] = $split->second;
        }
        $valued = (new Basket(array_map(array_filter(...), $lines), $basket->suppliers))->valued($chosen);

        return new Award(
            array_diff_key($valued->chosen, array_flip(array_map(
                static fn (Split $split): string => $split->line."\0second",
                $splitting->splits,
            ))),
            $valued->shares,
            $award->unmet,
            $award->gap,
            $award->steps,
            array_values($splitting->splits),
        );
    }

    private function splitOne(): bool
    {
        $best = null;
        foreach ($this->award->chosen as $line => $first) {
            if (isset($this->splits[(string) $line])) {
                continue;
            }
            foreach (array_map(strval(...), array_keys($this->basket->lines[$line])) as $second) {
                foreach ($second === $first ? [] : $this->worthTrying($line, $first, $second) as $units) {
                    $split = $this->tried((string) $line, $first, $second, $units);
                    if (null !== $split && $split->saves > ($best->saves ?? $this->handling + 0.005)) {
                        $best = $split;
                    }
                }
            }
        }
        if (null === $best) {
            return false;
        }
        [$whole, $first, $second] = $this->bidsOf($best);
        $this->sums[$best->first] = self::moved(self::moved($this->sums[$best->first], $whole, -1), $first, 1);
        $this->sums[$best->second] = self::moved($this->sums[$best->second] ?? [0.0, 0.0, 0.0], $second, 1);
        $this->splits[$best->line] = $best;

        return true;
    }

    /** @return array{Bid, Bid, Bid} for the whole, and for the two parts */
    private function bidsOf(Split $split): array
    {
        $none = new Bid(0.0, 0.0, 0.0, 0.0);

        return [
            $this->basket->lines[$split->line][$split->first],
            $this->ask($split->line, $split->first, $split->firstUnits) ?? $none,
            $this->ask($split->line, $split->second, $split->secondUnits) ?? $none,
        ];
    }

    /** @return list<float> stock units for the second supplier that may make a difference */
    private function worthTrying(int|string $line, string $first, string $second): array
    {
        $all = $this->parts->units($line);
        $units = $this->parts->steps($line, $second);
        foreach ($this->parts->steps($line, $first) as $step) {
            $units[] = $all - $step;
        }
        $bidder = $this->basket->suppliers[$second];
        $has = $this->sums[$second] ?? [0.0, 0.0, 0.0];
        foreach ($bidder->thresholds() as [$of, $limit]) {
            array_push($units, ...array_map(ceil(...), $this->making($line, $second, $of, $limit - $has[$of])));
        }
        if (null !== $bidder->capacity) {
            array_push($units, ...array_map(floor(...), $this->making($line, $second, 0, $bidder->capacity - $has[0])));
        }
        // What the first keeps, so that it stays above a threshold or comes within its capacity.
        $bidder = $this->basket->suppliers[$first];
        $others = self::moved($this->sums[$first], $this->basket->lines[$line][$first], -1);
        foreach ($bidder->thresholds() as [$of, $limit]) {
            foreach ($this->making($line, $first, $of, $limit - $others[$of]) as $kept) {
                $units[] = $all - ceil($kept);
            }
        }
        if (null !== $bidder->capacity) {
            foreach ($this->making($line, $first, 0, $bidder->capacity - $others[0]) as $kept) {
                $units[] = $all - floor($kept);
            }
        }

        return array_values(array_unique(array_filter(
            $units,
            static fn (float $some): bool => $some > 0.0 && $some < $all,
        )));
    }

    /**
     * Stock units of a line that make so much of an order's value, kilograms or packs: at the price of the whole, and
     * at that of as many.
     *
     * @param int $of 0 for the value, 1 for kilograms, 2 for packs
     *
     * @return list<float>
     */
    private function making(int|string $line, string $supplier, int $of, float $amount): array
    {
        $all = $this->parts->units($line);
        $whole = $this->basket->lines[$line][$supplier]->uses()[$of];
        if ($amount <= 0 || $whole <= 0) {
            return [];
        }
        $units = [$amount / $whole * $all];
        $there = $units[0] < $all ? $this->ask((string) $line, $supplier, ceil($units[0]))?->uses()[$of] : null;
        if ($there > 0) {
            $units[] = $amount / $there * ceil($units[0]);
        }

        return $units;
    }

    private function tried(string $line, string $first, string $second, float $units): ?Split
    {
        $rest = $this->parts->units($line) - $units;
        $whole = $this->basket->lines[$line][$first];
        $kept = $this->ask($line, $first, $rest);
        $given = $this->ask($line, $second, $units);
        if (null === $kept || null === $given) {
            return null;
        }
        $here = $this->sums[$first];
        $there = $this->sums[$second] ?? [0.0, 0.0, 0.0];
        $saves = $whole->cost - $kept->cost - $given->cost
            + $this->basket->orderCost($first, $here)
            - $this->basket->orderCost($first, self::moved(self::moved($here, $whole, -1), $kept, 1))
            + $this->basket->orderCost($second, $there)
            - $this->basket->orderCost($second, self::moved($there, $given, 1));

        return new Split($line, $first, $rest, $second, $units, $kept->cost + $given->cost, $saves);
    }

    private function ask(string $line, string $supplier, float $units): ?Bid
    {
        $key = sprintf('%s|%s|%.6f', $line, $supplier, $units);
        if (!array_key_exists($key, $this->asked)) {
            $this->asked[$key] = $this->parts->part($line, $supplier, $units);
        }

        return $this->asked[$key];
    }

    /**
     * @param array{float, float, float} $sums
     *
     * @return array{float, float, float}
     */
    private static function moved(array $sums, Bid $bid, int $sign): array
    {
        [$value, $kilograms, $packs] = $bid->uses();

        return [$sums[0] + $sign * $value, $sums[1] + $sign * $kilograms, $sums[2] + $sign * $packs];
    }
}
