<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\RoundingMode;

/**
 * Before buying: which site should let another have some of its stock. A unit is worth at the site that needs it what
 * would be lost there until a purchase arrives; it is missed where it comes from as likely as demand reaches it before
 * that site's own next order could be here, less what keeping it so long would cost. The ways cost, too. What is best
 * over all sites is a transport problem.
 */
final readonly class SurplusFirst
{
    private const PIECES = 6;
    /** Stock that nobody asks for is taken to lie a year. */
    private const LONGEST_LYING = 365.0;

    /** @param array<int, PlaceOutcome> $outcomes by site */
    private function __construct(private array $outcomes, private Background $background)
    {
    }

    /**
     * @param non-empty-list<PlaceOutcome> $outcomes all sites of one item
     *
     * @return array<int, list<Move>> by the site that takes
     */
    public static function among(array $outcomes, Background $background): array
    {
        $bySite = [];
        foreach ($outcomes as $outcome) {
            $bySite[$outcome->place->site] = $outcome;
        }

        return (new self($bySite, $background))->moves();
    }

    /** @return array<int, list<Move>> */
    private function moves(): array
    {
        $takers = array_filter($this->outcomes, static fn (PlaceOutcome $one): bool => $one->takes());
        $givers = array_filter($this->outcomes, static fn (PlaceOutcome $one): bool => $one->mayGive() >= 1);
        if ([] === $takers || [] === $givers) {
            return [];
        }
        $ways = [];
        foreach ($givers as $from => $ignored) {
            foreach ($takers as $to => $alsoIgnored) {
                $way = $from === $to ? null : $this->background->ways->between($from, $to);
                if (null !== $way) {
                    $ways[$from][$to] = [$way->cost, 0.0];
                }
            }
        }
        $gives = array_map($this->given(...), $givers);
        $takes = [];
        foreach ($takers as $site => $outcome) {
            $takes[$site] = $this->taken($outcome, array_keys($givers));
        }
        $sent = Transport::best($gives, $takes, $ways);
        $arrives = [];
        foreach ($sent as $to) {
            foreach ($to as $site => $units) {
                $arrives[$site] = ($arrives[$site] ?? 0.0) + $units;
            }
        }
        $moves = [];
        foreach ($sent as $from => $to) {
            $missed = self::along($gives[$from], array_sum($to)) / array_sum($to);
            foreach ($to as $site => $units) {
                $worth = self::along($takes[$site], $arrives[$site]) / $arrives[$site];
                $saves = min($worth, $takers[$site]->margin());
                $moves[$site][] = new Move($from, $units, $units * $saves, $units * $missed);
            }
        }

        return $moves;
    }

    /**
     * What each unit more is missed where it comes from: its margin as likely as demand reaches it before the site's
     * own next order could be here, less what it costs to keep it until demand would have reached it.
     *
     * @return list<array{float, float}> pieces, each unit's cost, rising
     */
    private function given(PlaceOutcome $outcome): array
    {
        $most = $outcome->mayGive();
        $days = $outcome->daysToNextDelivery();
        $stock = $outcome->freeWithin($days);
        $demand = $outcome->forecast()->distribution($days, $outcome->sourced->leadTime->spread);
        $perDay = $outcome->forecast()->perDay();
        $keeping = $outcome->takes()
            ? 0.0
            : $outcome->place->item->worth->unitCost * $this->background->holdingShare / 365;
        $size = max(1.0, ceil($most / self::PIECES));
        $pieces = [];
        $last = -INF;
        for ($from = 0.0; $from < $most; $from += $size) {
            $units = min($size, $most - $from);
            $short = $demand->loss($stock - $from - $units) - $demand->loss($stock - $from);
            $deep = $stock - $from - $units / 2;
            $lies = $perDay > 0 ? min(self::LONGEST_LYING, $deep / $perDay) : self::LONGEST_LYING;
            $last = max($last, $outcome->margin() * $short / $units - $keeping * max(0.0, $lies - $days));
            $pieces[] = [$units, $last];
        }

        return $pieces;
    }

    /**
     * What each unit more is worth where it is needed: its margin as likely as it is asked for between its coming from
     * another site and from the supplier. For a waiting customer the way always pays.
     *
     * @param list<int> $from the sites it could come from
     *
     * @return list<array{float, float}> pieces, each unit's worth, falling
     */
    private function taken(PlaceOutcome $outcome, array $from): array
    {
        $most = (float) $outcome->proposal->needed->toScale(0, RoundingMode::Up)->toInt();
        $quickest = INF;
        $dearest = 0.0;
        foreach ($from as $site) {
            $way = $this->background->ways->between($site, $outcome->place->site);
            $quickest = min($quickest, $way->days ?? INF);
            $dearest = max($dearest, $way->cost ?? 0.0);
        }
        $lead = $outcome->sourced->leadTime->days;
        $stock = max(0.0, $outcome->freeWithin($lead) - $outcome->forecast()->over(min($lead, $quickest)));
        $demand = $outcome->forecast()->distribution(max(0.0, $lead - $quickest), $outcome->sourced->leadTime->spread);
        $waiting = min($most, $outcome->waiting());
        $pieces = $waiting > 0 ? [[$waiting, $outcome->margin() + 1.01 * $dearest / $waiting]] : [];
        $size = max(1.0, ceil(($most - $waiting) / self::PIECES));
        $last = $outcome->margin();
        for ($at = $waiting; $at < $most; $at += $size) {
            $units = min($size, $most - $at);
            $base = $stock + $at - $waiting;
            $last = min($last, $outcome->margin() * ($demand->loss($base) - $demand->loss($base + $units)) / $units);
            $pieces[] = [$units, $last];
        }

        return $pieces;
    }

    /** @param list<array{float, float}> $pieces */
    private static function along(array $pieces, float $units): float
    {
        $sum = 0.0;
        foreach ($pieces as [$size, $each]) {
            $sum += min($size, $units) * $each;
            $units = max(0.0, $units - $size);
        }

        return $sum;
    }
}
