<?php

declare(strict_types=1);

namespace TallBarrel\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;

/**
 * What so much of an item from one supplier costs by the time it has been sold, in the home currency. Only the price is
 * exact; the rest are estimates, so all of it is floating point and for comparing, never for an invoice.
 */
final readonly class LandedCost
{
    /**
     * @param float                $units        stock units
     * @param array<string, float> $parts        amount for the whole order, by CostPart
     * @param string|null          $short        what the order lacks of the supplier's minimum
     * @param float                $wholeFreight of all that goes on the order, and the share of it that is theirs
     * @param float                $halfTime     days, half of what it lasts
     * @param float                $daysLate     expected
     */
    private function __construct(
        public OfferTerms $offer,
        public Seller $seller,
        public BigDecimal $packs,
        public float $units,
        public array $parts,
        public ?string $short,
        private CostRates $rates,
        private Usage $usage,
        private float $wholeFreight,
        private float $share,
        private float $halfTime,
        private float $daysLate,
    ) {
    }

    /**
     * For the fewest packs that hold so many stock units.
     *
     * - Price: by the breaks, at the rate of the offer.
     * - Freight: of the whole order with what goes alongside, shared by value; as it came to before, where known.
     * - Duty: of price and freight together, which is what customs count (common practice where imports are valued with
     *   their carriage, as in Regulation (EU) 952/2013, article 71(1)(e)); none where the seller pays it.
     * - Currency: what the bank takes of price and freight.
     * - Terms: what the days to pay and the discount are worth, see PaymentTerms::worth(); below zero.
     * - Holding: of price, freight and duty, for half the time it lasts, at most half a year.
     * - Late: expected days without stock × use a day × margin, over the lead times met and the promise.
     *
     * @param BigNumber|int|string $stockUnits above zero
     */
    public static function of(
        OfferTerms $offer,
        Seller $seller,
        BigNumber|int|string $stockUnits,
        Usage $usage,
        CostRates $rates,
        \DateTimeImmutable $today,
        ?Alongside $alongside = null,
    ): self {
        return self::ofPacks(
            $offer,
            $seller,
            $offer->rule->packsFor($stockUnits),
            $usage,
            $rates,
            $today,
            $alongside ?? new Alongside(),
        );
    }

    /** Of packs the supplier sells in such a number: see of(). */
    public static function ofPacks(
        OfferTerms $offer,
        Seller $seller,
        BigDecimal $packs,
        Usage $usage,
        CostRates $rates,
        \DateTimeImmutable $today,
        Alongside $alongside,
    ): self {
        $units = $offer->rule->pack->toStockUnits($packs)->toFloat();
        $perHome = $offer->rate->foreignForOne->toFloat();
        $value = $offer->prices->costOf($packs)->toFloat();
        $kilograms = $units * $offer->kgPerUnit;
        $price = $value / $perHome;
        $tariff = $seller->freight->of($value + $alongside->value, $kilograms + $alongside->kilograms);
        $wholeFreight = ($tariff * $seller->freightCame) / $perHome;
        $share = $value + $alongside->value > 0 ? $value / ($value + $alongside->value) : 1.0;
        $freight = $wholeFreight * $share;
        $dutyFree = $seller->incoterm?->sellerPaysDuty() ?? false;
        $duty = $dutyFree ? 0.0 : (($price + $freight) * $offer->dutyPercent) / 100;
        $foreign = $offer->rate->foreign->code !== $offer->rate->home->code;
        $exchange = $foreign ? (($price + $freight) * $rates->exchangePercent) / 100 : 0.0;
        $arrives = $today->modify(sprintf('+%d days', $offer->leadDays));
        $worth = $seller->terms?->worth($today, $arrives, $rates->moneyPercent) ?? 0.0;
        $lasts = $usage->perDay > 0 ? $units / $usage->perDay : 365.0;
        $halfTime = min(182.5, $lasts / 2);
        $holding = (((($price + $freight + $duty) * $rates->holdingPercent) / 100) * $halfTime) / 365;
        $late = self::expectedDaysLate($offer, $seller, $usage);

        return new self(
            $offer,
            $seller,
            $packs,
            $units,
            [
                CostPart::Price->value => $price,
                CostPart::Freight->value => $freight,
                CostPart::Duty->value => $duty,
                CostPart::Currency->value => $exchange,
                CostPart::Terms->value => -$worth * ($price + $freight),
                CostPart::Holding->value => $holding,
                CostPart::Late->value => $late * $usage->perDay * $usage->margin,
            ],
            $seller->minimum->shortfall(
                $value + $alongside->value,
                $kilograms + $alongside->kilograms,
                $packs->toFloat() + $alongside->packs,
            ),
            $rates,
            $usage,
            $wholeFreight,
            $share,
            $halfTime,
            $late,
        );
    }

    /** How a part of it came about. */
    public function words(CostPart $part): string
    {
        $rate = $this->offer->rate;
        $foreign = $rate->foreign->code !== $rate->home->code;

        return match ($part) {
            CostPart::Price => sprintf(
                '%s %s at %s %s%s',
                (string) $this->packs,
                $this->offer->rule->pack->named($this->packs),
                $this->offer->prices->priceFor($this->packs)->strippedOfTrailingZeros(),
                $rate->foreign->code,
                $foreign
                    ? sprintf(
                        ', %s %s to 1 %s',
                        $rate->foreignForOne->strippedOfTrailingZeros(),
                        $rate->foreign->code,
                        $rate->home->code,
                    )
                    : '',
            ),
            CostPart::Freight => 0.0 === $this->wholeFreight
                ? (FreightTariff::NONE === $this->seller->freight->kind
                    ? 'in the price'
                    : 'free for an order of this size')
                : ($this->share < 1
                    ? sprintf('%d %% of the order’s, with what else goes on it', (int) round(100 * $this->share))
                    : 'of this order alone').$this->came(),
            CostPart::Duty => match (true) {
                true === $this->seller->incoterm?->sellerPaysDuty() => 'paid by the seller',
                0.0 === $this->offer->dutyPercent => 'none',
                default => sprintf('%g %% of price and freight', $this->offer->dutyPercent),
            },
            CostPart::Currency => $foreign ? sprintf('the bank takes %g %%', $this->rates->exchangePercent) : 'none',
            CostPart::Terms => null === $this->seller->terms
                ? 'no terms known'
                : sprintf('%s, money at %g %%', $this->seller->terms->label(), $this->rates->moneyPercent),
            CostPart::Holding => sprintf(
                '%g %% a year for %d days, half the time it lasts',
                $this->rates->holdingPercent,
                (int) round($this->halfTime),
            ),
            CostPart::Late => null === $this->usage->daysUntilOut
                ? 'it does not run out'
                : sprintf(
                    '%.1f days without, expected, of %s',
                    $this->daysLate,
                    [] === $this->seller->leadTimesMet
                        ? 'the promise alone'
                        : count($this->seller->leadTimesMet).' deliveries and the promise',
                ),
        };
    }

    private function came(): string
    {
        return 1.0 === $this->seller->freightCame
            ? ''
            : sprintf(', %.2f times the tariff, as it came to before', $this->seller->freightCame);
    }

    /** For the whole order, home currency. */
    public function total(): float
    {
        return array_sum($this->parts);
    }

    /** For one stock unit, home currency. */
    public function unit(): float
    {
        return $this->total() / $this->units;
    }

    public function part(CostPart $part): float
    {
        return $this->parts[$part->value];
    }

    private static function expectedDaysLate(OfferTerms $offer, Seller $seller, Usage $usage): float
    {
        if (null === $usage->daysUntilOut) {
            return 0.0;
        }
        $times = $seller->leadTimes($offer->leadDays);

        return array_sum(array_map(static fn (int $days): float => max(0.0, $days - $usage->daysUntilOut), $times)) /
            count($times);
    }
}
