<?php

declare(strict_types=1);

namespace TallBarrel\Core\Replenish;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Forecaster;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\Pattern;
use TallBarrel\Core\Demand\Stage;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceChange;

/** What to do about one item at all its sites: forecast, policy and supplier for each, then surplus before purchase. */
final readonly class Decision
{
    private const LATELY_WEEKS = 4;
    private const PATTERN_WEEKS = 52;
    /** From here on a proposal is pointed out (common practice, no source). */
    private const TIMES_THE_USUAL = 10.0;
    private const PRICE_JUMP_PERCENT = 10.0;
    private const OTHERS_NAMED = 5;
    /** Changes whenever the same history would be forecast otherwise. */
    private const FORECAST_VERSION = '3';

    public function __construct(private Forecaster $forecaster, private Replenishment $replenishment)
    {
    }

    /**
     * @param non-empty-list<ItemSite>     $places all sites of one item
     * @param list<OfferTerms>             $offers
     * @param array<string, KnownForecast> $known  forecasts of the last run, by "item:site"
     *
     * @return list<Finding>
     */
    public function about(array $places, array $offers, Background $background, array $known): array
    {
        $outcomes = array_map(
            fn (ItemSite $place): PlaceOutcome => $this->at(
                $place,
                $offers,
                $background,
                $known[$place->key()] ?? null,
            ),
            $places,
        );
        $moves = SurplusFirst::among($outcomes, $background);
        $given = [];
        foreach (array_merge(...$moves) as $move) {
            $given[$move->site] = ($given[$move->site] ?? 0.0) + $move->units;
        }
        $findings = [];
        foreach ($outcomes as $outcome) {
            $site = $outcome->place->site;
            $findings[] = $this->finding($outcome, $moves[$site] ?? [], $given[$site] ?? 0.0, $background);
        }

        return $findings;
    }

    /**
     * @return array{int, float}|null weeks known of an item too new to tell by itself, and what is like it sells a
     *      week;
     *      null where a person has said what it sells like, or nothing is like it
     */
    private function newcomer(ItemSite $place, WeeklyHistory $history, Background $background): ?array
    {
        $weeks = $history->sinceFirstSale()->knownWeeks();
        $usual = 0 === $weeks
            || $weeks >= Newcomers::NEW_WEEKS
            || null !== $place->record->standsIn()
            || PlanningOptions::ALL !== $background->options->history
                ? null
                : $background->alike->usual($place->item->category, $place->item->worth->salesPrice);

        return null === $usual ? null : [$weeks, $usual];
    }

    /** @param list<OfferTerms> $offers */
    private function at(ItemSite $place, array $offers, Background $background, ?KnownForecast $known): PlaceOutcome
    {
        $cleaning = $place->record->cleaned();
        $usual = max(1, (int) ceil(4 * ($cleaning->history->last(self::LATELY_WEEKS)->meanDemand() ?? 0.0)));
        $sourced = Sourced::among($offers, $usual, $background);
        $horizon = (int) ceil(($sourced->leadTime->days + $sourced->reviewDays) / 7);
        $new = $this->newcomer($place, $cleaning->history, $background);
        $known = $this->forecast(
            $cleaning->history,
            $horizon,
            $background,
            $place->item->category,
            $new,
            $known,
        );
        foreach ($place->record->adjustments as $adjustment) {
            $weeks = $adjustment->weeksFrom($background->today());
            $known = new KnownForecast($known->key, $known->forecast->adjusted($adjustment->factor(), $weeks));
        }
        $pattern = Pattern::of($cleaning->history->sinceFirstSale()->last(self::PATTERN_WEEKS)->demand);
        $class = ($background->classes[$place->item->id] ?? ValueClass::C)->value.'-'.$pattern->value;
        $policy = $this->policy($place->steering, $class, $background);
        $asked =
            $background->options->asksForListed()
            && PolicyKind::ByHand !== $policy->kind
            && $background->isOnList($place->item->id, $place->site);
        $proposal = $this->replenishment->propose(
            $this->need($place, $known->forecast, $sourced, $policy, $background),
            $asked,
        );
        $considered = $this->considered($place->record, $sourced, $offers, $usual, $background);
        if (null !== $new) {
            $considered[] = new Note(Remark::FewWeeks, ['weeks' => $new[0], 'usual' => round($new[1], 1)]);
        }

        return new PlaceOutcome(
            $place,
            $known,
            $class,
            $policy,
            $sourced,
            $proposal,
            Evidence::of($place, $cleaning, $sourced, $proposal, $considered),
        );
    }

    private function need(
        ItemSite $place,
        Forecast $forecast,
        Sourced $sourced,
        Policy $policy,
        Background $background,
    ): Need {
        $worth = $place->item->worth;
        $offer = $sourced->offer;
        $economics = new Economics(
            $worth->unitCost,
            $background->orderCost,
            $background->holdingShare,
            $worth->salesPrice,
            $offer?->unitBreaks() ?? [],
            $offer?->rise,
            $worth->shelfDays,
            BreakKind::Incremental === $offer?->prices->kind,
        );

        return new Need(
            $place->item->unit,
            $forecast,
            $sourced->leadTime,
            $sourced->reviewDays,
            $policy,
            $economics,
            $background->options->countStock ? $place->stock->onHand : BigDecimal::zero(),
            $place->stock->coming,
            $place->stock->promised,
            $sourced->rule(),
            $background->today(),
            $place->stock->planned,
            $background->options->wholePacks,
        );
    }

    /**
     * @param list<OfferTerms> $offers
     *
     * @return list<Note>
     */
    private function considered(
        DemandRecord $record,
        Sourced $sourced,
        array $offers,
        int $usual,
        Background $background,
    ): array {
        $considered = [];
        if (null !== $record->standsIn()) {
            $considered[] = new Note(Remark::SellsLike, [
                'item' => $record->standsIn()->code,
                'factor' => $record->standsIn()->factor,
            ]);
        }
        if ($sourced->wait > 0) {
            $considered[] = new Note(Remark::Waits, ['days' => $sourced->wait]);
        }
        if ($sourced->holidays > 0) {
            $considered[] = new Note(Remark::Holidays, ['days' => $sourced->holidays]);
        }
        foreach ($record->adjustments as $adjustment) {
            $considered[] = new Note(Remark::Adjusted, [
                'percent' => $adjustment->percent,
                'until' => $adjustment->until->format('Y-m-d'),
                'reason' => $adjustment->reason,
            ]);
        }
        $chosen = $sourced->offer;
        if (null === $chosen) {
            return $considered;
        }
        $others = array_filter($offers, static fn (OfferTerms $other): bool => $other !== $chosen);
        foreach (array_slice($others, 0, self::OTHERS_NAMED) as $other) {
            $considered[] = new Note(Remark::OtherSupplier, [
                'supplier' => $background->suppliers[$other->supplierId]->name ?? '',
                'cost' => $other->unitCost($usual)->toFloat(),
                'chosen' => $chosen->unitCost($usual)->toFloat(),
                'second' => $other->rank > $chosen->rank ? 1 : 0,
                'days' => $other->leadDays,
            ]);
        }

        return $considered;
    }

    /** @param array{int, float}|null $new see newcomer() */
    private function forecast(
        WeeklyHistory $history,
        int $horizon,
        Background $background,
        string $category,
        ?array $new,
        ?KnownForecast $known,
    ): KnownForecast {
        $options = $background->options;
        $season = $background->seasons[$category] ?? null;
        $key = hash(
            'xxh128',
            serialize([
                self::FORECAST_VERSION,
                $horizon,
                $options->history,
                $options->from,
                $options->to,
                $background->seasonMark($category),
                null === $new ? null : round($new[1], 2),
            ]).pack('e*', ...array_map(static fn (?float $week): float => $week ?? \NAN, $history->demand)),
        );
        if (null !== $known && $known->key === $key) {
            // A person's adjustment is never kept with the forecast it was made to.
            return new KnownForecast($key, $known->forecast->unadjusted());
        }

        $forecast = match ($options->history) {
            PlanningOptions::LATELY => $this->forecaster->restingOn(
                $history->last(self::LATELY_WEEKS),
                sprintf('mean of the last %d weeks', self::LATELY_WEEKS),
            ),
            PlanningOptions::LAST_YEAR => $this->forecaster->likeLastYear($history),
            PlanningOptions::RANGE => $this->forecaster->restingOn(
                $history->between(
                    $background->weeksAgo((string) $options->from),
                    $background->weeksAgo((string) $options->to),
                ),
                sprintf('mean of %s to %s', $options->from, $options->to),
            ),
            default => self::drawn($this->forecaster->forecast($history, $horizon, $season), $new),
        };

        return new KnownForecast($key, $forecast->rounded());
    }

    /** @param array{int, float}|null $new see newcomer() */
    private static function drawn(Forecast $forecast, ?array $new): Forecast
    {
        return null === $new
            ? $forecast
            : $forecast->drawnTowards(
                $new[1],
                Newcomers::ownShare($new[0]),
                sprintf('%d weeks of its own, and what is like it', $new[0]),
            );
    }

    private function policy(Steering $steering, string $class, Background $background): Policy
    {
        $policy = $steering->policy ?? ($background->policies[$class] ?? Policy::standard());
        if (null === $steering->policy && null !== $steering->service) {
            $policy = $policy->aimingAt(ServiceTarget::of($policy->target->kind, $steering->service));
        }

        return null !== $background->coverDays && PolicyKind::ByHand !== $policy->kind
            ? $policy->covering($background->coverDays)
            : $policy;
    }

    /**
     * @param list<Move> $moves from other sites
     * @param float      $given stock units to other sites
     */
    private function finding(PlaceOutcome $outcome, array $moves, float $given, Background $background): Finding
    {
        $packs = $outcome->proposal->packs;
        $offer = $outcome->sourced->offer;
        $net = array_sum(array_map(static fn (Move $move): float => $move->units, $moves)) - $given;
        if (0.0 !== $net && null !== $offer && $packs->isPositive()) {
            $packs = $offer->rule->packsFor($outcome->proposal->needed->minus(number_format($net, 3, '.', '')));
        }
        $steering = $outcome->place->steering;
        $listed = $this->isListed($outcome, $packs, $background);
        $chosen =
            $listed
            && null === $steering->draft
            && null !== $offer
            && $packs->isPositive()
            && !$steering->putOff
            && PlanningOptions::NOTHING !== $background->options->start;

        return new Finding(
            $outcome,
            $packs,
            $moves,
            $this->odd($outcome, $packs, $background),
            $listed,
            $chosen,
            Shortage::of($outcome, $background->today()),
        );
    }

    private function isListed(PlaceOutcome $outcome, BigDecimal $packs, Background $background): bool
    {
        $reason = $outcome->proposal->reason;
        $due = Reason::Covered !== $reason;

        return match ($background->options->start) {
            PlanningOptions::MINIMUM => $reason->isShort() || Reason::BelowMinimum === $reason,
            PlanningOptions::STAPLES => $due && $outcome->place->item->staple,
            PlanningOptions::LISTED => $background->isOnList($outcome->place->item->id, $outcome->place->site)
                && ($due || $packs->isPositive()),
            default => $due,
        };
    }

    /** @return list<Note> */
    private function odd(PlaceOutcome $outcome, BigDecimal $packs, Background $background): array
    {
        $odd = [];
        $offer = $outcome->sourced->offer;
        $forecast = $outcome->forecast();
        if (null !== $offer && $packs->isPositive()) {
            $units = $offer->rule->pack->toStockUnits($packs)->toFloat();
            $perDay = $forecast->perDay();
            if ($perDay > 0 && $units > self::TIMES_THE_USUAL * 28 * $perDay) {
                $odd[] = new Note(Remark::ManyMonths, ['times' => round($units / (28 * $perDay), 1)]);
            }
            if (Stage::Dead === $outcome->stage()) {
                $odd[] = new Note(Remark::NotSold);
            }
            $jump = PriceChange::percent($offer->prices->priceFor($packs), $background->lastPrices[$offer->id] ?? null);
            if (null !== $jump && abs($jump) >= self::PRICE_JUMP_PERCENT) {
                $odd[] = new Note(Remark::PriceJump, ['percent' => round($jump, 1)]);
            }
        }
        if ($outcome->leans()) {
            $odd[] = new Note($forecast->bias > 0 ? Remark::ForecastTooHigh : Remark::ForecastTooLow);
        }

        return $odd;
    }
}
