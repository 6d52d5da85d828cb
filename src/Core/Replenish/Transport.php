<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\InvalidValue;

/**
 * Stock units carried from sites that can give to sites that need, so that what they are worth there, less what they
 * are missed here and what the ways cost, is the most it can be. Each unit given is missed more than the one before,
 * each unit taken is worth less; a way costs once when it is used, and for each unit.
 *
 * Source: the transportation problem (Hitchcock, Journal of Mathematics and Physics 20, 1941) by successive cheapest
 * augmenting paths (Ahuja, Magnanti & Orlin, "Network Flows", 1993, chapters 9 and 14); what is paid once is decided by
 * branch and bound, in which a way still open to choice pays its share of that for each unit (Balinski, Naval Research
 * Logistics Quarterly 8, 1961).
 */
final class Transport
{
    /** After so many choices looked at the best found so far is taken. */
    private const MOST_NODES = 4000;
    private const NOTHING = 1e-9;

    /** @var array<int, array<int, float>> units from site to site */
    private array $best = [];
    private float $bestGain = 0.0;
    private int $nodes = 0;

    /**
     * @param array<int, list<array{float, float}>>        $gives by site: pieces of stock units, and what each unit of
     *      them costs where it is taken from; rising
     * @param array<int, list<array{float, float}>>        $takes by site: pieces, and what each unit is worth; falling
     * @param array<int, array<int, array{float, float}>>  $ways  from site to site: what it costs once, and for each
     *      unit; 0 or more. None where there is no way
     */
    private function __construct(
        private readonly array $gives,
        private readonly array $takes,
        private readonly array $ways,
    ) {
        foreach ([[$gives, 1], [$takes, -1]] as [$sites, $rising]) {
            foreach ($sites as $site => $pieces) {
                foreach ($pieces as $i => [$units, $each]) {
                    if ($units < 0 || ($i > 0 && $rising * ($each - $pieces[$i - 1][1]) < -self::NOTHING)) {
                        $what = 'Piece %d of site %d is out of order: %g units at %g.';
                        throw InvalidValue::because(sprintf($what, $i + 1, $site, $units, $each));
                    }
                }
            }
        }
    }

    /**
     * @param array<int, list<array{float, float}>>       $gives
     * @param array<int, list<array{float, float}>>       $takes
     * @param array<int, array<int, array{float, float}>> $ways
     *
     * @return array<int, array<int, float>> units from site to site; whole where the pieces are
     *
     * @throws InvalidValue if a piece is below zero or out of order
     */
    public static function best(array $gives, array $takes, array $ways): array
    {
        $transport = new self($gives, $takes, $ways);
        $transport->branch([], []);

        return $transport->best;
    }

    /**
     * All that is needed brought at the least cost.
     *
     * @param array<int, float>                           $spare  units by site
     * @param array<int, float>                           $needed units by site
     * @param array<int, array<int, array{float, float}>> $ways
     * @param array<int, string>                          $names  of the sites
     *
     * @return array<int, array<int, float>>
     *
     * @throws InvalidValue naming the site that cannot be brought what it needs
     */
    public static function cheapest(array $spare, array $needed, array $ways, array $names): array
    {
        $enough = 1.0;
        foreach ($ways as $to) {
            foreach ($to as [$once, $each]) {
                $enough += 1e3 * ($once + $each);
            }
        }
        $moved = self::best(
            array_map(static fn (float $units): array => [[$units, 0.0]], $spare),
            array_map(static fn (float $units): array => [[$units, $enough]], $needed),
            $ways,
        );
        foreach ($needed as $site => $units) {
            $comes = array_sum(array_column($moved, $site));
            if ($comes < $units - self::NOTHING) {
                throw InvalidValue::because(
                    [] === array_filter($ways, static fn (array $to): bool => isset($to[$site]))
                        ? sprintf('%s needs %g, and no way leads there.', $names[$site], $units)
                        : sprintf('%s needs %g; only %g can be brought there.', $names[$site], $units, $comes),
                );
            }
        }

        return $moved;
    }

    /**
     * @param array<string, true> $closed ways not to be used, by "from:to"
     * @param array<string, true> $paid   ways whose cost is decided on
     */
    private function branch(array $closed, array $paid): void
    {
        if (++$this->nodes > self::MOST_NODES) {
            return;
        }
        [$moved, $bound] = $this->flow($closed, $paid);
        $fixed = 0.0;
        foreach ($paid as $way => $ignored) {
            [$from, $to] = explode(':', $way);
            $fixed += $this->ways[(int) $from][(int) $to][0];
        }
        if ($bound - $fixed <= $this->bestGain + self::NOTHING) {
            return;
        }
        $gain = $bound - $fixed;
        $open = null;
        $most = 0.0;
        foreach ($moved as $from => $to) {
            foreach ($to as $site => $units) {
                $way = $from.':'.$site;
                if (!isset($paid[$way])) {
                    // What its share for each unit fell short of.
                    $short = $this->ways[$from][$site][0] - $units * $this->share($from, $site);
                    $gain -= $short;
                    if (null === $open || $short > $most) {
                        [$open, $most] = [$way, $short];
                    }
                }
            }
        }
        if ($gain > $this->bestGain + self::NOTHING) {
            [$this->best, $this->bestGain] = [$moved, $gain];
        }
        if (null !== $open && $most > self::NOTHING) {
            $this->branch($closed, $paid + [$open => true]);
            $this->branch($closed + [$open => true], $paid);
        }
    }

    /** What each unit bears of a way's cost where as much as possible goes along it. */
    private function share(int $from, int $to): float
    {
        $most = min(array_sum(array_column($this->gives[$from], 0)), array_sum(array_column($this->takes[$to], 0)));

        return $most > 0 ? $this->ways[$from][$to][0] / $most : 0.0;
    }

    /**
     * Without what is paid once.
     *
     * @param array<string, true> $closed
     * @param array<string, true> $paid
     *
     * @return array{array<int, array<int, float>>, float} units, and what is gained by them
     */
    private function flow(array $closed, array $paid): array
    {
        $costs = [];
        foreach ($this->gives as $from => $ignored) {
            foreach ($this->takes as $to => $alsoIgnored) {
                if ($from !== $to && isset($this->ways[$from][$to]) && !isset($closed[$from.':'.$to])) {
                    $costs[$from][$to] = $this->ways[$from][$to][1]
                        + (isset($paid[$from.':'.$to]) ? 0.0 : $this->share($from, $to));
                }
            }
        }
        /** @var array<string, array<int, list<array{float, float}>>> $left */
        $left = ['give' => $this->gives, 'take' => $this->takes];
        $moved = [];
        $gain = 0.0;
        while (null !== ($path = $this->path($left, $costs, $moved))) {
            [$stops, $worth] = $path;
            [$first, $last] = [$stops[0], $stops[count($stops) - 1]];
            $units = min($left['give'][$first][0][0], $left['take'][$last][0][0]);
            for ($i = 2, $end = count($stops) - 1; $i < $end; $i += 2) {
                // Back along a way: no more than was sent there.
                $units = min($units, $moved[$stops[$i]][$stops[$i - 1]]);
            }
            for ($i = 0, $end = count($stops) - 1; $i < $end; ++$i) {
                if (0 === $i % 2) {
                    $moved[$stops[$i]][$stops[$i + 1]] = ($moved[$stops[$i]][$stops[$i + 1]] ?? 0.0) + $units;
                } else {
                    $moved[$stops[$i + 1]][$stops[$i]] -= $units;
                }
            }
            foreach ([['give', $first], ['take', $last]] as [$side, $site]) {
                [$size, $each] = array_shift($left[$side][$site]) ?? [0.0, 0.0];
                if ($size - $units > self::NOTHING) {
                    array_unshift($left[$side][$site], [$size - $units, $each]);
                }
            }
            $gain += $units * $worth;
        }
        foreach ($moved as $from => $to) {
            $moved[$from] = array_filter($to, static fn (float $units): bool => $units > self::NOTHING);
        }

        return [array_filter($moved), $gain];
    }

    /**
     * The way to bring one more unit that gains most: from a giver to a taker, and perhaps back from that taker to
     * another giver's other taker, and so on.
     *
     * @param array<string, array<int, list<array{float, float}>>> $left
     * @param array<int, array<int, float>>                        $costs
     * @param array<int, array<int, float>>                        $moved
     *
     * @return array{non-empty-list<int>, float}|null sites by turns giver and taker, and what a unit gains
     */
    private function path(array $left, array $costs, array $moved): ?array
    {
        $giver = $taker = $cameFrom = $wentBack = [];
        foreach ($left['give'] as $site => $pieces) {
            if ([] !== $pieces && $pieces[0][0] > self::NOTHING) {
                $giver[$site] = $pieces[0][1];
            }
        }
        // Shortest paths by Bellman & Ford: there are few sites.
        for ($round = 0, $end = 2 * count($left['give']) + 2; $round < $end; ++$round) {
            $changed = false;
            foreach ($giver as $from => $so) {
                foreach ($costs[$from] ?? [] as $to => $cost) {
                    if ($so + $cost < ($taker[$to] ?? INF) - self::NOTHING) {
                        $taker[$to] = $so + $cost;
                        $cameFrom[$to] = $from;
                        $changed = true;
                    }
                }
            }
            foreach ($moved as $from => $sent) {
                foreach ($sent as $to => $units) {
                    if ($units > self::NOTHING && isset($taker[$to], $costs[$from][$to])) {
                        $so = $taker[$to] - $costs[$from][$to];
                        if ($so < ($giver[$from] ?? INF) - self::NOTHING) {
                            $giver[$from] = $so;
                            $wentBack[$from] = $to;
                            $changed = true;
                        }
                    }
                }
            }
            if (!$changed) {
                break;
            }
        }
        $best = null;
        $most = self::NOTHING;
        foreach ($taker as $to => $so) {
            $piece = $left['take'][$to][0] ?? null;
            if (null !== $piece && $piece[0] > self::NOTHING && $piece[1] - $so > $most) {
                [$best, $most] = [$to, $piece[1] - $so];
            }
        }
        if (null === $best) {
            return null;
        }
        $stops = [$best];
        for ($to = $best; null !== $to; $to = $next) {
            $from = $cameFrom[$to];
            $next = $wentBack[$from] ?? null;
            array_unshift($stops, $from);
            if (null !== $next) {
                array_unshift($stops, $next);
            }
        }

        return [$stops, $most];
    }
}
