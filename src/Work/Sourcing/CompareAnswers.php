<?php

declare(strict_types=1);

namespace TallBarrel\Work\Sourcing;

use Brick\Math\BigDecimal;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Clock\ClockInterface;
use TallBarrel\Core\Sourcing\Award\BasketDraft;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Core\Sourcing\Usage;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Business\Rates;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Planning\Proposals;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\QuoteRound;

/** The answers to a round beside each other, by the same sum as offers, and who should get what. */
final readonly class CompareAnswers
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Candidates $candidates,
        private Proposals $proposals,
        private CurrentBusiness $business,
        private Rates $rates,
        private ClockInterface $clock,
    ) {
    }

    /**
     * @return array{costs: array<int, array<int, LandedCost>>, given: array<int, array<int, BigDecimal>>,
     *      total: float|null, orders: int,
     *      noRate: list<string>} landed costs and suggested quantities by item and quote
     */
    public function of(QuoteRound $round): array
    {
        $today = $this->clock->now()->setTime(0, 0);
        $rates = $this->rates->allOn($today);
        $business = $this->business->get();
        $draft = new BasketDraft($business->costRates(), $business->orderCost()->toFloat(), $today);
        $costs = $noRate = [];
        foreach ($round->items() as $item) {
            $usage =
                null === $item->item
                    ? new Usage(0.0, null, 0.0)
                    : $this->candidates->usage($item->item, $this->proposals->ofItem($item->item->id));
            $draft->line($item->id);
            foreach ($round->quotes() as $quote) {
                $answer = $quote->standing();
                $rate = $rates[$quote->supplier->currency()->code] ?? null;
                if (null !== $answer && null === $rate) {
                    $noRate[$quote->id] = sprintf(
                        '%s quotes in %s, for which there is no exchange rate up to today.',
                        $quote->supplier->name(),
                        $quote->supplier->currency()->code,
                    );
                }
                $offer =
                    null === $answer || null === $rate
                        ? null
                        : $answer->asOffer($item, $rate, $this->duty($quote, $item));
                if (null === $answer || null === $offer || null === $rate) {
                    continue;
                }
                $seller = $answer->asSeller($this->candidates->seller($quote->supplier));
                $units = $answer->supplies($item, $item->needed());
                if (!$units->isPositive()) {
                    continue;
                }
                $costs[$item->id][$quote->id] = LandedCost::of(
                    $offer,
                    $seller,
                    $units,
                    $usage,
                    $business->costRates(),
                    $today,
                );
                if ($units->isGreaterThanOrEqualTo($item->needed())) {
                    $draft->ask($item->id, $quote->id, $offer, $seller, $units, $usage);
                }
            }
        }
        $award = $draft->basket()->best();
        $given = [];
        foreach ($award->chosen as $item => $quote) {
            $given[(int) $item][(int) $quote] = BigDecimal::of(
                (string) $costs[(int) $item][(int) $quote]->units,
            )->strippedOfTrailingZeros();
        }

        return [
            'costs' => $costs,
            'given' => $given,
            'total' => [] === $award->chosen ? null : $award->cost(),
            'orders' => count($award->shares),
            'noRate' => array_values($noRate),
        ];
    }

    /** What customs took of their offer for it so far. */
    private function duty(Quote $quote, QuoteItem $item): float
    {
        $known =
            null === $item->item
                ? null
                : $this->entities
                    ->getRepository(Offer::class)
                    ->findOneBy(['supplier' => $quote->supplier, 'item' => $item->item]);

        return $known?->dutyPercent()->toFloat() ?? 0.0;
    }
}
