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
final class BasketDraft
{
    /** @var array<int|string, array<int|string, Bid>> */
    private array $lines = [];
    /** @var array<int|string, array{Seller, float}> by supplier, with the home currency for one of theirs */
    private array $sellers = [];
    /** @var array<int|string, list<float>> */
    private array $factors = [];

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
        $with = fn (FreightTariff $freight): LandedCost => LandedCost::of(
            $offer,
            $seller->withFreight($freight),
            $units,
            $usage,
            $this->rates,
            $this->today,
            new Alongside(),
        );
        $bare = $with(FreightTariff::none());
        if (isset($this->lines[$line][$supplier]) && $this->lines[$line][$supplier]->cost <= $bare->total()) {
            return null;
        }
        $perHome = $offer->rate->foreignForOne->toFloat();
        $this->factors[$supplier][] = $with(FreightTariff::flat($perHome))->total() - $bare->total();
        $this->lines[$line][$supplier] = new Bid(
            $bare->total(),
            $offer->prices->costOf($bare->packs)->toFloat(),
            $bare->units * $offer->kgPerUnit,
            $bare->packs->toFloat(),
        );
        $this->sellers[$supplier] = [$seller, 1 / $perHome];

        return $bare;
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
