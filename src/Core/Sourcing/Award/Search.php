<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

/**
 * Finds the cheapest award of a basket and proves it, by branch and bound.
 *
 * A partial award says for some suppliers how they are used: not at all, or at one tier of their freight, which comes with
 * limits on what they get. Its bound relaxes those limits with Lagrange multipliers, after which each line takes its own
 * cheapest supplier; suppliers not yet decided count with the lowest order cost a unit of value can have. Source of the
 * relaxation: Geoffrion, "Lagrangean relaxation for integer programming", Mathematical Programming Study 2, 1974; of
 * the multipliers' steps: Held, Wolfe & Crowder, "Validation of subgradient optimization", Mathematical Programming 6,
 * 1974.
 *
 * @phpstan-type Tier array{cost: float, from: array<int, float>, upTo: array<int, float>}
 * @phpstan-type Node array{bound: float, tiers: array<int, int>, costs: array<int, array<int, float>>, from: array<int, array<int, float>>, upTo: array<int, array<int, float>>, chosen: array<int, int>, reduced: list<array<int, float>>}
 */
final class Search
{
    private const UNDECIDED = -2;
    private const CLOSED = -1;
    private const ITERATIONS = 24;
    private const FIRST_ITERATIONS = 120;
    /** Subsets of suppliers tried for a first award: up to two to the power of this. */
    private const SUBSETS = 9;
    private const TINY = 1e-7;
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
    /** @var array<int, list<Tier>> by supplier */
    private array $tiers = [];
    /** @var array<int, float> least order cost of one of value, by supplier */
    private array $slopes = [];
    /** @var array<int, int> supplier by line, of the best award so far */
    private array $best = [];
    private float $bestCost = \INF;

    /**
     * @param array<int|string, non-empty-array<int|string, Bid>> $lines
     * @param array<int|string, Bidder>                       $suppliers
     */
    public function __construct(array $lines, array $suppliers, private readonly float $penalty)
    {
        $this->lineNames = array_map(strval(...), array_keys($lines));
        $this->supplierNames = array_map(strval(...), array_keys($suppliers));
        /** @var array<int|string, int> $at */
        $at = array_flip($this->supplierNames);
        foreach (array_values($lines) as $bids) {
            $costs = $uses = [];
            foreach ($bids as $supplier => $bid) {
                $costs[$at[$supplier]] = $bid->cost;
                $uses[$at[$supplier]] = [$bid->value, $bid->kilograms, $bid->packs];
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
            $this->slopes[$s] = $most[0] > 0 ? min([\INF, ...array_column($this->tiers[$s], 'cost')]) / $most[0] : 0.0;
        }
    }

    /** @return array{array<int|string, string>, float, int} supplier by line, the most a better award could save, partial awards looked at */
    public function run(int $steps): array
    {
        if ([] === $this->lineNames) {
            return [[], 0.0, 0];
        }
        $this->firstAwards();
        /** @var \SplPriorityQueue<float, Node> $queue */
        $queue = new \SplPriorityQueue();
        $root = $this->relax(array_fill(0, count($this->supplierNames), self::UNDECIDED), $this->costs, [], [], -\INF, self::FIRST_ITERATIONS);
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

    /**
     * Splits what a node leaves open.
     *
     * @param Node $node
     *
     * @return list<Node>
     */
    private function children(array $node): array
    {
        $chosen = $node['chosen'];
        $sums = $this->sums($chosen);
        // The undecided supplier whose order cost the relaxation understates most is decided next.
        $widest = 0.0;
        $next = null;
        foreach ($node['tiers'] as $s => $tier) {
            if (self::UNDECIDED === $tier && isset($sums[$s])) {
                $understated = $this->orderCost($s, $sums[$s]) - $this->slopes[$s] * $sums[$s][0];
                if ($understated > $widest + self::TINY) {
                    [$widest, $next] = [$understated, $s];
                }
            }
        }
        $costs = $this->worthwhile($node);
        $parts = [];
        if (null !== $next) {
            foreach ([self::CLOSED, ...array_keys($this->tiers[$next])] as $tier) {
                $tiers = $node['tiers'];
                $tiers[$next] = $tier;
                $parts[] = [$tiers, self::CLOSED === $tier ? $this->without($costs, $next) : $costs];
            }
        } else {
            $line = $this->doubtful($node, $costs, $sums);
            if (null === $line) {
                return [];
            }
            $kept = $left = $costs;
            $kept[$line] = [$chosen[$line] => $costs[$line][$chosen[$line]]];
            unset($left[$line][$chosen[$line]]);
            $parts = [[$node['tiers'], $kept], [$node['tiers'], $left]];
        }
        $children = [];
        foreach ($parts as [$tiers, $partCosts]) {
            if ($this->isPossible($partCosts)) {
                $children[] = $this->relax($tiers, $partCosts, $node['from'], $node['upTo'], $node['bound'], self::ITERATIONS);
            }
        }

        return $children;
    }

    /**
     * Without the suppliers of lines that would cost more than the best award, whatever the rest does.
     *
     * @param Node $node
     *
     * @return array<int, array<int, float>>
     */
    private function worthwhile(array $node): array
    {
        $room = $this->bestCost - $node['bound'];
        $costs = $node['costs'];
        foreach ($node['reduced'] as $i => $reduced) {
            $least = $reduced[$node['chosen'][$i]];
            foreach ($reduced as $s => $cost) {
                if ($cost - $least > $room + self::TINY) {
                    unset($costs[$i][$s]);
                }
            }
        }

        return $costs;
    }

    /**
     * @param array<int, int>               $tiers      by supplier
     * @param array<int, array<int, float>> $lineCosts  by line and supplier
     * @param array<int, array<int, float>> $from       multipliers to start with, by supplier and resource
     * @param array<int, array<int, float>> $upTo
     * @param float                         $known      a bound that holds already
     *
     * @return Node
     */
    private function relax(array $tiers, array $lineCosts, array $from, array $upTo, float $known, int $iterations): array
    {
        $limits = [];
        $constant = 0.0;
        foreach ($tiers as $s => $tier) {
            if ($tier >= 0) {
                $limits[$s] = $this->tiers[$s][$tier];
                $constant += $limits[$s]['cost'];
            }
        }
        $best = ['bound' => -\INF, 'tiers' => $tiers, 'costs' => $lineCosts, 'from' => $from, 'upTo' => $upTo, 'chosen' => [], 'reduced' => []];
        $pace = 1.0;
        $since = 0;
        for ($k = 0; $k < $iterations; ++$k) {
            $bound = $constant;
            $weights = [];
            foreach ($tiers as $s => $tier) {
                $weights[$s] = [self::UNDECIDED === $tier ? $this->slopes[$s] : 0.0, 0.0, 0.0];
                foreach ($limits[$s]['from'] ?? [] as $r => $limit) {
                    $weights[$s][$r] -= $from[$s][$r] ?? 0.0;
                    $bound += ($from[$s][$r] ?? 0.0) * $limit;
                }
                foreach ($limits[$s]['upTo'] ?? [] as $r => $limit) {
                    $weights[$s][$r] += $upTo[$s][$r] ?? 0.0;
                    $bound -= ($upTo[$s][$r] ?? 0.0) * $limit;
                }
            }
            $chosen = $reducedAll = [];
            foreach ($lineCosts as $i => $costs) {
                $least = \INF;
                $who = 0;
                $reduced = [];
                $uses = $this->uses[$i];
                foreach ($costs as $s => $cost) {
                    [$byValue, $byWeight, $byPack] = $weights[$s];
                    $use = $uses[$s];
                    $cost += $byValue * $use[0] + $byWeight * $use[1] + $byPack * $use[2];
                    $reduced[$s] = $cost;
                    if ($cost < $least) {
                        $least = $cost;
                        $who = $s;
                    }
                }
                $bound += $least;
                $chosen[] = $who;
                $reducedAll[] = $reduced;
            }
            $this->consider($chosen);
            if ($bound > $best['bound'] + self::TINY) {
                $best = ['bound' => $bound, 'tiers' => $tiers, 'costs' => $lineCosts, 'from' => $from, 'upTo' => $upTo, 'chosen' => $chosen, 'reduced' => $reducedAll];
                $since = 0;
            } elseif (++$since >= 5) {
                $pace /= 2;
                $since = 0;
            }
            if ($bound >= $this->bestCost - self::ENOUGH || [] === $limits) {
                break;
            }
            // Multipliers move towards the limits that are missed.
            $sums = $this->sums($chosen);
            $moves = [];
            $square = 0.0;
            foreach ($limits as $s => $tier) {
                foreach ($tier['from'] as $r => $limit) {
                    $miss = $limit - ($sums[$s][$r] ?? 0.0);
                    if ($miss > 0 || ($from[$s][$r] ?? 0.0) > 0) {
                        $moves[] = [$s, $r, $miss, true];
                        $square += $miss * $miss;
                    }
                }
                foreach ($tier['upTo'] as $r => $limit) {
                    $miss = ($sums[$s][$r] ?? 0.0) - $limit;
                    if ($miss > 0 || ($upTo[$s][$r] ?? 0.0) > 0) {
                        $moves[] = [$s, $r, $miss, false];
                        $square += $miss * $miss;
                    }
                }
            }
            if ($square < self::TINY) {
                break;
            }
            $step = $pace * max(self::TINY, min($this->bestCost, $bound + 0.05 * abs($bound) + 1) - $bound) / $square;
            foreach ($moves as [$s, $r, $miss, $lower]) {
                if ($lower) {
                    $from[$s][$r] = max(0.0, ($from[$s][$r] ?? 0.0) + $step * $miss);
                } else {
                    $upTo[$s][$r] = max(0.0, ($upTo[$s][$r] ?? 0.0) + $step * $miss);
                }
            }
        }
        $best['bound'] = max($known, $best['bound']);

        return $best;
    }

    /**
     * The line to decide on: of a supplier that misses a limit, or meets one only at a price, the one that could most
     * nearly go elsewhere. Null where the relaxation is exact.
     *
     * @param Node                                   $node
     * @param array<int, array<int, float>>          $costs what is still worthwhile
     * @param array<int, array{float, float, float}> $sums
     */
    private function doubtful(array $node, array $costs, array $sums): ?int
    {
        $allowed = true;
        foreach ($node['tiers'] as $s => $tier) {
            $allowed = $allowed && ($tier < 0 || self::keeps($this->tiers[$s][$tier], $sums[$s] ?? [0.0, 0.0, 0.0]));
        }
        if ($allowed && $this->costOf($node['chosen']) <= $node['bound'] + self::TINY) {
            return null;
        }
        $closest = \INF;
        $line = null;
        foreach ($node['chosen'] as $i => $s) {
            $others = array_intersect_key($node['reduced'][$i], $costs[$i]);
            unset($others[$s]);
            $regret = [] === $others ? \INF : min($others) - $node['reduced'][$i][$s];
            if ($regret < $closest) {
                $closest = $regret;
                $line = $i;
            }
        }

        return $line;
    }

    /**
     * Remembers an award that costs less than the best so far.
     *
     * @param array<int, int> $chosen
     */
    private function consider(array $chosen): void
    {
        $cost = $this->costOf($chosen);
        if ($cost < $this->bestCost - self::TINY) {
            [$this->best, $this->bestCost] = $this->improved($chosen, $cost);
        }
    }

    /**
     * Moves single lines for as long as that makes it cheaper.
     *
     * @param array<int, int> $chosen
     *
     * @return array{array<int, int>, float}
     */
    private function improved(array $chosen, float $cost): array
    {
        do {
            $moved = false;
            $sums = $this->sums($chosen);
            foreach ($this->costs as $i => $costs) {
                $here = $chosen[$i];
                $less = self::minus($sums[$here], $this->uses[$i][$here]);
                $saved = $costs[$here] + $this->orderCost($here, $sums[$here]) - $this->orderCost($here, $less);
                $best = $saved - self::TINY;
                $to = null;
                foreach ($costs as $s => $there) {
                    if ($s === $here) {
                        continue;
                    }
                    $before = $sums[$s] ?? [0.0, 0.0, 0.0];
                    $added = $there + $this->orderCost($s, self::plus($before, $this->uses[$i][$s])) - $this->orderCost($s, $before);
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
        } while ($moved);

        return [$chosen, min($cost, $this->costOf($chosen))];
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
                    if (($subset >> $s & 1) === 1 && $cost < $least) {
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
        $least = \INF;
        foreach ($this->tiers[$s] as $tier) {
            if ($tier['cost'] < $least && self::keeps($tier, $sums)) {
                $least = $tier['cost'];
            }
        }

        return $least;
    }

    /**
     * @param Tier                       $tier
     * @param array{float, float, float} $sums
     */
    private static function keeps(array $tier, array $sums): bool
    {
        foreach ($tier['from'] as $r => $limit) {
            if ($sums[$r] < $limit - self::TINY) {
                return false;
            }
        }
        foreach ($tier['upTo'] as $r => $limit) {
            if ($sums[$r] > $limit + self::TINY) {
                return false;
            }
        }

        return true;
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
        $minimums = array_filter([$bidder->minimum->value, $bidder->minimum->kilograms, $bidder->minimum->packs], static fn (?float $least): bool => null !== $least);
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
            $reachable = [] === array_filter($strict, static fn (float $limit, int $r): bool => $limit > $most[$r] + self::TINY, \ARRAY_FILTER_USE_BOTH);
            if ($reachable) {
                $proper[] = ['cost' => $cost, 'from' => $strict, 'upTo' => $capped];
            }
            if ([] !== $minimums || null !== $bidder->capacity) {
                $missed[] = ['cost' => $cost + $this->penalty, 'from' => $from, 'upTo' => $upTo];
            }
        }
        $missed = array_values(array_filter($missed, static fn (array $tier): bool => ($tier['from'][0] ?? 0.0) <= $most[0] + self::TINY));

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

    /** @param array<int, array<int, float>> $costs */
    private function isPossible(array $costs): bool
    {
        return !in_array([], $costs, true);
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
