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
     * @param float                                       $units  stock units
     * @param array<string, array{float, string}> $parts amount for the whole order and how it came about, by CostPart
     * @param string|null                                 $short  what the order lacks of the supplier's minimum
     */
    private function __construct(
        public OfferTerms $offer,
        public Seller $seller,
        public BigDecimal $packs,
        public float $units,
        public array $parts,
        public ?string $short,
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

    private static function ofPacks(
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
                CostPart::Price->value => [
                    $price,
                    sprintf(
                        '%s %s at %s %s%s',
                        (string) $packs,
                        $offer->rule->pack->named($packs),
                        $offer->prices->priceFor($packs)->strippedOfTrailingZeros(),
                        $offer->rate->foreign->code,
                        $foreign
                            ? sprintf(
                                ', %s %s to 1 %s',
                                $offer->rate->foreignForOne->strippedOfTrailingZeros(),
                                $offer->rate->foreign->code,
                                $offer->rate->home->code,
                            )
                            : '',
                    ),
                ],
                CostPart::Freight->value => [
                    $freight,
                    0.0 === $wholeFreight
                        ? (FreightTariff::NONE === $seller->freight->kind
                            ? 'in the price'
                            : 'free for an order of this size')
                        : ($share < 1
                            ? sprintf('%d %% of the order’s, with what else goes on it', (int) round(100 * $share))
                            : 'of this order alone').self::came($seller),
                ],
                CostPart::Duty->value => [
                    $duty,
                    $dutyFree
                        ? 'paid by the seller'
                        : (0.0 === $offer->dutyPercent
                            ? 'none'
                            : sprintf('%g %% of price and freight', $offer->dutyPercent)),
                ],
                CostPart::Currency->value => [
                    $exchange,
                    $foreign ? sprintf('the bank takes %g %%', $rates->exchangePercent) : 'none',
                ],
                CostPart::Terms->value => [
                    -$worth * ($price + $freight),
                    null === $seller->terms
                        ? 'no terms known'
                        : sprintf('%s, money at %g %%', $seller->terms->label(), $rates->moneyPercent),
                ],
                CostPart::Holding->value => [
                    $holding,
                    sprintf(
                        '%g %% a year for %d days, half the time it lasts',
                        $rates->holdingPercent,
                        (int) round($halfTime),
                    ),
                ],
                CostPart::Late->value => [
                    $late * $usage->perDay * $usage->margin,
                    null === $usage->daysUntilOut
                        ? 'it does not run out'
                        : sprintf(
                            '%.1f days without, expected, of %s',
                            $late,
                            [] === $seller->leadTimesMet
                                ? 'the promise alone'
                                : count($seller->leadTimesMet).' deliveries and the promise',
                        ),
                ],
            ],
            $seller->minimum->shortfall(
                $value + $alongside->value,
                $kilograms + $alongside->kilograms,
                $packs->toFloat() + $alongside->packs,
            ),
        );
    }

    private static function came(Seller $seller): string
    {
        return 1.0 === $seller->freightCame
            ? ''
            : sprintf(', %.2f times the tariff, as it came to before', $seller->freightCame);
    }

    /** For the whole order, home currency. */
    public function total(): float
    {
        return array_sum(array_column($this->parts, 0));
    }

    /** For one stock unit, home currency. */
    public function unit(): float
    {
        return $this->total() / $this->units;
    }

    public function part(CostPart $part): float
    {
        return $this->parts[$part->value][0];
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
