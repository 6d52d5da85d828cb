<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing\Award;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/**
 * Puts a basket together from what suppliers ask for each line. Freight belongs to the order as a whole: a line is
 * counted without it, and what one of freight comes to with duty, exchange, terms and holding is the mean over the
 * supplier's lines.
 */
final class BasketDraft implements PartsOfLines
{
    /** @var array<int|string, array<int|string, Bid>> */
    private array $lines = [];
    /** @var array<int|string, array{Seller, float}> by supplier, with the home currency for one of theirs */
    private array $sellers = [];
    /** @var array<int|string, list<float>> */
    private array $factors = [];
    /** @var array<int|string, float> stock units by line */
    private array $units = [];
    /** @var array<int|string, array<int|string, array{OfferTerms, Usage}>> by line and supplier */
    private array $asked = [];

    /** @param float $orderCost of placing and receiving one more order, home currency */
    public function __construct(
        private readonly CostRates $rates,
        private readonly float $orderCost,
        private readonly \DateTimeImmutable $today,
    ) {
    }

    /** A line to be bought, also where nobody should offer it. */
    public function line(int|string $line): void
    {
        $this->lines[$line] ??= [];
    }

    /**
     * What a supplier asks for a line. Of several offers of one supplier the cheapest counts.
     *
     * @param BigDecimal $units stock units wanted
     *
     * @return LandedCost|null without freight; null where the supplier has a cheaper one for the line
     */
    public function ask(
        int|string $line,
        int|string $supplier,
        OfferTerms $offer,
        Seller $seller,
        BigDecimal $units,
        Usage $usage,
    ): ?LandedCost {
        $bare = $this->landed($offer, $seller->withFreight(FreightTariff::none()), $units, $usage);
        if (isset($this->lines[$line][$supplier]) && $this->lines[$line][$supplier]->cost <= $bare->total()) {
            return null;
        }
        $perHome = $offer->rate->foreignForOne->toFloat();
        $withFreight = $this->landed($offer, $seller->withFreight(FreightTariff::flat($perHome)), $units, $usage);
        $this->factors[$supplier][] = $withFreight->total() - $bare->total();
        $this->lines[$line][$supplier] = self::bid($offer, $bare);
        $this->sellers[$supplier] = [$seller, 1 / $perHome];
        $this->units[$line] = $units->toFloat();
        $this->asked[$line][$supplier] = [$offer, $usage];

        return $bare;
    }

    private function landed(OfferTerms $offer, Seller $seller, BigDecimal $units, Usage $usage): LandedCost
    {
        return LandedCost::of($offer, $seller, $units, $usage, $this->rates, $this->today, new Alongside());
    }

    private static function bid(OfferTerms $offer, LandedCost $bare): Bid
    {
        return new Bid(
            $bare->total(),
            $offer->prices->costOf($bare->packs)->toFloat(),
            $bare->units * $offer->kgPerUnit,
            $bare->packs->toFloat(),
        );
    }

    public function units(int|string $line): float
    {
        return $this->units[$line] ?? 0.0;
    }

    public function part(int|string $line, int|string $supplier, float $units): ?Bid
    {
        $asked = $this->asked[$line][$supplier] ?? null;
        if (null === $asked || $units <= 0) {
            return null;
        }
        [$offer, $usage] = $asked;

        return self::bid($offer, $this->landed(
            $offer,
            $this->sellers[$supplier][0]->withFreight(FreightTariff::none()),
            BigDecimal::of(number_format($units, 3, '.', '')),
            $usage->ofPart($units / $this->units[$line]),
        ));
    }

    public function steps(int|string $line, int|string $supplier): array
    {
        $offer = $this->asked[$line][$supplier][0] ?? null;
        if (null === $offer) {
            return [];
        }
        $steps = array_column($offer->unitBreaks(), 0);
        $whole = $offer->rule->pack->content->multipliedBy($offer->rule->multiple)->toFloat();
        $steps[] = floor($this->units[$line] / $whole) * $whole;

        return array_values(array_filter($steps, fn (float $step): bool => $step > 0 && $step < $this->units[$line]));
    }

    public function basket(): Basket
    {
        $bidders = [];
        foreach ($this->sellers as $supplier => [$seller, $homeForOne]) {
            $bidders[$supplier] = new Bidder(
                $seller->freight,
                $seller->minimum,
                $homeForOne,
                $this->orderCost,
                array_sum($this->factors[$supplier]) / count($this->factors[$supplier]),
            );
        }

        return new Basket($this->lines, $bidders);
    }
}
