<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;

/** Several suppliers' offers for one item side by side, all by the same sum. */
final readonly class Comparison
{
    private const CURVE_POINTS = 48;
    /** A split has to save this share of the order to be worth the second order (common practice, no source). */
    private const WORTH_SPLITTING = 0.005;

    /**
     * @param list<array{OfferTerms, Seller, Alongside}> $bids
     */
    public function __construct(
        private array $bids,
        private Usage $usage,
        private CostRates $rates,
        private \DateTimeImmutable $today,
    ) {
    }

    /**
     * The landed cost from each, cheapest unit first; those that do not reach a supplier's minimum come last.
     *
     * @return list<LandedCost>
     */
    public function at(BigNumber|int|string $stockUnits): array
    {
        $costs = array_map(fn (array $bid): LandedCost => $this->cost($bid, $stockUnits), $this->bids);
        usort(
            $costs,
            static fn (LandedCost $a, LandedCost $b): int => [null !== $a->short, $a->unit(), $a->offer->id] <=> [
                null !== $b->short,
                $b->unit(),
                $b->offer->id,
            ],
        );

        return $costs;
    }

    /**
     * Cost of one stock unit over how many are ordered: by offer, unbroken stretches between the quantities at which a
     * price begins.
     *
     * @return array<int, list<list<array{float, float}>>> by offer id; pairs of stock units and cost
     */
    public function curves(float $from, float $to): array
    {
        $curves = [];
        foreach ($this->bids as $bid) {
            $offer = $bid[0];
            $content = $offer->rule->pack->content->toFloat();
            $least = $offer->rule->pack->toStockUnits($offer->rule->packsFor(1))->toFloat();
            $begin = max($from, $least);
            $starts = [$begin];
            foreach ($offer->prices->byPacks() as $step) {
                $start = $step['from']->toFloat() * $content;
                if ($start > $begin) {
                    $starts[] = $start;
                }
            }
            foreach ($starts as $i => $start) {
                if ($i > 0 && $start > $to) {
                    break;
                }
                $next = $starts[$i + 1] ?? INF;
                $stretch = [];
                $bought = 0.0;
                foreach (self::between($start, min($next, $to), $next <= $to ? $content : 0.0) as $units) {
                    // Many of them come to the same packs.
                    if ($units <= $bought) {
                        continue;
                    }
                    $packs = $offer->rule->packsFor((string) $units);
                    $bought = $offer->rule->pack->toStockUnits($packs)->toFloat();
                    if ($bought < $next) {
                        $stretch[] = [$bought, $this->costOf($bid, $packs)->unit()];
                    }
                }
                if ([] !== $stretch) {
                    $curves[$offer->id][] = $stretch;
                }
            }
        }

        return $curves;
    }

    /**
     * Two orders in place of one, where that costs less than the cheapest single one: the first takes one of its price
     * breaks or its minimum, the second the rest.
     *
     * @return array{LandedCost, LandedCost, float}|null both parts, and what they save
     */
    public function split(BigNumber|int|string $stockUnits): ?array
    {
        $need = BigDecimal::of($stockUnits);
        $single = $this->at($need)[0] ?? null;
        if (null === $single || null !== $single->short) {
            return null;
        }
        $best = null;
        foreach ($this->bids as $i => $first) {
            foreach ($this->quantitiesBelow($first[0], $need) as $units) {
                $part = $this->cost($first, $units);
                $left = $need->minus((string) $part->units);
                if (null !== $part->short || !$left->isPositive()) {
                    continue;
                }
                foreach ($this->bids as $j => $second) {
                    if ($i === $j || $first[1]->id === $second[1]->id) {
                        continue;
                    }
                    $rest = $this->cost($second, $left);
                    $saved = $single->total() - $part->total() - $rest->total();
                    if (
                        null === $rest->short
                        && $saved > self::WORTH_SPLITTING * $single->total()
                        && $saved > ($best[2] ?? 0.0)
                    ) {
                        $best = [$part, $rest, $saved];
                    }
                }
            }
        }

        return $best;
    }

    /** @param array{OfferTerms, Seller, Alongside} $bid */
    private function cost(array $bid, BigNumber|int|string $stockUnits): LandedCost
    {
        return $this->costOf($bid, $bid[0]->rule->packsFor($stockUnits));
    }

    /** @param array{OfferTerms, Seller, Alongside} $bid */
    private function costOf(array $bid, BigDecimal $packs): LandedCost
    {
        return LandedCost::ofPacks($bid[0], $bid[1], $packs, $this->usage, $this->rates, $this->today, $bid[2]);
    }

    /** @return list<BigDecimal> stock units at which an offer's prices begin, and its smallest order, below the need */
    private function quantitiesBelow(OfferTerms $offer, BigDecimal $need): array
    {
        $pack = $offer->rule->pack;
        $quantities = [$pack->toStockUnits($offer->rule->packsFor(1))];
        foreach ($offer->prices->byPacks() as $step) {
            $quantities[] = $pack->toStockUnits($step['from']->toScale(0, RoundingMode::Up));
        }

        return array_values(
            array_filter(
                $quantities,
                static fn (BigDecimal $units): bool => $units->isPositive() && $units->isLessThan($need),
            ),
        );
    }

    /**
     * @return list<float> evenly spread on a logarithmic scale, the last one pack short of where the next price begins
     */
    private static function between(float $start, float $end, float $short): array
    {
        $end = max($start, $end - $short);
        if ($start <= 0 || $end <= $start) {
            return [$start];
        }
        $points = max(3, (int) round((self::CURVE_POINTS * log($end / $start)) / log(100)));

        return array_map(
            static fn (int $i): float => round($start * ($end / $start) ** ($i / ($points - 1)), 3),
            range(0, $points - 1),
        );
    }
}
