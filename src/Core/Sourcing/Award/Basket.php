<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

use TallBarrel\Core\InvalidValue;

/**
 * Lines to be bought and what each supplier asks for them: each line goes to one supplier so that everything together
 * costs least, with freight, order costs, minimums and capacities.
 */
final readonly class Basket
{
    /** Missing a minimum costs more than anything that could be saved by it. */
    private const PENALTY = 1000.0;

    /**
     * @param array<int|string, array<int|string, Bid>> $lines     bids by line and supplier
     * @param array<int|string, Bidder>             $suppliers
     *
     * @throws InvalidValue if a bid names a supplier that is not there, or costs or weighs less than nothing
     */
    public function __construct(public array $lines, public array $suppliers)
    {
        foreach ($lines as $line => $bids) {
            foreach ($bids as $supplier => $bid) {
                if (!isset($suppliers[$supplier])) {
                    throw InvalidValue::because(
                        sprintf('Line “%s” has a bid of “%s”, who is not among the suppliers.', $line, $supplier),
                    );
                }
                if ($bid->value < 0 || $bid->kilograms < 0 || $bid->packs < 0 || !is_finite($bid->cost)) {
                    throw InvalidValue::because(
                        sprintf('The bid of “%s” for line “%s” is below zero or no number.', $supplier, $line),
                    );
                }
            }
        }
    }

    /**
     * The award that costs least. Where the minimums cannot all be reached it misses as few as possible and says so.
     *
     * @param int $steps partial awards to look at before giving up on the proof
     */
    public function best(int $steps = 200): Award
    {
        $search = new Search($this->open(), $this->suppliers, $this->penalty());
        [$chosen, $gap, $looked] = $search->run($steps);

        return $this->award($chosen, $gap, $looked);
    }

    /** Each line from the supplier whose own price for it is lowest, as if orders cost nothing. */
    public function cheapestLineByLine(): Award
    {
        $chosen = [];
        foreach ($this->open() as $line => $bids) {
            $costs = array_map(static fn (Bid $bid): float => $bid->cost, $bids);
            asort($costs);
            $chosen[$line] = (string) array_key_first($costs);
        }

        return $this->award($chosen, \INF, 0);
    }

    /** Everything from one supplier; lines it does not offer are unmet. */
    public function allFrom(string $supplier): Award
    {
        $chosen = [];
        foreach ($this->open() as $line => $bids) {
            if (isset($bids[$supplier])) {
                $chosen[$line] = $supplier;
            }
        }

        return $this->award($chosen, \INF, 0);
    }

    /** @param array<int|string, string> $chosen supplier by line */
    public function valued(array $chosen): Award
    {
        return $this->award(
            array_filter(
                $chosen,
                fn (string $supplier, string|int $line): bool => isset($this->lines[$line][$supplier]),
                \ARRAY_FILTER_USE_BOTH,
            ),
            \INF,
            0,
        );
    }

    /**
     * The same basket as a person wishes it.
     *
     * @param array<int|string, string> $pins      line to supplier
     * @param list<string>          $forbidden suppliers not to buy from
     */
    public function wished(array $pins, array $forbidden): self
    {
        $lines = [];
        foreach ($this->lines as $line => $bids) {
            $kept = array_diff_key($bids, array_flip($forbidden));
            $pin = $pins[$line] ?? null;
            $lines[$line] = null !== $pin && isset($kept[$pin]) ? [$pin => $kept[$pin]] : $kept;
        }

        return new self($lines, $this->suppliers);
    }

    /** @return array<int|string, non-empty-array<int|string, Bid>> */
    private function open(): array
    {
        return array_filter($this->lines);
    }

    /**
     * What an order of one supplier costs beside its lines, home currency; far more where it breaks a minimum or the
     * capacity.
     *
     * @param array{float, float, float} $sums value in the supplier's currency, kilograms, packs
     */
    public function orderCost(int|string $supplier, array $sums): float
    {
        [$value, $kilograms, $packs] = $sums;
        if ($packs <= Search::TINY && $value <= Search::TINY && $kilograms <= Search::TINY) {
            return 0.0;
        }
        $bidder = $this->suppliers[$supplier];

        return $bidder->orderCost
            + $bidder->freight->of($value, $kilograms) * $bidder->homeForOne * $bidder->freightFactor
            + (null === self::short($bidder, $value, $kilograms, $packs) ? 0.0 : $this->penalty());
    }

    /** What an order lacks of the minimum, or has beyond the capacity. */
    private static function short(Bidder $bidder, float $value, float $kilograms, float $packs): ?string
    {
        $short = $bidder->minimum->shortfall($value, $kilograms, $packs);
        if (null === $short && null !== $bidder->capacity && $value > $bidder->capacity + 1e-6) {
            $short = sprintf(
                '%s more than the %s they can supply',
                number_format(ceil($value - $bidder->capacity)),
                number_format($bidder->capacity),
            );
        }

        return $short;
    }

    private function penalty(): float
    {
        $most = 0.0;
        foreach ($this->lines as $bids) {
            $most += max([0.0, ...array_map(static fn (Bid $bid): float => abs($bid->cost), $bids)]);
        }

        return self::PENALTY + 10 * $most;
    }

    /** @param array<int|string, string> $chosen */
    private function award(array $chosen, float $gap, int $looked): Award
    {
        $lines = [];
        foreach ($chosen as $line => $supplier) {
            $lines[$supplier][] = (string) $line;
        }
        $shares = [];
        foreach ($lines as $supplier => $names) {
            $bidder = $this->suppliers[$supplier];
            $bids = array_map(fn (string $line): Bid => $this->lines[$line][$supplier], $names);
            $value = array_sum(array_map(static fn (Bid $bid): float => $bid->value, $bids));
            $kilograms = array_sum(array_map(static fn (Bid $bid): float => $bid->kilograms, $bids));
            $packs = array_sum(array_map(static fn (Bid $bid): float => $bid->packs, $bids));
            $shares[(string) $supplier] = new Share(
                $names,
                array_sum(array_map(static fn (Bid $bid): float => $bid->cost, $bids)),
                $bidder->freight->of($value, $kilograms) * $bidder->homeForOne * $bidder->freightFactor,
                $bidder->orderCost,
                $value,
                $kilograms,
                self::short($bidder, $value, $kilograms, $packs),
            );
        }
        uasort($shares, static fn (Share $a, Share $b): int => $b->cost() <=> $a->cost());
        $named = array_map(strval(...), array_keys($this->lines));

        return new Award(
            $chosen,
            $shares,
            array_values(array_diff($named, array_map(strval(...), array_keys($chosen)))),
            $gap,
            $looked,
        );
    }
}
