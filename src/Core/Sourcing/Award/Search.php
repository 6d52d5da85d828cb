<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/**
 * Finds the cheapest award of a basket and proves it, by branch and bound.
 *
 * A supplier is used at one tier of its freight, which costs something and sets limits on what it gets, or not at all.
 * Each line has a price at which it would be taken off our hands; given those, every supplier decides for itself at
 * which
 * tier it would serve which lines, and what they all say together is a bound on any award. The prices are moved until
 * it
 * is as high as it gets. Source of the relaxation: Geoffrion, "Lagrangean relaxation for integer programming",
 * Mathematical Programming Study 2, 1974, for plant location as in Erlenkotter, "A dual-based procedure for
 * uncapacitated
 * facility location", Operations Research 26, 1978; of the steps: Held, Wolfe & Crowder, "Validation of subgradient
 * optimization", Mathematical Programming 6, 1974.
 *
 * @phpstan-type Tier array{cost: float, from: array<int, float>, upTo: array<int, float>}
 * @phpstan-type Node array{bound: float, prices: array<int, float>, options: array<int, list<int>>, bids: array<int,
 *      array<int, float>>, tierShares: array<int, array<int, float>>, lineShares: array<int, array<int, float>>}
 */
final class Search
{
    /** Not used at all, beside the tiers of a supplier. */
    public const CLOSED = -1;
    private const ITERATIONS = 18;
    /** Every so many steps, and at the last, an award is made of what the suppliers would take. */
    private const LOOK_EVERY = 40;
    /** An award further from the best than this times it is not worth improving. */
    private const PROMISING = 1.03;
    private const FIRST_ITERATIONS = 160;
    /** So many steps without a higher bound halve their length. */
    private const PATIENCE = 3;
    /** A supplier or line that says the same in all but this share of the steps counts as settled. */
    private const DOUBT = 0.02;
    /** Awards that cost no more than this times the best are worth a closer search around them. */
    private const NEARLY = 1.01;
    /** Subsets of suppliers tried for a first award: up to two to the power of this. */
    private const SUBSETS = 9;
    public const TINY = 1e-7;
    /** What could still be saved is not looked for below half a cent. */
    private const ENOUGH = 0.005;

    /** @var list<string> */
    private array $lineNames;
    /** @var list<string> */
    private array $supplierNames;
    /** @var list<array<int, float>> cost by line and supplier */
    private array $costs = [];
    /** @var list<array<int, array{float, float, float}>> value, kilograms, packs by line and supplier */
    private array $uses = [];
    /** @var array<int, array<int, Tier>> by supplier */
    private array $tiers = [];
    /**
     * Cost and limits of the tiers by supplier, cheapest first.
     *
     * @var array<int, list<array{float, array<int, float>, array<int, float>}>>
     */
    private array $byCost = [];
    /** @var array<int, Serving> by supplier */
    private array $servings = [];
    /** @var array<int, float> least order cost of one of value, by supplier */
    private array $slopes = [];
    /** @var array<int, int> supplier by line, of the best award so far */
    private array $best = [];
    private float $bestCost = \INF;
    /** @var array<string, true> awards looked at before */
    private array $considered = [];

    /**
     * @param array<int|string, non-empty-array<int|string, Bid>> $lines
     * @param array<int|string, Bidder>                       $suppliers
     */
    public function __construct(array $lines, array $suppliers, private readonly float $penalty)
    {
        $this->lineNames = array_map(strval(...), array_keys($lines));
        $this->supplierNames = array_map(strval(...), array_keys($suppliers));
        $at = array_flip($this->supplierNames);
        foreach (array_values($lines) as $bids) {
            $costs = $uses = [];
            foreach ($bids as $supplier => $bid) {
                $number = $at[(string) $supplier];
                $costs[$number] = $bid->cost;
                $uses[$number] = [$bid->value, $bid->kilograms, $bid->packs];
            }
            $this->costs[] = $costs;
            $this->uses[] = $uses;
        }
        foreach (array_values($suppliers) as $s => $bidder) {
            $most = [0.0, 0.0, 0.0];
            foreach ($this->uses as $uses) {
                foreach ($uses[$s] ?? [] as $r => $use) {
                    $most[$r] += $use;
                }
            }
            $this->tiers[$s] = $this->tiersOf($bidder, $most);
            $this->byCost[$s] = array_map(
                static fn (array $tier): array => [$tier['cost'], $tier['from'], $tier['upTo']],
                $this->tiers[$s],
            );
            usort($this->byCost[$s], static fn (array $a, array $b): int => $a[0] <=> $b[0]);
            $this->servings[$s] = new Serving(
                $this->tiers[$s],
                array_filter(array_map(static fn (array $uses): ?array => $uses[$s] ?? null, $this->uses)),
            );
            $this->slopes[$s] = $most[0] > 0 ? min([\INF, ...array_column($this->tiers[$s], 'cost')]) / $most[0] : 0.0;
        }
    }

    /**
     * @return array{array<int|string, string>, float, int} supplier by line, the most a better award could save,
     *      partial awards looked at
     */
    public function run(int $steps): array
    {
        if ([] === $this->lineNames) {
            return [[], 0.0, 0];
        }
        $this->firstAwards();
        /** @var \SplPriorityQueue<float, Node> $queue */
        $queue = new \SplPriorityQueue();
        $options = array_map(static fn (array $tiers): array => [self::CLOSED, ...array_keys($tiers)], $this->tiers);
        $root = $this->relax($options, $this->costs, $this->firstPrices(), -\INF, self::FIRST_ITERATIONS);
        $queue->insert($root, -$root['bound']);
        $looked = 0;
        $bound = $this->bestCost - self::ENOUGH;
        while (!$queue->isEmpty()) {
            /** @var Node $node */
            $node = $queue->extract();
            if ($node['bound'] >= $this->bestCost - self::ENOUGH) {
                break;
            }
            if ($looked >= $steps) {
                $bound = $node['bound'];
                break;
            }
            ++$looked;
            foreach ($this->children($node) as $child) {
                if ($child['bound'] < $this->bestCost - self::ENOUGH) {
                    $queue->insert($child, -$child['bound']);
                }
            }
        }
        $chosen = [];
        foreach ($this->best as $i => $s) {
            $chosen[$this->lineNames[$i]] = $this->supplierNames[$s];
        }

        return [$chosen, max(0.0, $this->bestCost - $bound), $looked];
    }

    /** @return array<int, float> what each line costs in the best award so far, its share of the order included */
    private function firstPrices(): array
    {
        $sums = $this->sums($this->best);
        $prices = [];
        foreach ($this->best as $i => $s) {
            $share = $sums[$s][0] > 0 ? $this->uses[$i][$s][0] / $sums[$s][0] : 0.0;
            $prices[] = $this->costs[$i][$s] + $share * $this->orderCost($s, $sums[$s]);
        }

        return $prices;
    }

    /**
     * Splits what a node leaves open in two, after dropping what cannot be in a better award.
     *
     * @param Node $node
     *
     * @return list<Node>
     */
    private function children(array $node): array
    {
        $narrowed = $this->narrowed($node);
        if (null === $narrowed) {
            return [];
        }
        [$options, $bids] = $narrowed;
        $parts = $this->split($options, $bids, $node);
        $children = [];
        foreach ($parts as [$partOptions, $partBids]) {
            if (!in_array([], $partBids, true)) {
                $children[] = $this->relax($partOptions, $partBids, $node['prices'], $node['bound'], self::ITERATIONS);
            }
        }

        return $children;
    }

    /**
     * @param array<int, list<int>>         $options
     * @param array<int, array<int, float>> $bids
     * @param Node                          $node
     *
     * @return list<array{array<int, list<int>>, array<int, array<int, float>>}>
     */
    private function split(array $options, array $bids, array $node): array
    {
        // The supplier that wavers most between being used at one tier, at another, or not at all.
        $most = self::DOUBT;
        $supplier = $tier = null;
        foreach ($options as $s => $open) {
            if (count($open) > 1) {
                $shares = array_intersect_key($node['tierShares'][$s], array_flip($open)) ?: [$open[0] => 0.0];
                $doubt = 1 - max($shares);
                if ($doubt > $most) {
                    [$most, $supplier, $tier] = [$doubt, $s, (int) array_search(max($shares), $shares, true)];
                }
            }
        }
        if (null !== $supplier && null !== $tier) {
            $kept = $left = $options;
            $kept[$supplier] = [$tier];
            $left[$supplier] = array_values(array_diff($options[$supplier], [$tier]));

            return [
                [$kept, self::CLOSED === $tier ? $this->without($bids, $supplier) : $bids],
                [$left, [self::CLOSED] === $left[$supplier] ? $this->without($bids, $supplier) : $bids],
            ];
        }
        // Otherwise the line that wavers most, or else has the closest alternative.
        $line = $who = null;
        $most = -\INF;
        foreach ($bids as $i => $lineBids) {
            if (count($lineBids) > 1) {
                $shares = array_intersect_key($node['lineShares'][$i] ?? [], $lineBids);
                $first =
                    [] === $shares
                        ? (int) array_search(min($lineBids), $lineBids, true)
                        : (int) array_search(max($shares), $shares, true);
                $others = $lineBids;
                unset($others[$first]);
                $doubt = 1 - ($shares[$first] ?? 0.0) - 1e-6 * (min([\INF, ...$others]) - $lineBids[$first]);
                if ($doubt > $most) {
                    [$most, $line, $who] = [$doubt, $i, $first];
                }
            }
        }
        if (null === $line || null === $who) {
            // Nothing is left to decide on the lines: the award is known, whichever tiers it comes to.
            $this->consider(
                array_map(static fn (array $lineBids): int => (int) array_key_first($lineBids), array_values($bids)),
            );

            return [];
        }
        $kept = $left = $bids;
        $kept[$line] = [$who => $bids[$line][$who]];
        unset($left[$line][$who]);

        return [[$options, $kept], [$options, $left]];
    }

    /**
     * Without the tiers and bids that would take the bound of a node above the best award.
     *
     * @param Node $node
     *
     * @return array{array<int, list<int>>, array<int, array<int, float>>}|null null where nothing better is left
     */
    private function narrowed(array $node): ?array
    {
        $room = $this->bestCost - self::ENOUGH - $node['bound'];
        $bids = $node['bids'];
        $options = $node['options'];
        $columns = self::columns($bids);
        foreach ($options as $s => $open) {
            $column = $columns[$s] ?? [];
            $uses = $this->servings[$s]->each($open, $column, $node['prices']);
            $least = min([\INF, ...array_column($uses, 0)]);
            $uses = array_filter($uses, static fn (array $use): bool => $use[0] - $least <= $room);
            $options[$s] = array_keys($uses);
            foreach ($column as $i => $cost) {
                $with = $without = \INF;
                foreach ($uses as $tier => [$value, , $worths]) {
                    if (self::CLOSED === $tier) {
                        $without = min($without, $value);
                        continue;
                    }
                    $reduced = $cost - $node['prices'][$i];
                    foreach ($worths as $r => $worth) {
                        $reduced -= $worth * $this->uses[$i][$s][$r];
                    }
                    $with = min($with, $value + max(0.0, $reduced));
                    $without = min($without, $value + max(0.0, -$reduced));
                }
                if ($with - $least > $room) {
                    unset($bids[$i][$s]);
                } elseif ($without - $least > $room && isset($bids[$i][$s])) {
                    $bids[$i] = [$s => $cost];
                }
            }
        }

        return in_array([], $bids, true) || in_array([], $options, true) ? null : [$options, $bids];
    }

    /**
     * The highest bound found for what is left open.
     *
     * @param array<int, list<int>>         $options tiers a supplier may still be used at, or CLOSED
     * @param array<int, array<int, float>> $bids    cost by line and supplier, of those still open
     * @param array<int, float>             $prices  to begin with, by line
     * @param float                         $known   a bound that holds already
     *
     * @return Node
     */
    private function relax(array $options, array $bids, array $prices, float $known, int $iterations): array
    {
        $columns = self::columns($bids);
        $best = [
            'bound' => -\INF,
            'prices' => $prices,
            'options' => $options,
            'bids' => $bids,
            'tierShares' => [],
            'lineShares' => [],
        ];
        $tierShares = array_map(static fn (array $open): array => array_fill_keys($open, 0.0), $options);
        $lineShares = [];
        $counted = 0;
        $pace = 1.0;
        $since = 0;
        for ($k = 0; $k < $iterations; ++$k) {
            $bound = array_sum($prices);
            $cover = array_fill(0, count($prices), 0.0);
            $used = $most = [];
            $late = 2 * $k >= $iterations;
            $counted += $late ? 1 : 0;
            foreach ($options as $s => $open) {
                [$value, $taken, $tier] = $this->servings[$s]->cheapest($open, $columns[$s] ?? [], $prices);
                $bound += $value;
                if (self::CLOSED !== $tier) {
                    $used[$s] = true;
                }
                if ($late) {
                    ++$tierShares[$s][$tier];
                }
                foreach ($taken as $i => $part) {
                    $cover[$i] += $part;
                    if ($part > ($most[$i][1] ?? 0.0)) {
                        $most[$i] = [$s, $part];
                    }
                    if ($late) {
                        $lineShares[$i][$s] = ($lineShares[$i][$s] ?? 0.0) + $part;
                    }
                }
            }
            if (\INF === $bound) {
                $best['bound'] = \INF;

                return $best;
            }
            if ($bound > $best['bound'] + self::TINY) {
                $best['bound'] = $bound;
                $best['prices'] = $prices;
                $since = 0;
            } elseif (++$since >= self::PATIENCE) {
                $pace /= 2;
                $since = 0;
            }
            if ($bound >= $this->bestCost - self::ENOUGH) {
                break;
            }
            $square = 0.0;
            foreach ($cover as $part) {
                $square += (1 - $part) ** 2;
            }
            if ($square < self::TINY || 0 === ($k + 1) % self::LOOK_EVERY || $k + 1 === $iterations) {
                $this->consider($this->rounded($bids, $used, $most));
            }
            if ($square < self::TINY) {
                break;
            }
            // A line nobody takes must offer more, one that several take less.
            $step = ($pace * ($this->bestCost - $bound)) / $square;
            foreach ($cover as $i => $part) {
                $prices[$i] += $step * (1 - $part);
            }
        }
        if ($best['bound'] < $this->bestCost - self::ENOUGH) {
            $bound = array_sum($best['prices']);
            foreach ($options as $s => $open) {
                $bound += $this->servings[$s]->wholeLines($open, $columns[$s] ?? [], $best['prices']);
            }
            $best['bound'] = max($best['bound'], $bound);
        }
        $counted = max(1, $counted);
        $best['tierShares'] = array_map(
            static fn (array $shares): array => array_map(
                static fn (float $share): float => $share / $counted,
                $shares,
            ),
            $tierShares,
        );
        $best['lineShares'] = array_map(
            static fn (array $shares): array => array_map(
                static fn (float $share): float => $share / $counted,
                $shares,
            ),
            $lineShares,
        );
        $best['bound'] = max($known, $best['bound']);

        return $best;
    }

    /**
     * @param array<int, array<int, float>> $bids
     *
     * @return array<int, array<int, float>> cost by supplier and line
     */
    private static function columns(array $bids): array
    {
        $columns = [];
        foreach ($bids as $i => $lineBids) {
            foreach ($lineBids as $s => $cost) {
                $columns[$s][$i] = $cost;
            }
        }

        return $columns;
    }

    /**
     * An award: whoever takes most of a line gets it; what nobody takes goes to the cheapest of the suppliers used.
     *
     * @param array<int, array<int, float>>      $bids
     * @param array<int, true>                   $used suppliers
     * @param array<int, array{int, float}> $most supplier and share by line
     *
     * @return list<int> supplier by line
     */
    private function rounded(array $bids, array $used, array $most): array
    {
        $chosen = [];
        foreach ($bids as $i => $lineBids) {
            $among = array_intersect_key($lineBids, $used) ?: $lineBids;
            asort($among);
            $chosen[] = $most[$i][0] ?? (int) array_key_first($among);
        }

        return $chosen;
    }

    /**
     * Improves an award as far as single lines can, and remembers it if it costs less than the best so far.
     *
     * @param list<int> $chosen
     */
    private function consider(array $chosen): void
    {
        $key = implode(',', $chosen);
        if (isset($this->considered[$key])) {
            return;
        }
        $this->considered[$key] = true;
        $cost = $this->costOf($chosen);
        if ($cost > self::PROMISING * $this->bestCost) {
            return;
        }
        [$better, $cost] = $this->improved($chosen, $cost);
        if ($cost < $this->bestCost - self::TINY) {
            [$this->best, $this->bestCost] = [$better, $cost];
        }
    }

    /**
     * Moves single lines, and where that does no more good and the award is nearly the best, changes two for each
     * other,
     * for as long as it makes it cheaper.
     *
     * @param array<int, int> $chosen
     *
     * @return array{array<int, int>, float}
     */
    private function improved(array $chosen, float $cost): array
    {
        $sums = $this->sums($chosen);
        do {
            $moved = $this->moveOne($chosen, $sums);
            if (!$moved) {
                $cost = min($cost, $this->costOf($chosen));
                $moved = $cost < self::NEARLY * $this->bestCost && $this->changeTwo($chosen, $sums);
            }
        } while ($moved);

        return [$chosen, $cost];
    }

    /**
     * @param array<int, int>                        $chosen
     * @param array<int, array{float, float, float}> $sums
     */
    private function moveOne(array &$chosen, array &$sums): bool
    {
        $moved = false;
        foreach ($this->costs as $i => $costs) {
            $here = $chosen[$i];
            $less = self::minus($sums[$here], $this->uses[$i][$here]);
            $best = $costs[$here] + $this->orderCost($here, $sums[$here]) - $this->orderCost($here, $less) - self::TINY;
            $to = null;
            foreach ($costs as $s => $there) {
                if ($s === $here) {
                    continue;
                }
                $before = $sums[$s] ?? [0.0, 0.0, 0.0];
                $added =
                    $there +
                    $this->orderCost($s, self::plus($before, $this->uses[$i][$s])) -
                    $this->orderCost($s, $before);
                if ($added < $best) {
                    [$best, $to] = [$added, $s];
                }
            }
            if (null !== $to) {
                $sums[$here] = $less;
                $sums[$to] = self::plus($sums[$to] ?? [0.0, 0.0, 0.0], $this->uses[$i][$to]);
                $chosen[$i] = $to;
                $moved = true;
            }
        }

        return $moved;
    }

    /**
     * @param array<int, int>                        $chosen
     * @param array<int, array{float, float, float}> $sums
     */
    private function changeTwo(array &$chosen, array &$sums): bool
    {
        $count = count($chosen);
        // What an order could save at most, by being at its cheapest tier.
        $hope = [];
        foreach ($sums as $s => $sum) {
            $hope[$s] = max(0.0, $this->orderCost($s, $sum) - min([\INF, ...array_column($this->tiers[$s], 'cost')]));
        }
        for ($i = 0; $i < $count; ++$i) {
            for ($j = $i + 1; $j < $count; ++$j) {
                [$a, $b] = [$chosen[$i], $chosen[$j]];
                if ($a === $b || !isset($this->costs[$i][$b], $this->costs[$j][$a])) {
                    continue;
                }
                $change = $this->costs[$i][$b] + $this->costs[$j][$a] - $this->costs[$i][$a] - $this->costs[$j][$b];
                if ($change >= $hope[$a] + $hope[$b]) {
                    continue;
                }
                $atA = self::plus(self::minus($sums[$a], $this->uses[$i][$a]), $this->uses[$j][$a]);
                $atB = self::plus(self::minus($sums[$b], $this->uses[$j][$b]), $this->uses[$i][$b]);
                $change +=
                    $this->orderCost($a, $atA) +
                    $this->orderCost($b, $atB) -
                    $this->orderCost($a, $sums[$a]) -
                    $this->orderCost($b, $sums[$b]);
                if ($change < -self::TINY) {
                    [$chosen[$i], $chosen[$j]] = [$b, $a];
                    [$sums[$a], $sums[$b]] = [$atA, $atB];

                    return true;
                }
            }
        }

        return false;
    }

    /** The cheapest supplier of each line, among all and among the subsets of them. */
    private function firstAwards(): void
    {
        $count = count($this->supplierNames);
        $subsets = $count <= self::SUBSETS ? range((1 << $count) - 1, 1) : [(1 << min(60, $count)) - 1];
        $tried = [];
        foreach ($subsets as $subset) {
            $chosen = [];
            foreach ($this->costs as $i => $costs) {
                $least = \INF;
                $who = null;
                foreach ($costs as $s => $cost) {
                    $cost += $this->slopes[$s] * $this->uses[$i][$s][0];
                    if ((($subset >> $s) & 1) === 1 && $cost < $least) {
                        [$least, $who] = [$cost, $s];
                    }
                }
                if (null === $who) {
                    // Nobody of these offers it: whoever does so most cheaply.
                    asort($costs);
                    $who = (int) array_key_first($costs);
                }
                $chosen[] = $who;
            }
            $tried[] = [$this->costOf($chosen), $chosen];
        }
        usort($tried, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        foreach (array_slice($tried, 0, 12) as [$cost, $chosen]) {
            [$better, $least] = $this->improved($chosen, $cost);
            if ($least < $this->bestCost) {
                [$this->best, $this->bestCost] = [$better, $least];
            }
        }
    }

    /** @param array<int, int> $chosen */
    private function costOf(array $chosen): float
    {
        $cost = 0.0;
        foreach ($chosen as $i => $s) {
            $cost += $this->costs[$i][$s];
        }
        foreach ($this->sums($chosen) as $s => $sums) {
            $cost += $this->orderCost($s, $sums);
        }

        return $cost;
    }

    /**
     * @param array<int, int> $chosen
     *
     * @return array<int, array{float, float, float}> value, kilograms, packs by supplier
     */
    private function sums(array $chosen): array
    {
        $sums = [];
        foreach ($chosen as $i => $s) {
            $use = $this->uses[$i][$s];
            $sum = $sums[$s] ?? [0.0, 0.0, 0.0];
            $sums[$s] = [$sum[0] + $use[0], $sum[1] + $use[1], $sum[2] + $use[2]];
        }

        return $sums;
    }

    /** @param array{float, float, float} $sums */
    private function orderCost(int $s, array $sums): float
    {
        if ($sums[0] <= self::TINY && $sums[1] <= self::TINY && $sums[2] <= self::TINY) {
            return 0.0;
        }
        foreach ($this->byCost[$s] as [$cost, $from, $upTo]) {
            foreach ($from as $r => $limit) {
                if ($sums[$r] < $limit - self::TINY) {
                    continue 2;
                }
            }
            foreach ($upTo as $r => $limit) {
                if ($sums[$r] > $limit + self::TINY) {
                    continue 2;
                }
            }

            return $cost;
        }

        return \INF;
    }

    /**
     * Freight tiers with the minimums and the capacity as limits, then the same without those at the penalty.
     *
     * @param array{float, float, float} $most
     *
     * @return list<Tier>
     */
    private function tiersOf(Bidder $bidder, array $most): array
    {
        $minimums = array_filter(
            [$bidder->minimum->value, $bidder->minimum->kilograms, $bidder->minimum->packs],
            static fn (?float $least): bool => null !== $least,
        );
        $proper = $missed = [];
        foreach ($bidder->freight->tiers($most[1]) as $tier) {
            $cost = $bidder->orderCost + $tier['cost'] * $bidder->homeForOne * $bidder->freightFactor;
            $from = null === $tier['valueFrom'] ? [] : [0 => $tier['valueFrom']];
            $upTo = null === $tier['kgUpTo'] ? [] : [1 => $tier['kgUpTo']];
            $strict = $from;
            foreach ($minimums as $r => $least) {
                $strict[$r] = max($strict[$r] ?? 0.0, $least);
            }
            $capped = null === $bidder->capacity ? $upTo : [0 => $bidder->capacity] + $upTo;
            $reachable =
                [] ===
                array_filter(
                    $strict,
                    static fn (float $limit, int $r): bool => $limit > $most[$r] + self::TINY,
                    \ARRAY_FILTER_USE_BOTH,
                );
            if ($reachable) {
                $proper[] = ['cost' => $cost, 'from' => $strict, 'upTo' => $capped];
            }
            if ([] !== $minimums || null !== $bidder->capacity) {
                $missed[] = ['cost' => $cost + $this->penalty, 'from' => $from, 'upTo' => $upTo];
            }
        }
        $missed = array_values(
            array_filter($missed, static fn (array $tier): bool => ($tier['from'][0] ?? 0.0) <= $most[0] + self::TINY),
        );

        return [...$proper, ...$missed];
    }

    /**
     * @param array<int, array<int, float>> $costs
     *
     * @return array<int, array<int, float>>
     */
    private function without(array $costs, int $supplier): array
    {
        foreach ($costs as $i => $one) {
            unset($one[$supplier]);
            $costs[$i] = $one;
        }

        return $costs;
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function plus(array $a, array $b): array
    {
        return [$a[0] + $b[0], $a[1] + $b[1], $a[2] + $b[2]];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }
}
