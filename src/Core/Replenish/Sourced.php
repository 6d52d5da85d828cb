<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\OfferTerms;

/**
 * From whom a place would be replenished, how long that takes from now on, and when the next chance is. The lead time
 * holds
 * the wait for the supplier's next order day, for holidays, and for a day on which somebody is here to take it in: it
 * ends
 * on the day of arrival.
 */
final readonly class Sourced
{
    /** Where nobody sells an item yet, planning looks this far. */
    public const USUAL_DAYS = 7;

    private function __construct(
        public ?OfferTerms $offer,
        public ?SupplierTerms $supplier,
        public LeadTime $leadTime,
        public int $reviewDays,
        public int $holidays,
        public int $wait,
        public \DateTimeImmutable $arrival,
    ) {
    }

    /**
     * @param list<OfferTerms> $offers
     * @param int              $usual  stock units bought at a time
     */
    public static function among(array $offers, int $usual, Background $background): self
    {
        $offer = [] === $offers ? null : OfferTerms::choose($offers, $usual);
        $supplier = null === $offer ? null : $background->suppliers[$offer->supplierId] ?? null;
        $met = LeadTime::fromDeliveries($offer->leadDays ?? self::USUAL_DAYS, $supplier->leadTimesMet ?? []);
        $days = (int) round($met->days);
        $chance = $background->chance($offer?->supplierId, $days);
        $arrival = $chance->arrival ?? $background->today()->modify(sprintf('+%d days', $days));
        $until = (int) $background->today()->diff($arrival->setTime(0, 0))->days;
        $holidays = $chance->holidays ?? 0;

        return new self(
            $offer,
            $supplier,
            LeadTime::of(max(0.0, $until + $met->days - $days), $met->spread),
            $chance->reviewDays ?? self::USUAL_DAYS,
            $holidays,
            max(0, $until - $days - $holidays),
            $arrival,
        );
    }

    public function rule(): BuyingRule
    {
        return $this->offer->rule ?? BuyingRule::of(Pack::of('each', 1));
    }
}
