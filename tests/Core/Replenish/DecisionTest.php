<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Demand\Newcomers;
use TallBarrel\Core\Demand\ValueClass;
use TallBarrel\Core\Demand\WeeklyHistory;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Ordering\OrderDays;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Adjustment;
use TallBarrel\Core\Replenish\Background;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\DemandRecord;
use TallBarrel\Core\Replenish\Evidence;
use TallBarrel\Core\Replenish\Finding;
use TallBarrel\Core\Replenish\ItemSite;
use TallBarrel\Core\Replenish\KnownForecast;
use TallBarrel\Core\Replenish\Move;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\PlanningOptions;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\Remark;
use TallBarrel\Core\Replenish\SellsLike;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Steering;
use TallBarrel\Core\Replenish\StockNow;
use TallBarrel\Core\Replenish\SupplierTerms;
use TallBarrel\Core\Replenish\Way;
use TallBarrel\Core\Replenish\Ways;
use TallBarrel\Core\Sourcing\OfferTerms;
use TallBarrel\Core\Sourcing\PriceBreaks;

/**
 * One item at its sites, from what is known to what is to be done.
 *
 * @phpstan-import-type ForecastData from Forecast
 */
final class DecisionTest extends TestCase
{
    use Deciding;

    private const WEEKLY = 10.0;

    public function testWhatIsShortIsListedAndTickedWithWhatItIsWorth(): void
    {
        [$finding] = self::decide([self::place(1, 2)]);
        self::assertTrue($finding->listed && $finding->chosen);
        self::assertSame(Reason::BelowReorderPoint, $finding->outcome->proposal->reason);
        $packs = $finding->packs->toInt();
        self::assertGreaterThan(1, $packs);
        self::assertSame(sprintf('%d.00', 24 * $packs), (string) $finding->value()?->amount);
        self::assertSame((string) $finding->value()?->amount, (string) $finding->homeValue()?->amount);
        self::assertSame(6.0 * $packs, $finding->weightKg());
        self::assertSame('A-smooth', $finding->outcome->class);
        self::assertNotNull($finding->shortage);
        self::assertSame(2, $finding->shortage->outInDays, '2 of 10 a week are gone on the second day');
    }

    public function testWhatIsCoveredIsNotListed(): void
    {
        [$finding] = self::decide([self::place(1, 500)]);
        self::assertFalse($finding->listed || $finding->chosen);
        self::assertSame('0', (string) $finding->packs);
        self::assertNull($finding->shortage);
    }

    public function testDraftedPutOffAndUnsoldPlacesAreListedButNotTicked(): void
    {
        foreach (
            [
                [new Steering(draft: 4), null],
                [new Steering(putOff: true), null],
                [new Steering(), []],
            ] as [$steering, $offers]
        ) {
            [$finding] = self::decide([self::place(1, 2, $steering)], $offers);
            self::assertTrue($finding->listed);
            self::assertFalse($finding->chosen);
        }
        [$finding] = self::decide(
            [self::place(1, 2)],
            null,
            self::background(PlanningOptions::of(PlanningOptions::NOTHING)),
        );
        self::assertFalse($finding->chosen, 'starting from nothing, nothing is ticked');
    }

    /** What one starts from says which of what is due is looked at. */
    public function testAListHoldsWhatOneStartsFrom(): void
    {
        /** @param array<int, true>|null $items */
        $listed = static function (string $start, ItemSite $place, ?array $items = null): bool {
            $options = PlanningOptions::of($start, null, PlanningOptions::LISTED === $start ? 1 : null);
            [$finding] = self::decide([$place], null, self::background($options, [], $items));

            return $finding->listed;
        };
        $short = self::place(1, 2);
        $enough = self::place(1, 500);
        self::assertTrue($listed(PlanningOptions::DUE, $short));
        self::assertFalse($listed(PlanningOptions::DUE, $enough));
        self::assertTrue($listed(PlanningOptions::STAPLES, self::place(1, 2, staple: true)));
        self::assertFalse($listed(PlanningOptions::STAPLES, $short));
        self::assertFalse($listed(PlanningOptions::STAPLES, self::place(1, 500, staple: true)));
        self::assertTrue($listed(PlanningOptions::LISTED, $short, [7 => true]));
        self::assertFalse($listed(PlanningOptions::LISTED, $short, [8 => true]));
        self::assertFalse($listed(PlanningOptions::LISTED, $enough, [7 => true]));
        $unsold = PlanningOptions::of(PlanningOptions::LISTED, null, 1);
        [$finding] = self::decide([$short], [], self::background($unsold, [], [7 => true]));
        self::assertTrue($finding->listed, 'due, though nobody sells it');
        self::assertTrue($listed(PlanningOptions::MINIMUM, self::place(1, 4, promised: 30)), 'a customer waits');
        self::assertFalse($listed(PlanningOptions::MINIMUM, $short), 'due, but not below a minimum');
        self::assertFalse($listed(PlanningOptions::MINIMUM, $enough));
    }

    /** Ten times what four weeks take is said. */
    public function testAPackThatLastsTooLongIsPointedOut(): void
    {
        $odd = static function (int $content, float $weekly): array {
            $record = new DemandRecord(WeeklyHistory::of(array_fill(0, 60, $weekly), array_fill(0, 60, 0)));
            $offer = new OfferTerms(1, 1, BuyingRule::of(Pack::of('box', $content), 1, 1), PriceBreaks::read('9'),
                ExchangeRate::of('EUR', 'EUR', 1), 1, 7);
            [$finding] = self::decide([self::place(1, 0, null, $record)], [$offer]);

            return array_map(static fn (Note $note): Remark => $note->remark, $finding->odd);
        };
        self::assertSame([], $odd(120, 10.0), 'twelve weeks');
        self::assertSame([], $odd(400, 10.0), 'just ten times');
        self::assertSame([Remark::ManyMonths], $odd(401, 10.0));
    }

    public function testAnotherSitesSurplusComesBeforeBuyingAndIsGivenOnce(): void
    {
        [$first, $second, $third] = self::decide([self::place(1, 0), self::place(2, 0), self::place(3, 200)]);
        self::assertSame([3], array_map(static fn (Move $move): int => $move->site, $first->moves));
        $all = [...$first->moves, ...$second->moves];
        $given = array_sum(array_map(static fn (Move $move): float => $move->units, $all));
        self::assertLessThan(200 - 2 * self::WEEKLY, $given, 'what it needs itself stays');
        self::assertGreaterThan(2 * self::WEEKLY, $given);
        self::assertSame([], $third->moves);
        [$alone] = self::decide([self::place(1, 0)]);
        self::assertTrue($first->packs->isLessThan($alone->packs), 'less is bought where another site gives');
    }

    /** A customer waits for 8; what the shop has lasts 49 days, no more than it is to be brought up to. */
    public function testAWaitingCustomerIsWorthWhatAnotherSiteRisks(): void
    {
        $depot = self::place(1, 0, promised: 8);
        [$waits, $shop] = self::decide([$depot, self::place(2, 70)]);
        self::assertSame(Reason::Covered, $shop->outcome->proposal->reason);
        self::assertSame([2], array_map(static fn (Move $move): int => $move->site, $waits->moves));
        self::assertGreaterThanOrEqual(8.0, $waits->moves[0]->units);
        self::assertGreaterThan($waits->moves[0]->risks, $waits->moves[0]->saves);
        // The shop would be empty itself before anything could come: not a unit beyond the customer's.
        [$waits] = self::decide([$depot, self::place(2, 16)]);
        self::assertSame([8.0], array_map(static fn (Move $move): float => $move->units, $waits->moves));
        // Nothing goes that way; and what is not worth a journey is bought.
        $closed = self::background(ways: new Ways([2 => [1 => null]]));
        [$waits] = self::decide([$depot, self::place(2, 70)], null, $closed);
        self::assertSame([], $waits->moves);
        [$low] = self::decide(
            [self::place(1, 12), self::place(2, 70)],
            null,
            self::background(ways: new Ways([2 => [1 => Way::of(1, 500.0)]])),
        );
        self::assertSame([], $low->moves);
        self::assertTrue($low->packs->isPositive());
    }

    /** What a site gives that is due itself, it buys again in the same order. */
    public function testWhatIsGivenByASiteThatIsDueIsBoughtForIt(): void
    {
        [$alone] = self::decide([self::place(2, 12)]);
        self::assertTrue($alone->packs->isPositive());
        [$waits, $gives] = self::decide([self::place(1, 0, promised: 12), self::place(2, 12)]);
        self::assertSame([12.0], array_map(static fn (Move $move): float => $move->units, $waits->moves));
        self::assertTrue($gives->packs->isGreaterThan($alone->packs));
    }

    /** Jars cost 2 and sell for 5: each of the eight a customer waits for is worth 3. */
    public function testWhatGoesToAWaitingCustomerSavesItsMargin(): void
    {
        [$waits] = self::decide([self::place(1, 0, promised: 8), self::place(2, 16)]);
        [$move] = $waits->moves;
        self::assertSame(8.0, $move->units);
        self::assertEqualsWithDelta(24.0, $move->saves, 1e-6);
        self::assertGreaterThan(0.0, $move->risks);
        self::assertLessThan(24.0, $move->risks);
    }

    /** As many weeks ahead as a delivery and the time until the next order take, begun weeks counted whole. */
    public function testAForecastLooksAsFarAsTheOrderAfterTheNextOne(): void
    {
        $horizon = static fn (int $leadDays): int => self::decide(
            [self::place(1, 2)],
            [self::offer(1, 1, '24.00', 1, $leadDays)],
        )[0]->outcome->forecast()->horizon;
        self::assertSame([2, 2, 3, 3, 5], array_map($horizon, [6, 7, 13, 14, 28]), 'nothing comes on a Sunday');
    }

    public function testFiveOtherSuppliersAreNamedAndNoMore(): void
    {
        $offers = [self::offer(1, 1, '24.00', 1)];
        for ($id = 2; $id <= 8; ++$id) {
            $offers[] = self::offer($id, 2, sprintf('%d.00', 10 + $id), $id);
        }
        [$finding] = self::decide([self::place(1, 2)], $offers);
        $others = array_filter(
            $finding->outcome->evidence->considered,
            static fn (Note $note): bool => Remark::OtherSupplier === $note->remark,
        );
        self::assertCount(5, $others);
    }

    public function testTheFirstChoiceIsBoughtFromAndTheOthersAreNamed(): void
    {
        [$finding] = self::decide(
            [self::place(1, 2)],
            [self::offer(1, 1, '24.00', 1), self::offer(2, 2, '18.00', 2, 5)],
        );
        self::assertSame(1, $finding->outcome->sourced->offer?->id);
        self::assertEquals(
            [
                new Note(Remark::OtherSupplier, [
                    'supplier' => 'Ostrel',
                    'cost' => 1.5,
                    'chosen' => 2.0,
                    'second' => 1,
                    'days' => 5,
                ]),
            ],
            $finding->outcome->evidence->considered,
        );
    }

    public function testWhatIsNewIsDrawnTowardsWhatIsLikeItOnceAndSaysSo(): void
    {
        $background = self::background(alike: new Newcomers(['Jars' => [[5.0, 4.0], [5.0, 5.0], [6.0, 6.0]]]));
        $record = new DemandRecord(WeeklyHistory::of([40], [0]));
        [$finding] = self::decide([self::place(1, 2, null, $record)], background: $background);
        self::assertEqualsWithDelta((40 + 8 * 5) / 9, $finding->outcome->forecast()->over(7), 0.01);
        self::assertEquals(
            [new Note(Remark::FewWeeks, ['weeks' => 1, 'usual' => 5.0])],
            $finding->outcome->evidence->considered,
        );
        [$alone] = self::decide([self::place(1, 2, null, $record)]);
        self::assertLessThan(
            0.7 * $alone->outcome->proposal->needed->toFloat(),
            $finding->outcome->proposal->needed->toFloat(),
        );
        // What is kept is taken as it is, not drawn a second time.
        $kept = $finding->outcome->known;
        [$again] = self::decide([self::place(1, 2, null, $record)], background: $background, known: [
            '7:1' => new KnownForecast($kept->key, $kept->forecast),
        ]);
        self::assertEqualsWithDelta($kept->forecast->over(7), $again->outcome->forecast()->over(7), 1e-9);
        $old = new DemandRecord(WeeklyHistory::of(array_fill(0, 26, 40), array_fill(0, 26, 0)));
        [$finding] = self::decide([self::place(1, 2, null, $old)], background: $background);
        self::assertEqualsWithDelta(40.0, $finding->outcome->forecast()->over(7), 0.5, 'it speaks for itself');
    }

    /** What never sold is not drawn towards others, nor what sells like another, nor what rests on a chosen past. */
    public function testOnlyWhatHasSoldForShortIsDrawnTowardsOthers(): void
    {
        $alike = new Newcomers(['Jars' => [[5.0, 4.0], [5.0, 5.0], [6.0, 6.0]]]);
        $drawn = static function (DemandRecord $record, ?PlanningOptions $options = null) use ($alike): bool {
            [$finding] = self::decide(
                [self::place(1, 2, null, $record)],
                background: self::background($options, alike: $alike),
            );

            return in_array(Remark::FewWeeks, array_map(
                static fn (Note $note): Remark => $note->remark,
                $finding->outcome->evidence->considered,
            ), true);
        };
        $short = WeeklyHistory::of([40, 30], [0, 0]);
        $like = new SellsLike('OLD', WeeklyHistory::of(array_fill(0, 60, 20.0), array_fill(0, 60, 0)), 0.5);
        self::assertTrue($drawn(new DemandRecord($short)));
        self::assertFalse($drawn(new DemandRecord(WeeklyHistory::of([0, 0], [0, 0]))));
        self::assertFalse($drawn(new DemandRecord($short, $like)));
        self::assertFalse($drawn(new DemandRecord(WeeklyHistory::of(array_fill(0, 26, 40), array_fill(0, 26, 0)))));
        self::assertTrue($drawn(new DemandRecord(WeeklyHistory::of(array_fill(0, 25, 40), array_fill(0, 25, 0)))));
        self::assertFalse($drawn(
            new DemandRecord($short),
            PlanningOptions::of(PlanningOptions::DUE, history: PlanningOptions::LATELY),
        ));
    }

    public function testANewItemSellsLikeTheOneItWasSaidToUntilItHasAHistoryOfItsOwn(): void
    {
        $like = new SellsLike('OLD', WeeklyHistory::of(array_fill(0, 60, 20.0), array_fill(0, 60, 0)), 0.5);
        foreach ([12 => true, 13 => false] as $weeks => $standsIn) {
            $record = new DemandRecord(WeeklyHistory::of(array_fill(0, $weeks, 1.0), array_fill(0, $weeks, 0)), $like);
            [$finding] = self::decide([self::place(1, 2, null, $record)]);
            self::assertEqualsWithDelta(
                $standsIn ? 10.0 : 1.0,
                $finding->outcome->forecast()->over(7),
                1.5,
                $weeks.' weeks',
            );
            self::assertEquals(
                $standsIn ? [new Note(Remark::SellsLike, ['item' => 'OLD', 'factor' => 0.5])] : [],
                $finding->outcome->evidence->considered,
            );
        }
    }

    /**
     * Thirty weeks of 4, twenty-four of 10 and six of 16: the mean of the last four, the same weeks a year ago, and a
     * range in the middle.
     */
    public function testAForecastRestsOnTheHistoryThatWasChosen(): void
    {
        $weeks = [...array_fill(0, 30, 4.0), ...array_fill(0, 24, 10.0), ...array_fill(0, 6, 16.0)];
        $record = new DemandRecord(WeeklyHistory::of($weeks, array_fill(0, 60, 0)));
        $forecast = static function (PlanningOptions $options) use ($record): array {
            [$finding] = self::decide([self::place(1, 2, null, $record)], null, self::background($options));
            $made = $finding->outcome->forecast();

            return [$made->method, round($made->week(0), 6)];
        };
        self::assertSame(
            ['mean of the last 4 weeks', 16.0],
            $forecast(PlanningOptions::of(PlanningOptions::DUE, history: PlanningOptions::LATELY)),
        );
        self::assertSame(
            ['the same weeks last year', 4.0],
            $forecast(PlanningOptions::of(PlanningOptions::DUE, history: PlanningOptions::LAST_YEAR)),
        );
        $range = PlanningOptions::of(
            PlanningOptions::DUE,
            history: PlanningOptions::RANGE,
            from: '2026-07-06',
            to: '2026-09-06',
        );
        self::assertSame(['mean of 2026-07-06 to 2026-09-06', 10.0], $forecast($range));
    }

    /** Closed until the second of December: what waits for that is said. */
    public function testDaysOnWhichNobodyTakesAnOrderAreSaid(): void
    {
        $shut = OrderDays::of([], '14:00', [['2026-11-23', '2026-12-01']]);
        $background = new Background(
            self::now(),
            PlanningOptions::usual(),
            [1 => new SupplierTerms('Vetrasol', $shut, [])],
            [7 => ValueClass::A],
            [],
            [],
            [],
            null,
            null,
            null,
            4.0,
            0.2,
            new Newcomers(),
            new Ways(),
        );
        [$open] = self::decide([self::place(1, 2)]);
        [$closed] = self::decide([self::place(1, 2)], null, $background);
        $said = static fn (Finding $finding): array => array_map(
            static fn (Note $note): string => $note->remark->value.' '.json_encode($note->with),
            $finding->outcome->evidence->considered,
        );
        self::assertSame([], $said($open));
        self::assertContains('waits {"days":9}', $said($closed));
        self::assertTrue($closed->outcome->proposal->needed->isGreaterThan($open->outcome->proposal->needed));
    }

    public function testAPersonsAdjustmentRaisesTheForecastUntilItsDay(): void
    {
        $record = new DemandRecord(
            WeeklyHistory::of(array_fill(0, 60, self::WEEKLY), array_fill(0, 60, 0)),
            null,
            [],
            [new Adjustment(50.0, self::now()->modify('+14 days'), 'a fair')],
        );
        [$finding] = self::decide([self::place(1, 2, null, $record)]);
        self::assertEqualsWithDelta(15.0, $finding->outcome->forecast()->over(7), 0.2);
        self::assertEqualsWithDelta(
            10.0,
            $finding->outcome->forecast()->over(28) - $finding->outcome->forecast()->over(21),
            0.2,
        );
        self::assertContainsEquals(
            new Note(Remark::Adjusted, ['percent' => 50.0, 'until' => '2026-12-07', 'reason' => 'a fair']),
            $finding->outcome->evidence->considered,
        );
    }

    /** More than a quarter off, and a tracking signal beyond 15: ten a week at 2.00 a piece, a third of it astray. */
    public function testAForecastLeansWhereBothItsSignsSaySo(): void
    {
        [$first] = self::decide([self::place(1, 2)]);
        $with = static function (float $bias, float $tracking) use ($first): Finding {
            $forecast = new Forecast('by hand', [10.0], 1.0, null, bias: $bias, tracking: $tracking);
            [$finding] = self::decide([self::place(1, 2)], known: [
                '7:1' => new KnownForecast($first->outcome->known->key, $forecast),
            ]);

            return $finding;
        };
        foreach ([[0.25, 40.0], [-0.25, -40.0], [0.5, 15.0], [-0.5, -15.0], [0.0, 0.0]] as [$bias, $tracking]) {
            self::assertNull($with($bias, $tracking)->outcome->astray(), "$bias and $tracking");
            self::assertSame([], $with($bias, $tracking)->odd);
        }
        self::assertEqualsWithDelta(0.3 * 10 * 2.0, $with(0.3, 15.1)->outcome->astray(), 1e-9);
        self::assertEquals([new Note(Remark::ForecastTooHigh)], $with(0.3, 15.1)->odd);
        self::assertEqualsWithDelta(0.4 * 10 * 2.0, $with(-0.4, -15.1)->outcome->astray(), 1e-9);
        self::assertEquals([new Note(Remark::ForecastTooLow)], $with(-0.4, -15.1)->odd);
    }

    public function testAForecastThatStillHoldsIsNotMadeAgain(): void
    {
        [$first] = self::decide([self::place(1, 2)]);
        $known = ['7:1' => $first->outcome->known];
        [$second] = self::decide([self::place(1, 90)], null, null, $known);
        self::assertSame($first->outcome->known->key, $second->outcome->known->key, 'stock does not change it');
        $record = new DemandRecord(WeeklyHistory::of([...array_fill(0, 59, self::WEEKLY), 30.0], array_fill(0, 60, 0)));
        [$third] = self::decide([self::place(1, 2, null, $record)], null, null, $known);
        self::assertNotSame($first->outcome->known->key, $third->outcome->known->key, 'another week does');
    }

    /** Its whole finding, on histories drawn so that no forecast is a round number. */
    public function testWhatWasKeptProposesWhatItProposedWhenItWasNew(): void
    {
        $drawn = new Randomizer(new Mt19937(20261127));
        foreach ([0.3, 2.0, 17.0, 130.0] as $mean) {
            $weeks = array_map(
                static fn (): float => round($mean * $drawn->getInt(0, 2000) / 1000),
                range(1, 110),
            );
            $place = self::place(1, 1, null, new DemandRecord(WeeklyHistory::of($weeks, array_fill(0, 110, 0))));
            [$new] = self::decide([$place]);
            $forecast = $new->outcome->known->forecast;
            self::assertEquals($forecast->rounded(), $forecast, 'with no more digits than are kept');
            /** @var ForecastData $kept */
            $kept = json_decode(
                json_encode($forecast->toArray(), \JSON_THROW_ON_ERROR),
                true,
                flags: \JSON_THROW_ON_ERROR,
            );
            $known = ['7:1' => new KnownForecast($new->outcome->known->key, Forecast::fromArray($kept))];
            self::assertEquals([$new], self::decide([$place], null, null, $known));
        }
    }

    public function testItsOwnPolicyComesBeforeThatOfItsClassAndItsServiceLevelBeforeThePolicys(): void
    {
        $own = Policy::of(PolicyKind::Par, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), 40.0);
        [$finding] = self::decide([self::place(1, 39, new Steering($own))]);
        self::assertSame(
            [PolicyKind::Par, '1'],
            [$finding->outcome->policy->kind, (string) $finding->outcome->proposal->needed],
        );
        [$finding] = self::decide([self::place(1, 2, new Steering(service: 0.99))]);
        self::assertSame(0.99, $finding->outcome->policy->target->level);
        [$finding] = self::decide(
            [self::place(1, 2)],
            null,
            self::background(PlanningOptions::of(PlanningOptions::COVER, 30.0), coverDays: 30.0),
        );
        self::assertSame(PolicyKind::CoverDays, $finding->outcome->policy->kind);
    }

    public function testWhatIsOddIsPointedOut(): void
    {
        [$finding] = self::decide(
            [self::place(1, 2)],
            null,
            self::background(lastPrices: [1 => BigDecimal::of('20.00')]),
        );
        self::assertEquals([new Note(Remark::PriceJump, ['percent' => 20.0])], $finding->odd);
        [$finding] = self::decide(
            [self::place(1, 2)],
            null,
            self::background(lastPrices: [1 => BigDecimal::of('21.90')]),
        );
        self::assertSame([], $finding->odd, 'under a tenth is none');
        [$finding] = self::decide(
            [self::place(1, 2)],
            [
                new OfferTerms(
                    1,
                    1,
                    BuyingRule::of(Pack::of('pallet', 900), 1, 1),
                    PriceBreaks::read('900'),
                    ExchangeRate::of('EUR', 'EUR', 1),
                    1,
                    7,
                ),
            ],
        );
        self::assertEquals([new Note(Remark::ManyMonths, ['times' => 22.5])], $finding->odd);
    }

    public function testACustomerWhoWaitsIsARushAndWhatIsMissedCounts(): void
    {
        [$finding] = self::decide([self::place(1, 4, promised: 30)]);
        self::assertSame(Reason::Rush, $finding->outcome->proposal->reason);
        self::assertSame(0, $finding->shortage?->outInDays);
        self::assertGreaterThanOrEqual(5.0 * 26, $finding->shortage->sales, '26 of them at 5.00 are owed');
    }

    /** Enough for the forecast, but not for what is planned before a delivery could come. */
    public function testPlannedDemandBeforeTheNextDeliveryIsAShortage(): void
    {
        $on = static fn (int $units, int $days): array => [
            new PlannedDemand('fair', $units, self::now()->modify(sprintf('+%d days', $days))),
        ];
        [$plain] = self::decide([self::place(1, 30)]);
        self::assertNull($plain->shortage);
        [$fair] = self::decide([self::place(1, 30, planned: $on(50, 2))]);
        self::assertSame(2, $fair->shortage?->outInDays);
        self::assertGreaterThanOrEqual(5.0 * 20, $fair->shortage->sales, 'at least twenty are missed, at 5.00');
        [$later] = self::decide([self::place(1, 30, planned: $on(50, 40))]);
        self::assertNull($later->shortage, 'an order sent now is here by then');
    }

    public function testTheEvidenceIsKeptAndReadAgainUnchanged(): void
    {
        $today = self::now()->setTime(0, 0);
        $coming = Coming::of([new OpenOrder('PO-1', BigDecimal::of('24.5'), $today->modify('+3 days'), true)], $today);
        $place = self::place(1, 2, coming: $coming);
        $place = new ItemSite(
            $place->item,
            1,
            $place->record,
            new StockNow($place->stock->onHand, $coming, BigDecimal::zero(), [
                new PlannedDemand('Fair', 12.0, $today->modify('+5 days')),
            ]),
        );
        [$finding] = self::decide([$place]);
        $data = $finding->outcome->evidence->toArray();
        self::assertSame([['PO-1', 24.5, '2026-11-26', true]], $data['arrivals']);
        self::assertSame([['Fair', 12.0, '2026-11-28']], $data['planned']);
        self::assertSame($data, Evidence::fromArray($data, $today->getTimezone())->toArray());
        self::assertCount(52, $data['sold']);
    }
}
