<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Reorder;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Cleaning;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Mark;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\Stage;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Need;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\Replenishment;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Transfers;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\Offer;
use TallBarrel\Core\Sourcing\PriceChange;
use TallBarrel\Store\Planning\Finding;
use TallBarrel\Store\Planning\ItemSite;
use TallBarrel\Store\Planning\PlanningOptions;
use TallBarrel\Store\Planning\SavedProposal;

/**
 * What to do about one item at all its sites: hands what is known to Core and gathers what comes back.
 *
 * @phpstan-import-type Facts from SavedProposal
 * @phpstan-import-type ForecastData from Forecast
 */
final readonly class Decision
{
    /** Where nobody sells an item yet, planning looks this far. */
    private const USUAL_LEAD_DAYS = 7;
    private const WEEKS_SHOWN = 52;
    /** An item with fewer weeks of its own is expected to sell like the one it was said to. */
    private const OWN_HISTORY_WEEKS = 13;
    private const LATELY_WEEKS = 4;
    private const PATTERN_WEEKS = 52;
    /** From here on a proposal is pointed out (common practice, no source). */
    private const TIMES_THE_USUAL = 10.0;
    private const LASTS_TOO_LONG_DAYS = 365.0;
    private const PRICE_JUMP_PERCENT = 10.0;
    private const LEANS = 0.25;
    private const TRACKING_LIMIT = 15.0;
    /** Changes whenever the same history would be forecast otherwise. */
    private const FORECAST_VERSION = '1';

    public function __construct(private Forecaster $forecaster, private Replenishment $replenishment)
    {
    }

    /**
     * @param non-empty-list<ItemSite>              $places all sites of one item
     * @param list<Offer>                           $offers
     * @param array<string, array{string, string}>  $known  forecasts of the last run, key and data by "item:site"
     *
     * @return list<Finding>
     */
    public function about(array $places, array $offers, Background $background, array $known): array
    {
        $drafts = $spare = [];
        foreach ($places as $i => $place) {
            $drafts[$i] = $this->at($place, $offers, $background, $known[$place->item.':'.$place->site] ?? null);
            if (Reason::Covered === $drafts[$i][0]->reason && $drafts[$i][0]->spare >= 1) {
                $spare[$place->site] = $drafts[$i][0]->spare;
            }
        }
        $findings = [];
        foreach ($places as $i => $place) {
            [$proposal, $forecast, $key, $offer, $class, $stage, $policy, $facts] = $drafts[$i];
            $moves = [];
            if (count($places) > 1 && $proposal->packs->isPositive() && Reason::Asked !== $proposal->reason) {
                $others = array_diff_key($spare, [$place->site => true]);
                foreach (Transfers::of($proposal->needed->toFloat(), $others) as $site => $units) {
                    $moves[] = ['site' => $site, 'units' => $units];
                    $spare[$site] -= $units;
                }
            }
            $findings[] = $this->finding($place, $proposal, $forecast, $key, $offer, $class, $stage, $policy, $facts, $moves, $background);
        }

        return $findings;
    }

    /**
     * @param list<Offer>                $offers
     * @param array{string, string}|null $known
     *
     * @return array{Proposal, Forecast, string, Offer|null, string, Stage, PolicyKind, Facts}
     */
    private function at(ItemSite $place, array $offers, Background $background, ?array $known): array
    {
        $today = $background->today();
        $history = $place->history;
        $considered = [];
        if (null !== $place->like && $history->sinceFirstSale()->weeks() < self::OWN_HISTORY_WEEKS) {
            $history = $place->like[0]->times($place->like[1]);
            $considered[] = sprintf('Too new for a history of its own: expected to sell like %s%s.', $place->like[2], 1.0 === $place->like[1] ? '' : sprintf(', × %g', $place->like[1]));
        }
        $cleaning = Cleaning::of($history, $place->like[0] ?? null ? [] : $place->verdicts);
        $usual = max(1, (int) ceil(4 * ($cleaning->history->last(self::LATELY_WEEKS)->meanDemand() ?? 0.0)));
        $offer = [] === $offers ? null : Offer::choose($offers, $usual);
        $terms = null === $offer ? null : $background->suppliers[$offer->supplierId];
        $met = LeadTime::fromDeliveries($offer->leadDays ?? self::USUAL_LEAD_DAYS, $terms->leadTimesMet ?? []);
        $holidays = $terms?->orderDays->holidaysWithin($background->now, (int) round($met->days)) ?? 0;
        $leadTime = LeadTime::of($met->days + $holidays, $met->spread);
        if ($holidays > 0) {
            $considered[] = sprintf('%d days more: holidays lie on the way.', $holidays);
        }
        $review = $terms?->orderDays->reviewDaysFrom($background->now) ?? self::USUAL_LEAD_DAYS;
        [$forecast, $key] = $this->forecast($cleaning->history, (int) ceil(($leadTime->days + $review) / 7), $background, $place->category, $known);
        foreach ($place->adjustments as [$percent, $until, $reason]) {
            $forecast = $forecast->adjusted(1 + $percent / 100, (int) ceil(((int) $today->diff($until)->days) / 7));
            $considered[] = sprintf('Forecast %+g %% until %s: %s.', $percent, $until->format('j M'), $reason);
        }
        $class = ($background->classes[$place->item] ?? ValueClass::C)->value.'-'.Pattern::of($cleaning->history->sinceFirstSale()->last(self::PATTERN_WEEKS)->demand)->value;
        $policy = $this->policy($place, $class, $background);
        $asked = in_array($background->options->start, [PlanningOptions::COVER, PlanningOptions::VALUE, PlanningOptions::LISTED], true) && PolicyKind::ByHand !== $policy->kind;
        $proposal = $this->replenishment->propose(new Need(
            $place->unit, $forecast, $leadTime, $review, $policy,
            new Economics($place->unitCost, $background->orderCost, $background->holdingShare, $place->salesPrice, $offer?->unitBreaks() ?? [], $offer?->rise, $place->shelfDays, BreakKind::Incremental === $offer?->prices->kind),
            $background->options->countStock ? $place->onHand : BigDecimal::zero(), $place->onOrder, $place->promised,
            $offer->rule ?? BuyingRule::of(Pack::of('each', 1)), $today, $place->planned, $background->options->wholePacks,
        ), $asked && $background->isOnList($place->item, $place->site));
        foreach ($offers as $other) {
            if (null !== $offer && $other !== $offer && count($considered) < 6) {
                $considered[] = sprintf(
                    '%s would cost %s for one against %s%s, %d days promised.', $background->suppliers[$other->supplierId]->name ?? 'Another supplier',
                    number_format($other->unitCost($usual)->toFloat(), 2), number_format($offer->unitCost($usual)->toFloat(), 2), $other->rank > $offer->rank ? ' and comes second by rank' : '', $other->leadDays,
                );
            }
        }
        $arrival = $terms?->orderDays->arrival($background->now, (int) round($met->days)) ?? $today->modify(sprintf('+%d days', self::USUAL_LEAD_DAYS));
        $weeks = $place->history->weeks();

        return [$proposal, $forecast, $key, $offer, $class, Stage::of($place->history), $policy->kind, [
            'sold' => $place->history->lastSold(self::WEEKS_SHOWN),
            'wanted' => array_map(static fn (?float $week): ?float => null === $week ? null : round($week, 2), $cleaning->history->last(self::WEEKS_SHOWN)->demand),
            'marks' => array_map(static fn (Mark $mark): array => ['ago' => $weeks - $mark->week, 'kind' => $mark->kind, 'demand' => round($mark->demand, 2), 'taken' => null === $mark->taken ? null : round($mark->taken, 2), 'kept' => $mark->kept], $cleaning->marks),
            'onHand' => $place->onHand->toFloat(),
            'promised' => $place->promised->toFloat(),
            'arrivals' => array_map(static fn (OpenOrder $order): array => [$order->number, $order->stockUnits->toFloat(), $order->due->format('Y-m-d'), $order->verdict], $place->onOrder),
            'arrival' => $arrival->format('Y-m-d'),
            'planned' => array_map(static fn (PlannedDemand $planned): array => [$planned->name, $planned->stockUnits, $planned->day->format('Y-m-d')], $place->planned),
            'met' => $terms->leadTimesMet ?? [],
            'promisedDays' => $offer->leadDays ?? self::USUAL_LEAD_DAYS,
            'considered' => $considered,
            'forward' => null === $proposal->forward ? null : [$proposal->forward->order, $proposal->forward->by->format('Y-m-d'), $proposal->forward->due->format('Y-m-d')],
            'needed' => $proposal->needed->toFloat(),
        ]];
    }

    /**
     * @param array{string, string}|null $known
     *
     * @return array{Forecast, string}
     */
    private function forecast(WeeklyHistory $history, int $horizon, Background $background, string $category, ?array $known): array
    {
        $options = $background->options;
        $season = $background->seasons[$category] ?? null;
        $key = hash('xxh128', serialize([self::FORECAST_VERSION, $history->demand, $horizon, $options->history, $options->from, $options->to, null === $season ? null : array_map(static fn (float $factor): float => round($factor, 3), $season->figures())]));
        if (null !== $known && $known[0] === $key) {
            /** @var ForecastData $data */
            $data = json_decode($known[1], true, flags: \JSON_THROW_ON_ERROR);

            // A person's adjustment is never kept with the forecast it was made to.
            return [Forecast::fromArray($data)->unadjusted(), $key];
        }
        $yesterday = $background->today()->modify('-1 day');
        $weeksAgo = static fn (string $day): int => intdiv(max(0, (int) (new \DateTimeImmutable($day, $yesterday->getTimezone()))->diff($yesterday)->format('%r%a')), 7);

        return [match ($options->history) {
            PlanningOptions::LATELY => $this->forecaster->restingOn($history->last(self::LATELY_WEEKS), sprintf('mean of the last %d weeks', self::LATELY_WEEKS)),
            PlanningOptions::LAST_YEAR => $this->forecaster->likeLastYear($history),
            PlanningOptions::RANGE => $this->forecaster->restingOn($history->between($weeksAgo((string) $options->from), $weeksAgo((string) $options->to)), sprintf('mean of %s to %s', $options->from, $options->to)),
            default => $this->forecaster->forecast($history, $horizon, $season),
        }, $key];
    }

    private function policy(ItemSite $place, string $class, Background $background): Policy
    {
        $policy = $place->policy ?? $background->policies[$class] ?? Policy::standard();
        if (null === $place->policy && null !== $place->service) {
            $policy = $policy->aimingAt(ServiceTarget::of($policy->target->kind, $place->service));
        }

        return null !== $background->coverDays && PolicyKind::ByHand !== $policy->kind ? $policy->covering($background->coverDays) : $policy;
    }

    /**
     * @param list<array{site: int, units: float}> $moves
     * @param Facts                                $facts
     */
    private function finding(ItemSite $place, Proposal $proposal, Forecast $forecast, string $key, ?Offer $offer, string $class, Stage $stage, PolicyKind $policy, array $facts, array $moves, Background $background): Finding
    {
        $packs = $proposal->packs;
        if ([] !== $moves && null !== $offer) {
            $rest = $proposal->needed->minus(number_format((float) array_sum(array_column($moves, 'units')), 3, '.', ''));
            $packs = $offer->rule->packsFor($rest);
        }
        $value = $offer?->packPrice($packs)->multipliedBy($packs)->rounded();
        $start = $background->options->start;
        $due = Reason::Covered !== $proposal->reason;
        $listed = match ($start) {
            PlanningOptions::MINIMUM => $proposal->reason->isShort() || Reason::BelowMinimum === $proposal->reason,
            PlanningOptions::STAPLES => $due && $place->staple,
            PlanningOptions::LISTED => $background->isOnList($place->item, $place->site) && ($due || $packs->isPositive()),
            default => $due,
        };

        [$out, $missed] = $this->shortage($place, $proposal, $forecast, $facts['arrival'], $background);

        return new Finding(
            $place, $offer?->id, $proposal, $forecast, $key, (string) $packs,
            [
                'value' => null === $value ? '0' : (string) $value->amount,
                'home' => null === $value || null === $offer ? '0' : (string) $offer->rate->toHome($value)->rounded()->amount,
                'weight' => $place->weightKg * ($offer?->rule->pack->toStockUnits($packs)->toFloat() ?? 0.0),
            ],
            $class, $stage->value, $policy->value, $listed,
            $listed && null === $place->draft && null !== $offer && $packs->isPositive() && !$place->putOff && PlanningOptions::NOTHING !== $start,
            $this->odd($place, $forecast, $offer, $packs, $stage, $background), $moves, $out, $missed, self::leans($forecast) ? abs($forecast->bias) * 7 * $forecast->perDay() * $place->unitCost : null, $facts,
        );
    }

    private static function leans(Forecast $forecast): bool
    {
        return abs($forecast->bias) > self::LEANS && abs($forecast->tracking) > self::TRACKING_LIMIT;
    }

    /** @return array{int|null, float} days until nothing is left before an order sent now could be here, and the sales missed until then */
    private function shortage(ItemSite $place, Proposal $proposal, Forecast $forecast, string $arrival, Background $background): array
    {
        if (Reason::Covered === $proposal->reason) {
            return [null, 0.0];
        }
        $today = $background->today();
        $onDay = max(1, (int) $today->diff(new \DateTimeImmutable($arrival, $today->getTimezone()))->days);
        $out = Projection::over($onDay, $place->onHand->minus($place->promised)->toFloat(), OpenOrder::schedule($place->onOrder, $today), $forecast, 0.0, $onDay)->outOnDay;
        $rush = Reason::Rush === $proposal->reason;
        if (null === $out && !$rush) {
            return [null, 0.0];
        }
        $out ??= $onDay;

        return [$out, ($place->salesPrice ?? 0.0) * max($forecast->over($onDay) - $forecast->over($out), $rush ? $place->promised->minus($place->onHand)->toFloat() : 0.0)];
    }

    /** @return list<string> */
    private function odd(ItemSite $place, Forecast $forecast, ?Offer $offer, BigDecimal $packs, Stage $stage, Background $background): array
    {
        $odd = [];
        if (null !== $offer && $packs->isPositive()) {
            $units = $offer->rule->pack->toStockUnits($packs)->toFloat();
            $perDay = $forecast->perDay();
            if ($perDay > 0 && $units > self::TIMES_THE_USUAL * 28 * $perDay) {
                $odd[] = sprintf('%.0f times a month’s sales', $units / (28 * $perDay));
            } elseif ($perDay > 0 && $units / $perDay > self::LASTS_TOO_LONG_DAYS) {
                $odd[] = 'would last over a year';
            }
            if (Stage::Dead === $stage) {
                $odd[] = 'not sold for half a year';
            }
            $jump = PriceChange::percent($offer->prices->priceFor($packs), $background->lastPrices[$offer->id] ?? null);
            if (null !== $jump && abs($jump) >= self::PRICE_JUMP_PERCENT) {
                $odd[] = sprintf('price %+.0f %%', $jump);
            }
        }
        if (self::leans($forecast)) {
            $odd[] = $forecast->bias > 0 ? 'forecast has been too high' : 'forecast has been too low';
        }

        return $odd;
    }
}
