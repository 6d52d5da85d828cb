<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\RoundingMode;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Quantity\BuyingRule;

/** What one supplier asks for one item. */
final readonly class OfferTerms
{
    /**
     * @param int $rank     1 is bought from first; the same rank is decided by price
     * @param int $leadDays promised days from order to delivery
     * @param array{float, \DateTimeImmutable}|null $rise share by which the price will rise (0.05), and the day
     * @param PriceBreaks $prices      of one pack, discounts taken off, in the supplier's currency
     * @param float       $dutyPercent customs duty on goods and carriage
     * @param float       $kgPerUnit   weight of one stock unit
     */
    public function __construct(
        public int $id,
        public int $supplierId,
        public BuyingRule $rule,
        public PriceBreaks $prices,
        public ExchangeRate $rate,
        public int $rank,
        public int $leadDays,
        public ?array $rise = null,
        public float $dutyPercent = 0.0,
        public float $kgPerUnit = 0.0,
    ) {
    }

    /** Price of one pack when so many are bought, in the supplier's currency. */
    public function packPrice(BigNumber|int|string $packs): Money
    {
        return Money::of($this->prices->priceFor($packs), $this->rate->foreign);
    }

    /**
     * @return list<array{float, float}> from so many stock units, the price of one in the home currency; rising
     *      quantities
     */
    public function unitBreaks(): array
    {
        $content = $this->rule->pack->content->toFloat();

        return array_map(
            fn (array $step): array => [
                $step['from']->toFloat() * $content,
                $this->rate->toHome(Money::of($step['price'], $this->rate->foreign))->amount->toFloat() / $content,
            ],
            $this->prices->byPacks(),
        );
    }

    /** Price of one stock unit when so many stock units are needed, in the home currency, to six decimals. */
    public function unitCost(BigNumber|int|string $stockUnits): BigDecimal
    {
        return $this->rate
            ->toHome($this->packPrice($this->rule->packsFor($stockUnits)))
            ->amount->dividedBy($this->rule->pack->content, 6, RoundingMode::HalfUp);
    }

    /**
     * The one to buy from: the lowest rank, and among equals the lowest cost of a stock unit at this need.
     *
     * @param non-empty-list<self> $offers
     */
    public static function choose(array $offers, BigNumber|int|string $stockUnits): self
    {
        usort(
            $offers,
            static fn (self $a, self $b): int => $a->rank <=> $b->rank ?:
            $a->unitCost($stockUnits)->compareTo($b->unitCost($stockUnits)) ?:
            $a->id <=> $b->id,
        );

        return $offers[0];
    }
}
