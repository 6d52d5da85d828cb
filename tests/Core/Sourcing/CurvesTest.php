<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Sourcing\Alongside;
use TallBarrel\Core\Sourcing\Comparison;
use TallBarrel\Core\Sourcing\CostRates;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\LandedCost;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\OrderMinimum;
use TallBarrel\Core\Sourcing\PriceBreaks;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Core\Sourcing\Usage;

/** What is drawn, listed and proposed is one sum: over drawn offers a curve's points are what the card would say. */
final class CurvesTest extends TestCase
{
    private Randomizer $drawn;
    private Usage $usage;
    private CostRates $rates;
    private \DateTimeImmutable $today;

    protected function setUp(): void
    {
        $this->drawn = new Randomizer(new Mt19937(2611));
        $this->usage = new Usage(4.0, 9.0, 0.35);
        $this->rates = new CostRates(6.0, 18.0, 1.5);
        $this->today = new \DateTimeImmutable('2026-11-23');
    }

    /** @return array{OfferTerms, Seller, Alongside} */
    private function bid(int $id): array
    {
        $draw = $this->drawn->getInt(...);
        $price = $draw(50, 300) / 100;
        $from = $draw(5, 20);
        $prices = sprintf('1=%.2f %d=%.2f %d=%.2f', $price, $from, 0.93 * $price, 3 * $from, 0.88 * $price);
        $foreign = 0 === $draw(0, 2);

        return [
            new OfferTerms(
                $id,
                $id,
                BuyingRule::of(Pack::of('case', $draw(1, 24)), $draw(1, 4), [1, 2, 3, 20][$draw(0, 3)]),
                PriceBreaks::read($prices),
                $foreign ? ExchangeRate::of('EUR', 'USD', '1.1') : ExchangeRate::of('EUR', 'EUR', 1),
                1,
                $draw(2, 30),
                null,
                (float) $draw(0, 6),
                $draw(1, 50) / 100,
            ),
            new Seller(
                $id,
                'Supplier '.$id,
                0 === $draw(0, 1) ? null : PaymentTerms::net(30, $draw(0, 3), 10),
                null,
                FreightTariff::readSteps('0=9 30=18 100=45', 0 === $draw(0, 1) ? 400.0 : null),
                0 === $draw(0, 1) ? OrderMinimum::none() : OrderMinimum::of(60.0),
                [$draw(2, 10), $draw(5, 20)],
                0 === $draw(0, 1) ? 1.0 : 1.2,
            ),
            0 === $draw(0, 1) ? new Alongside() : new Alongside(120.0, 15.0, 4.0),
        ];
    }

    /** @param array{OfferTerms, Seller, Alongside} $bid */
    private function cost(array $bid, string $units): LandedCost
    {
        return LandedCost::of($bid[0], $bid[1], $units, $this->usage, $this->rates, $this->today, $bid[2]);
    }

    public function testEveryPointOfACurveIsWhatSoManyWouldCost(): void
    {
        for ($round = 0; $round < 25; ++$round) {
            $bids = array_map($this->bid(...), range(1, 3));
            $curves = (new Comparison($bids, $this->usage, $this->rates, $this->today))->curves(5.0, 900.0);
            foreach ($bids as $bid) {
                $before = 0.0;
                foreach ($curves[$bid[0]->id] ?? [] as $stretch) {
                    foreach ($stretch as [$units, $unitCost]) {
                        $cost = $this->cost($bid, (string) $units);
                        self::assertEqualsWithDelta($units, $cost->units, 1e-9, 'it can be bought');
                        self::assertEqualsWithDelta($cost->unit(), $unitCost, 1e-9);
                        self::assertGreaterThan($before, $units, 'from left to right, each once');
                        $before = $units;
                    }
                }
                self::assertGreaterThan(0.0, $before, 'every offer has a curve');
            }
        }
    }

    public function testACurveIsBrokenJustWhereAPriceBegins(): void
    {
        for ($round = 0; $round < 25; ++$round) {
            $bid = $this->bid(1);
            $curve = (new Comparison([$bid], $this->usage, $this->rates, $this->today))->curves(5.0, 900.0)[1];
            $content = $bid[0]->rule->pack->content;
            $price = static fn (array $point): string => (string) $bid[0]->prices
                ->priceFor(BigDecimal::of((string) $point[0])->dividedBy($content, 6, RoundingMode::HalfUp))
                ->strippedOfTrailingZeros();
            $prices = array_map(
                static fn (array $stretch): array => array_values(array_unique(array_map($price, $stretch))),
                $curve,
            );
            foreach ($prices as $ofStretch) {
                self::assertCount(1, $ofStretch, 'one price along a stretch');
            }
            $flat = array_merge(...$prices);
            self::assertSame(array_values(array_unique($flat)), $flat, 'and another on the next');
        }
    }

    /** The cheapest that reaches its minimum comes first, and those that do not come last. */
    public function testOffersAreListedByWhatOneCosts(): void
    {
        for ($round = 0; $round < 40; ++$round) {
            $bids = array_map($this->bid(...), range(1, 5));
            $units = $this->drawn->getInt(1, 400);
            $costs = (new Comparison($bids, $this->usage, $this->rates, $this->today))->at($units);
            self::assertCount(5, $costs);
            $order = array_map(
                static fn (LandedCost $cost): array => [null === $cost->short ? 0 : 1, round($cost->unit(), 12)],
                $costs,
            );
            $sorted = $order;
            sort($sorted);
            self::assertSame($sorted, $order);
            foreach ($costs as $cost) {
                self::assertEqualsWithDelta(array_sum($cost->parts), $cost->total(), 1e-9);
                self::assertGreaterThanOrEqual($units, $cost->units, 'no fewer than are needed');
                self::assertEqualsWithDelta(
                    $this->cost($bids[$cost->offer->id - 1], (string) $units)->total(),
                    $cost->total(),
                    1e-9,
                );
            }
        }
    }

    /** No split that a search over all pairs and price breaks finds is cheaper than the one that is proposed. */
    public function testNoSplitBetweenTwoIsCheaperThanTheOneProposed(): void
    {
        $found = 0;
        for ($round = 0; $round < 40; ++$round) {
            $bids = array_map($this->bid(...), range(1, 3));
            $need = $this->drawn->getInt(20, 400);
            $comparison = new Comparison($bids, $this->usage, $this->rates, $this->today);
            $single = $comparison->at($need)[0];
            $split = $comparison->split($need);
            if (null !== $single->short) {
                self::assertNull($split);
                continue;
            }
            $best = INF;
            foreach ($bids as $i => $first) {
                $starts = [$first[0]->rule->packsFor(1)];
                foreach ($first[0]->prices->byPacks() as $step) {
                    $starts[] = $step['from']->toScale(0, RoundingMode::Up);
                }
                foreach ($starts as $packs) {
                    $units = $first[0]->rule->pack->toStockUnits($packs);
                    if (!$units->isPositive() || !$units->isLessThan($need)) {
                        continue;
                    }
                    $part = $this->cost($first, (string) $units);
                    $left = $need - $part->units;
                    foreach ($bids as $j => $second) {
                        if ($i === $j || $left <= 0 || null !== $part->short) {
                            continue;
                        }
                        $rest = $this->cost($second, (string) $left);
                        if (null === $rest->short) {
                            $best = min($best, $part->total() + $rest->total());
                        }
                    }
                }
            }
            $worth = $single->total() - $best > 0.005 * $single->total();
            self::assertSame($worth, null !== $split, sprintf('round %d', $round));
            if (null !== $split) {
                ++$found;
                self::assertEqualsWithDelta($best, $split[0]->total() + $split[1]->total(), 1e-9);
                self::assertEqualsWithDelta($single->total() - $best, $split[2], 1e-9);
            }
        }
        self::assertGreaterThan(0, $found, 'some of the draws are worth splitting');
    }
}
