<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\EconomicOrderQuantity;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Need;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\OrderUpTo;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Sourcing\Offer;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Planning\ItemSite;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Store\Planning\PlanningRun;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Planning\SupplierTerms;

/**
 * A planning run: reads all there is once, lets Core decide item by item, saves the proposals once.
 *
 * @phpstan-import-type Facts from SavedProposal
 */
final readonly class Planner
{
    private const SHORTEST_COVER = 7;
    private const LONGEST_COVER = 56;
    /** Where nobody sells an item yet, planning looks this far. */
    private const USUAL_LEAD_DAYS = 7;
    private const WEEKS_SHOWN = 26;

    public function __construct(
        private PlanningData $data,
        private Proposals $proposals,
        private Forecaster $forecaster,
        private OrderUpTo $rule,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /** @param int|null $coverDays days one order should last; null lets the economic quantity decide, item by item */
    public function run(?int $coverDays = null): PlanningRun
    {
        $start = hrtime(true);
        $now = $this->clock->now();
        $today = $now->setTime(0, 0);
        $offers = $this->data->offers($today);
        $suppliers = $this->data->suppliers();
        $findings = [];
        foreach ($this->data->itemSites($today) as $itemSite) {
            $findings[] = $this->decide($itemSite, $offers[$itemSite->item] ?? [], $suppliers, $coverDays, $now);
        }
        $run = new PlanningRun($now, $coverDays, count($findings), (int) ((hrtime(true) - $start) / 1e6));
        $this->proposals->replace($run, $findings);

        return $run;
    }

    /**
     * @param list<Offer>               $offers
     * @param array<int, SupplierTerms> $suppliers
     *
     * @return array{ItemSite, int|null, Proposal, Forecast, Facts}
     */
    private function decide(ItemSite $place, array $offers, array $suppliers, ?int $coverDays, \DateTimeImmutable $now): array
    {
        $today = $now->setTime(0, 0);
        $forecast = $this->forecaster->forecast($place->history);
        $offer = [] === $offers ? null : Offer::choose($offers, max(1, (int) ceil($forecast->over(28))));
        $terms = null === $offer ? null : $suppliers[$offer->supplierId];
        $leadTime = LeadTime::fromDeliveries($offer->leadDays ?? self::USUAL_LEAD_DAYS, $terms->leadTimesMet ?? []);
        $proposal = $this->rule->propose(new Need(
            $place->unit, $forecast, $leadTime, $terms?->orderDays->reviewDays() ?? self::SHORTEST_COVER, $coverDays ?? $this->economicCover($forecast, $place->unitCost),
            $place->service, $place->onHand, $place->onOrder, $place->promised,
            $offer->rule ?? BuyingRule::of(Pack::of('each', 1)), $today,
        ));
        $arrival = $terms?->orderDays->arrival($now, (int) round($leadTime->days)) ?? $today->modify(sprintf('+%d days', self::USUAL_LEAD_DAYS));

        return [$place, $offer?->id, $proposal, $forecast, [
            'sold' => $place->history->lastSold(self::WEEKS_SHOWN),
            'onHand' => $place->onHand->toFloat(),
            'promised' => $place->promised->toFloat(),
            'arrivals' => array_map(static fn (OpenOrder $order): array => [$order->number, $order->stockUnits->toFloat(), $order->due->format('Y-m-d')], $place->onOrder),
            'arrival' => $arrival->format('Y-m-d'),
        ]];
    }

    /** Days the economic quantity lasts, within reason. */
    private function economicCover(Forecast $forecast, float $unitCost): int
    {
        $business = $this->business->get();
        $holding = $unitCost * $business->holdingPercent->toFloat() / 100;
        $perDay = $forecast->perDay();
        if ($perDay <= 0 || $holding <= 0) {
            return self::SHORTEST_COVER;
        }
        $quantity = EconomicOrderQuantity::of($perDay * 365, $business->orderCost->toFloat(), $holding);

        return (int) round(max(self::SHORTEST_COVER, min(self::LONGEST_COVER, $quantity / $perDay)));
    }
}
