<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\Award\Award;
use TallBarrel\Core\Sourcing\Award\Basket;
use TallBarrel\Core\Sourcing\Award\BasketDraft;
use TallBarrel\Core\Sourcing\Award\Splitting;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Planning\SavedProposal;

/** Who should get what of the lines chosen on Reorder. */
final readonly class ShareOutBasket
{
    public const MOST_LINES = 150;

    public function __construct(
        private Candidates $candidates,
        private CurrentBusiness $business,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @param list<SavedProposal>   $proposals
     * @param array<int|string, string> $pins      supplier code by proposal id
     * @param list<string>          $forbidden supplier codes
     *
     * @return array<string, mixed>
     */
    public function of(array $proposals, array $pins, array $forbidden): array
    {
        [$basket, $offers, $costs, $names, $parts] = $this->basket($proposals);
        $handling = $this->business->get()->orderCost()->toFloat();
        $free = Splitting::of($basket, $basket->best(), $parts, $handling);
        $wished = $free;
        if ([] !== $pins || [] !== $forbidden) {
            $asWished = $basket->wished($pins, $forbidden);
            $wished = Splitting::of($asWished, $asWished->best(), $parts, $handling);
        }
        $byLine = $basket->cheapestLineByLine();
        $alone = [];
        foreach (array_keys($basket->suppliers) as $supplier) {
            $one = $basket->allFrom((string) $supplier);
            if ([] === $one->unmet && [] !== $one->chosen) {
                $alone[(string) $supplier] = $one;
            }
        }
        uasort($alone, static fn (Award $a, Award $b): int => $a->cost() <=> $b->cost());
        $asItIs = $basket->valued(
            array_filter(
                array_map(
                    static fn (SavedProposal $proposal): string => $proposal->offer()?->supplier->code ?? '',
                    self::byId($proposals),
                ),
                static fn (string $code): bool => '' !== $code,
            ),
        );

        return [
            'proposals' => self::byId($proposals),
            'basket' => $basket,
            'offers' => $offers,
            'costs' => $costs,
            'names' => $names,
            'award' => $wished,
            'free' => $free,
            'wishCost' => $wished->cost() - $free->cost(),
            'asItIs' => [] === $asItIs->unmet || $asItIs->unmet === $free->unmet ? $asItIs : null,
            'byLine' => $byLine,
            'alone' => array_slice($alone, 0, 3, true),
            'pins' => $pins,
            'forbidden' => $forbidden,
        ];
    }

    /**
     * The basket as Core takes it.
     *
     * @param list<SavedProposal> $proposals
     *
     * @return array{Basket, array<int|string, array<int|string, Offer>>, array<int|string, array<int|string,
     *      LandedCost>>, array<int|string, string>, BasketDraft} with offers and landed costs by line and supplier,
     *      suppliers' names, and what parts of lines would cost
     */
    public function basket(array $proposals): array
    {
        $candidates = $this->candidates->of(
            array_values(
                array_unique(array_map(static fn (SavedProposal $proposal): int => $proposal->item->id, $proposals)),
            ),
            false,
        );
        $business = $this->business->get();
        $draft = new BasketDraft(
            $business->costRates(),
            $business->orderCost()->toFloat(),
            $this->clock->now()->setTime(0, 0),
        );
        $offers = $costs = $names = [];
        foreach ($proposals as $proposal) {
            $draft->line($proposal->id);
            $usage = $this->candidates->usage($proposal->item, [$proposal]);
            foreach ($candidates[$proposal->item->id] ?? [] as $candidate) {
                $code = $candidate->offer->supplier->code;
                $cost = $draft->ask(
                    $proposal->id,
                    $code,
                    $candidate->asked,
                    $candidate->seller,
                    $proposal->units(),
                    $usage,
                );
                if (null !== $cost) {
                    $offers[$proposal->id][$code] = $candidate->offer;
                    $costs[$proposal->id][$code] = $cost;
                    $names[$code] = $candidate->seller->name;
                }
            }
        }

        return [$draft->basket(), $offers, $costs, $names, $draft];
    }

    /**
     * @param list<SavedProposal> $proposals
     *
     * @return array<int|string, SavedProposal>
     */
    private static function byId(array $proposals): array
    {
        $by = [];
        foreach ($proposals as $proposal) {
            $by[(string) $proposal->id] = $proposal;
        }

        return $by;
    }
}
