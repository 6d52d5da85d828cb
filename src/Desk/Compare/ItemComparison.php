<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Compare;

use Brick\Math\BigDecimal;
use Doctrine\DBAL\Connection;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\Comparison;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Desk\Drawing\CostCurves;
use TallBarrel\Desk\Drawing\CostStack;
use TallBarrel\Desk\Drawing\LeadTimeStrip;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Planning\SavedProposal;
use TallBarrel\Store\Quote\OpenQuote;
use TallBarrel\Store\Settle\Landed;
use TallBarrel\Work\Sourcing\Candidate;
use TallBarrel\Work\Sourcing\Candidates;

/** All that the board of one item and quantity shows. */
final readonly class ItemComparison
{
    public function __construct(
        private Candidates $candidates,
        private Proposals $proposals,
        private CurrentBusiness $business,
        private Rates $rates,
        private Connection $connection,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param SavedProposal|null $for   the proposal the quantity is for; null for all sites together
     * @param BigDecimal|null    $units as typed; null for what is needed
     *
     * @return array<string, mixed>
     */
    public function of(Item $item, ?SavedProposal $for, ?BigDecimal $units): array
    {
        $everywhere = $this->proposals->ofItem($item->id);
        $places = null === $for ? $everywhere : [$for];
        $usage = $this->candidates->usage($item, $places);
        $units ??= self::needed($places, $usage->perDay);
        $today = $this->clock->now()->setTime(0, 0);
        $business = $this->business->get();
        $candidates = $this->candidates->of([$item->id])[$item->id] ?? [];
        $comparison = new Comparison(
            array_map(static fn (Candidate $one): array => [$one->asked, $one->seller, $one->alongside], $candidates),
            $usage,
            $business->costRates(),
            $today,
        );
        $costs = $comparison->at($units);
        $offers = [];
        foreach ($candidates as $one) {
            $offers[$one->offer->id] = $one->offer;
        }
        $chosen = null !== $for ? $for->offer() : null;
        $trip = new OneTrip();
        Landed::askExperience($trip, $today->modify('-1 year'), $item->id, null);
        Spending::askLastPrices($trip, array_keys($offers));
        OpenQuote::ask($trip, $item);
        $found = $trip->answers($this->connection);
        $landed = Landed::experienceIn($found);
        $last = Spending::lastPricesIn($found);
        $most = max([1e-9, ...array_map(static fn (LandedCost $cost): float => $cost->unit(), $costs)]);
        $longest = max([
            1,
            ...array_map(
                static fn (LandedCost $cost): int => max($cost->seller->leadTimes($cost->offer->leadDays)),
                $costs,
            ),
        ]);
        $curveEnd = max(10.0, $units->toFloat() * 2.1);

        return [
            'item' => $item,
            'proposal' => $for,
            'units' => $units,
            'usage' => $usage,
            'cards' => array_map(
                fn (LandedCost $cost): array => [
                    'cost' => $cost,
                    'offer' => $offers[$cost->offer->id],
                    'stack' => CostStack::of($cost, $most),
                    'leads' => LeadTimeStrip::of($cost->seller->leadTimesMet, $cost->offer->leadDays, $longest),
                    'onTime' => self::onTime($cost),
                    'best' => $cost === $costs[0] && null === $cost->short,
                    'current' => $chosen?->id === $cost->offer->id,
                    'lastPrice' => $last[$cost->offer->id] ?? null,
                    'experience' => $landed[$offers[$cost->offer->id]->supplier->id] ?? null,
                    'agreed' => $offers[$cost->offer->id]->agreed(),
                ],
                $costs,
            ),
            'leftOut' => $this->candidates->leftOut($item),
            'curves' => CostCurves::of(
                $comparison->curves(max(1.0, $curveEnd / 50), $curveEnd),
                array_map(static fn (Offer $offer): string => $offer->supplier->shortName(), $offers),
                $units->toFloat(),
            ),
            'split' => $comparison->split($units),
            'runnerUp' => $this->runnerUp($costs, $usage->daysUntilOut),
            'quotes' => OpenQuote::in($found),
            'rates' => $this->ratesUsed($offers, $today),
            'costRates' => $business->costRates(),
            'others' => array_values(
                array_filter(
                    $everywhere,
                    static fn (SavedProposal $place): bool => null === $place->draft() && $place->listed,
                ),
            ),
        ];
    }

    /**
     * The need of the proposals, in stock units; four weeks' use where nothing is proposed.
     *
     * @param list<SavedProposal> $places
     */
    private static function needed(array $places, float $perDay): BigDecimal
    {
        $needed = array_sum(
            array_map(
                static fn (SavedProposal $place): float => null === $place->draft() ? $place->units()->toFloat() : 0.0,
                $places,
            ),
        );

        return BigDecimal::of((string) max(1.0, $needed > 0 ? $needed : ceil(28 * $perDay)))->strippedOfTrailingZeros();
    }

    private static function onTime(LandedCost $cost): ?float
    {
        $met = $cost->seller->leadTimesMet;

        return [] === $met
            ? null
            : count(array_filter($met, static fn (int $days): bool => $days <= $cost->offer->leadDays)) / count($met);
    }

    /**
     * The cheapest against the next that would come in time.
     *
     * @param list<LandedCost> $costs
     *
     * @return array{LandedCost, float}|null the other one, and how much more it costs for the whole order
     */
    private function runnerUp(array $costs, ?float $daysUntilOut): ?array
    {
        foreach (array_slice($costs, 1) as $cost) {
            if (null === $cost->short && (null === $daysUntilOut || $cost->offer->leadDays <= $daysUntilOut)) {
                return [$cost, $cost->total() - ($costs[0]->total() * $cost->units) / $costs[0]->units];
            }
        }

        return isset($costs[1]) && null === $costs[1]->short
            ? [$costs[1], $costs[1]->total() - ($costs[0]->total() * $costs[1]->units) / $costs[0]->units]
            : null;
    }

    /**
     * @param array<int, Offer> $offers
     *
     * @return list<string>
     */
    private function ratesUsed(array $offers, \DateTimeImmutable $today): array
    {
        $days = $this->rates->daysOn($today);
        $words = [];
        foreach ($offers as $offer) {
            $code = $offer->supplier->currency()->code;
            if (isset($days[$code])) {
                $words[$code] = sprintf(
                    '1 %s = %s %s, rate of %s%s',
                    $this->business->get()->currency,
                    rtrim(rtrim($days[$code]['rate'], '0'), '.'),
                    $code,
                    (new \DateTimeImmutable($days[$code]['day']))->format('j M Y'),
                    '' === $days[$code]['source'] ? '' : ', '.$days[$code]['source'],
                );
            }
        }

        return array_values($words);
    }
}
