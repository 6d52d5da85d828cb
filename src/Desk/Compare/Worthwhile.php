<?php

declare(strict_types=1);

namespace TallBarrel\Desk\Compare;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\Comparison;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Planning\Board;
use TallBarrel\Store\Planning\ContestedLine;
use TallBarrel\Store\Site\Site;
use TallBarrel\Work\Sourcing\Candidates;

/** Proposals several suppliers could fill, and what another one than the chosen would save. */
final readonly class Worthwhile
{
    /** So many are looked at, those for most money. */
    public const MOST = 30;

    public function __construct(
        private Board $board,
        private Candidates $candidates,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @return list<array{line: ContestedLine, suppliers: int, chosen: LandedCost|null, best: LandedCost,
     *      saved: float}> what saves most first
     */
    public function of(?Site $site): array
    {
        $lines = $this->board->withSeveralSuppliers($site, self::MOST);
        $bids = $this->candidates->bids(
            array_values(
                array_unique(array_map(static fn (ContestedLine $line): int => $line->item, $lines)),
            ),
        );
        $rates = $this->business->get()->costRates();
        $today = $this->clock->now()->setTime(0, 0);
        $rows = [];
        foreach ($lines as $line) {
            $comparison = new Comparison($bids[$line->item] ?? [], $line->usage, $rates, $today);
            $costs = $comparison->at($line->units->isPositive() ? $line->units : 1);
            if (count($costs) < 2) {
                continue;
            }
            $chosen =
                array_values(
                    array_filter(
                        $costs,
                        static fn (LandedCost $cost): bool => $cost->offer->id === $line->offer,
                    ),
                )[0] ?? null;
            $rows[] = [
                'line' => $line,
                'suppliers' => count($costs),
                'chosen' => $chosen,
                'best' => $costs[0],
                'saved' => null === $chosen
                        ? 0.0
                        : max(0.0, ($chosen->unit() - $costs[0]->unit()) * $line->units->toFloat()),
            ];
        }
        usort($rows, static fn (array $a, array $b): int => $b['saved'] <=> $a['saved']);

        return $rows;
    }
}
