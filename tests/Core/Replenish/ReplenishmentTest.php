<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\Explanation;
use TallBarrel\Core\Replenish\ExplanationLine;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Need;
use TallBarrel\Core\Replenish\Note;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Replenish\Reason;
use TallBarrel\Core\Replenish\Remark;
use TallBarrel\Core\Replenish\Replenishment;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\Term;

final class ReplenishmentTest extends TestCase
{
    private const TODAY = '2026-11-23';

    /**
     * @param list<OpenOrder>     $onOrder
     * @param list<PlannedDemand> $planned
     */
    private static function propose(
        string $onHand,
        array $onOrder = [],
        string $promised = '0',
        float $perWeek = 70.0,
        float $sigma = 10.0,
        Unit $unit = Unit::Each,
        ?BuyingRule $rule = null,
        ?Policy $policy = null,
        array $planned = [],
        ?Economics $economics = null,
        bool $wholePacks = true,
        bool $asked = false,
    ): Proposal {
        return (new Replenishment())->propose(
            new Need(
                $unit,
                new Forecast('by hand', [$perWeek], $sigma, 0.1),
                LeadTime::of(6, 1.8),
                7,
                $policy ?? Policy::of(PolicyKind::CoverDays, ServiceTarget::of(ServiceTarget::CYCLE, 0.97), 14),
                $economics ?? new Economics(1.0, 4.0, 0.2, 2.0),
                BigDecimal::of($onHand),
                Coming::of($onOrder, new \DateTimeImmutable(self::TODAY)),
                BigDecimal::of($promised),
                $rule ?? BuyingRule::of(Pack::of('case', 12)),
                new \DateTimeImmutable(self::TODAY),
                $planned,
                $wholePacks,
            ),
            $asked,
        );
    }

    private static function policy(PolicyKind $kind, ?float $amount = null, ?float $minimum = null): Policy
    {
        return Policy::of($kind, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), $amount, $minimum);
    }

    private static function order(string $number, int $units, string $due): OpenOrder
    {
        return new OpenOrder($number, BigDecimal::of($units), new \DateTimeImmutable($due));
    }

    public function testTheLinesOfTheWhyAddUpToWhatIsNeeded(): void
    {
        foreach (
            [
                ['96', [], '0'],
                ['0', [self::order('PO-1', 24, '2026-11-25')], '54'],
                ['17', [], '3'],
                ['40', [self::order('PO-2', 7, '2026-11-20')], '11'],
            ] as [$held, $orders, $promised]
        ) {
            $proposal = self::propose($held, $orders, $promised);
            $sum = BigDecimal::zero();
            foreach ($proposal->explanation->lines as $line) {
                if ($line->term->isTotal()) {
                    self::assertSame($sum->toFloat(), $line->amount);
                    self::assertTrue($sum->isEqualTo($proposal->needed));
                    break;
                }
                $amount = BigDecimal::of((string) $line->amount);
                $sum = '−' === $line->sign ? $sum->minus($amount) : $sum->plus($amount);
            }
            self::assertTrue($proposal->packs->multipliedBy(12)->isGreaterThanOrEqualTo($proposal->needed));
            self::assertTrue($proposal->packs->minus(1)->multipliedBy(12)->isLessThan($proposal->needed));
        }
    }

    public function testOrdersNothingAboveTheReorderPointAndSomethingAtIt(): void
    {
        $point = (int) self::propose('0')->explanation->reorderPoint;
        self::assertSame(Reason::Covered, self::propose((string) ($point + 1))->reason);
        self::assertTrue(self::propose((string) ($point + 1))->packs->isZero());
        self::assertSame(Reason::BelowReorderPoint, self::propose((string) $point)->reason);
        self::assertTrue(self::propose((string) $point)->packs->isPositive());
    }

    public function testWhatIsOnOrderIsNotBoughtAgain(): void
    {
        self::assertSame(Reason::Covered, self::propose('20', [self::order('PO-1', 400, '2026-11-27')])->reason);
    }

    public function testAForgottenOrderDoesNotHideANeedAndIsNamed(): void
    {
        $proposal = self::propose('20', [self::order('PO-1012', 400, '2026-10-10')]);
        self::assertTrue($proposal->packs->isPositive());
        self::assertEquals(
            new Note(Remark::ForgottenOrder, ['order' => 'PO-1012', 'units' => 400.0, 'daysLate' => 44]),
            $proposal->explanation->notes[0],
        );
        self::assertSame(
            Reason::Covered,
            self::propose('20', [self::order('PO-1', 400, '2026-11-20')])->reason,
            'three days late still counts',
        );
    }

    public function testReasonsByUrgency(): void
    {
        self::assertSame(Reason::Rush, self::propose('3', [], '6')->reason);
        self::assertSame(Reason::Out, self::propose('0')->reason);
        self::assertSame(Reason::BelowSafetyStock, self::propose('10')->reason);
    }

    public function testAnItemThatNeverSellsIsLeftAlone(): void
    {
        $proposal = self::propose('0', [], '0', 0.0, 0.0);
        self::assertTrue($proposal->packs->isZero());
        self::assertNull($proposal->coverDays);
        self::assertTrue(self::propose('0', [], '4', 0.0, 0.0)->packs->isPositive(), 'unless somebody was promised it');
    }

    public function testKilogramsAreCountedInTenths(): void
    {
        $proposal = self::propose('1.5', [], '0', 3.3, 0.4, Unit::Kilogram, BuyingRule::of(Pack::of('sack', 25)));
        $total = self::totalOf($proposal->explanation);
        self::assertGreaterThan(0, $total);
        self::assertSame(round($total, 1), $total);
        self::assertNotSame(round($total), $total, 'a tenth of a kilogram counts');
        self::assertSame('1', (string) $proposal->packs);
    }

    public function testAnExplanationSurvivesBeingSaved(): void
    {
        $explanation = self::propose('20', [self::order('PO-1012', 400, '2026-10-10')])->explanation;
        self::assertEquals($explanation, Explanation::fromArray($explanation->toArray()));
    }

    public function testProjectionRunsOutWithoutAndHoldsWithTheOrder(): void
    {
        $projection = Projection::over(30, 50.0, [3 => 20.0], new Forecast('by hand', [70.0], 10.0, null), 300.0, 6);
        self::assertSame(7, $projection->outOnDay, '50 and 20 last seven days at ten a day');
        self::assertEqualsWithDelta(50 + 20 + 300 - 100, $projection->days[10]->with, 1e-9);
        self::assertSame(0.0, $projection->days[10]->without);
        self::assertGreaterThan($projection->days[20]->with, $projection->days[20]->high);
        self::assertSame(0, Projection::over(5, -3.0, [], Forecast::none(), 0.0, 5)->outOnDay);
    }

    public function testLeadTimesMetArePulledTowardsThePromiseWhereTheyAreFew(): void
    {
        self::assertSame(10.0, LeadTime::fromDeliveries(10, [])->days);
        self::assertEqualsWithDelta(2.0, LeadTime::fromDeliveries(10, [])->spread, 1e-9);
        self::assertEqualsWithDelta(12.5, LeadTime::fromDeliveries(10, [20])->days, 1e-9);
        self::assertEqualsWithDelta(20.0, LeadTime::fromDeliveries(10, array_fill(0, 400, 20))->days, 0.1);
        self::assertLessThan(1.0, LeadTime::fromDeliveries(10, array_fill(0, 400, 20))->spread);
    }

    /** Common practice, no source: 40 wanted, at 39 buy 1. */
    public function testParIsFilledUpOnceBelow(): void
    {
        $single = BuyingRule::of(Pack::of('each', 1));
        $par = self::policy(PolicyKind::Par, 40);
        self::assertSame('1', (string) self::propose('39', rule: $single, policy: $par)->packs);
        self::assertTrue(self::propose('40', rule: $single, policy: $par)->packs->isZero());
        self::assertSame(Reason::BelowMinimum, self::propose('39', rule: $single, policy: $par)->reason);
    }

    public function testMinMaxOrdersUpToTheMaximumOnlyUnderTheMinimum(): void
    {
        $single = BuyingRule::of(Pack::of('each', 1));
        $policy = self::policy(PolicyKind::MinMax, 60, 20);
        self::assertTrue(self::propose('20', rule: $single, policy: $policy)->packs->isZero());
        self::assertSame('41', (string) self::propose('19', rule: $single, policy: $policy)->packs);
        self::assertEquals(
            new ExplanationLine(Term::Maximum, '', 60.0, ['minimum' => 20.0]),
            self::propose('19', rule: $single, policy: $policy)->explanation->lines[0],
        );
    }

    public function testAFixedQuantityIsOrderedInWholeLots(): void
    {
        $single = BuyingRule::of(Pack::of('each', 1));
        $policy = self::policy(PolicyKind::FixedQuantity, 50);
        $point = (int) self::propose('0', rule: $single, policy: $policy)->explanation->reorderPoint;
        self::assertSame('50', (string) self::propose((string) $point, rule: $single, policy: $policy)->packs);
        self::assertSame('100', (string) self::propose((string) ($point - 60), rule: $single, policy: $policy)->packs);
        self::assertTrue(self::propose((string) ($point + 1), rule: $single, policy: $policy)->packs->isZero());
    }

    public function testByHandIsNeverProposedAndSaysSo(): void
    {
        $proposal = self::propose('0', policy: self::policy(PolicyKind::ByHand), asked: true);
        self::assertTrue($proposal->packs->isZero());
        self::assertEquals([new Note(Remark::OnlyByHand)], $proposal->explanation->notes);
    }

    public function testPeriodicTopsUpAtEveryReviewAndLotForLotTakesJustTheNeed(): void
    {
        $single = BuyingRule::of(Pack::of('each', 1));
        foreach ([PolicyKind::Periodic, PolicyKind::LotForLot] as $kind) {
            $level = (int) self::propose('0', rule: $single, policy: self::policy($kind))->explanation->orderUpTo;
            self::assertSame(
                '1',
                (string) self::propose((string) ($level - 1), rule: $single, policy: self::policy($kind))->packs,
            );
        }
    }

    public function testCoverForASalesValueLastsAsLongAsThatValueSells(): void
    {
        // 140 at 2.00 are 70 pieces, seven to ten days at ten a day; 560 are four weeks.
        $small = self::propose('0', policy: self::policy(PolicyKind::CoverValue, 140));
        $large = self::propose('0', policy: self::policy(PolicyKind::CoverValue, 560));
        $without = static fn (Proposal $one): float => $one->explanation->orderUpTo - $one->explanation->safetyStock;
        self::assertEqualsWithDelta(210.0, $without($large) - $without($small), 1.0);
        self::assertLessThan($small->explanation->safetyStock, $large->explanation->safetyStock, 'seldom in doubt');
    }

    public function testPlannedDemandComesOnTopAndIsALineOfTheWhy(): void
    {
        $market = new PlannedDemand('Market day', 192, new \DateTimeImmutable('2026-11-28'));
        $without = self::propose('20');
        $with = self::propose('20', planned: [$market]);
        self::assertTrue($with->needed->minus($without->needed)->isEqualTo(192));
        self::assertContainsEquals(
            new ExplanationLine(Term::Planned, '+', 192.0, ['name' => 'Market day', 'day' => '2026-11-28']),
            $with->explanation->lines,
        );
        $later = new PlannedDemand('Fair', 500, new \DateTimeImmutable('2027-05-01'));
        self::assertTrue(
            self::propose('20', planned: [$later])->needed->isEqualTo($without->needed),
            'what lies beyond the horizon waits',
        );
        self::assertSame(Reason::Planned, self::propose('260', planned: [$market])->reason);
        self::assertSame(Reason::Covered, self::propose('260')->reason);
    }

    public function testAnOrderThatComesTooLateDoesNotHelp(): void
    {
        $late = self::propose('20', [self::order('PO-9', 400, '2027-01-15')]);
        self::assertTrue($late->packs->isPositive());
        self::assertContainsEquals(
            new Note(Remark::ComesLater, ['order' => 'PO-9', 'units' => 400.0, 'day' => '2027-01-15']),
            $late->explanation->notes,
        );
    }

    public function testAPersonsWordOnALateOrderGoesBeforeTheRule(): void
    {
        $forgotten = new OpenOrder('PO-1', BigDecimal::of(400), new \DateTimeImmutable('2026-10-10'), true);
        self::assertSame(Reason::Covered, self::propose('20', [$forgotten])->reason);
        $recent = new OpenOrder('PO-2', BigDecimal::of(400), new \DateTimeImmutable('2026-11-20'), false);
        self::assertTrue(self::propose('20', [$recent])->packs->isPositive());
    }

    public function testAnOpenOrderThatWouldSaveTheDayIsNamed(): void
    {
        $proposal = self::propose('10', [self::order('PO-1037', 400, '2026-11-28')]);
        self::assertSame('PO-1037', $proposal->forward?->order);
        self::assertSame('2026-11-24', $proposal->forward->by->format('Y-m-d'));
        self::assertNull(self::propose('100', [self::order('PO-1037', 400, '2026-11-28')])->forward, 'nothing to save');
        $here = OpenOrder::inInspection(BigDecimal::of(400), new \DateTimeImmutable('2026-11-28'));
        self::assertNull(self::propose('10', [$here])->forward, 'no supplier can bring what is here already');
    }

    public function testNothingIsBoughtThatExpiresBeforeItSells(): void
    {
        $policy = self::policy(PolicyKind::CoverDays, 80);
        $fresh = self::propose('0', policy: $policy, economics: new Economics(1.0, 4.0, 0.2, 2.0, [], null, 20));
        // Ten a day until it comes (6 days) and 20 days after: 260.
        self::assertTrue($fresh->needed->isEqualTo(260));
        self::assertTrue(self::propose('0', policy: $policy)->needed->isGreaterThan(800));
    }

    /** For (c₂ − c₁) / (c₁ r) years: 5 % dearer at 20 % a year is a quarter of a year. */
    public function testBuysAheadOfAPriceRiseAsLongAsHoldingIsCheaper(): void
    {
        $rise = static fn (string $day): Economics => new Economics(
            1.0,
            4.0,
            0.2,
            2.0,
            [],
            [0.05, new \DateTimeImmutable($day)],
        );
        $plain = self::propose('20');
        $ahead = self::propose('20', economics: $rise('2026-11-27'));
        self::assertEqualsWithDelta(10 * 91.25, $ahead->needed->minus($plain->needed)->toFloat(), 1.0);
        self::assertSame(Reason::PriceRise, self::propose('260', economics: $rise('2026-11-27'))->reason);
        self::assertTrue(
            self::propose('20', economics: $rise('2026-12-27'))->needed->isEqualTo($plain->needed),
            'there is another chance before that day',
        );
    }

    public function testGoesUpToAPriceBreakThatPays(): void
    {
        $economics = static fn (float $cheaper): Economics => new Economics(1.0, 4.0, 0.2, 2.0, [
            [12.0, 1.0],
            [480.0, $cheaper],
        ]);
        $policy = self::policy(PolicyKind::CoverDays, 28);
        self::assertTrue(self::propose('0', policy: $policy, economics: $economics(0.9))->packs->isEqualTo(40));
        self::assertTrue(self::propose('0', policy: $policy, economics: $economics(0.999))->packs->isLessThan(40));
    }

    public function testACaseIsSplitOnlyWhereAllowedAndAskedFor(): void
    {
        $split = BuyingRule::of(Pack::of('case', 12), 0, 1, true);
        $need = self::propose('20', rule: $split)->needed->toInt();
        self::assertNotSame(0, $need % 12);
        self::assertTrue(self::propose('20', rule: $split)->packs->remainder(1)->isZero());
        self::assertFalse(self::propose('20', rule: $split, wholePacks: false)->packs->remainder(1)->isZero());
    }

    public function testAskedForItIsFilledUpWithoutBeingDue(): void
    {
        $point = (int) self::propose('0')->explanation->reorderPoint;
        $proposal = self::propose((string) ($point + 10), asked: true);
        self::assertSame(Reason::Asked, $proposal->reason);
        self::assertTrue($proposal->packs->isPositive());
    }

    public function testWhatWaitingCostsIsWhatAnOrderNowWouldHaveSaved(): void
    {
        // Ten a day, here in six days now and in thirteen with the next order: the seventy in between can be helped,
        // the
        // sixty before cannot. A margin of 1.00 each.
        $none = self::propose('0');
        self::assertEqualsWithDelta(70.0, $none->shortIfNot, 1.0);
        self::assertEqualsWithDelta($none->shortIfNot, $none->atRisk, 1e-9);
        self::assertEqualsWithDelta(
            70.0,
            self::propose('0', promised: '20')->shortIfNot,
            1.0,
            'nor can those who wait',
        );
        self::assertEqualsWithDelta(40.0, self::propose('90')->shortIfNot, 6.0, 'these last until day nine');
        // Exactly on the reorder point waiting is not free: the safety stock is for this delivery, not for the next.
        $point = (int) self::propose('0')->explanation->reorderPoint;
        self::assertGreaterThan(0.0, self::propose((string) $point)->atRisk);
        self::assertSame(0.0, self::propose((string) ($point + 50))->atRisk, 'nothing is proposed, nothing waits');
    }

    public function testBeforeAPriceRiseWaitingCostsTheRise(): void
    {
        $rise = new Economics(1.0, 4.0, 0.2, 2.0, [], [0.05, new \DateTimeImmutable('2026-11-27')]);
        $ahead = self::propose('260', economics: $rise);
        self::assertSame(Reason::PriceRise, $ahead->reason);
        $told = array_values(array_filter(
            $ahead->explanation->lines,
            static fn (ExplanationLine $line): bool => Term::BoughtAhead === $line->term,
        ));
        self::assertCount(1, $told);
        self::assertEqualsWithDelta(5.0, $told[0]->with['percent'], 1e-9);
        self::assertSame('2026-11-27', $told[0]->with['day']);
        $units = 12 * $ahead->packs->toFloat();
        // A twentieth of all of it, less holding half of the 912 bought ahead for 91 days at 0.20 a year.
        self::assertEqualsWithDelta(0.05 * $units - 0.5 * 912 * 0.2 * 91.2 / 365, $ahead->atRisk, 1.0);
        self::assertGreaterThan(10.0, $ahead->atRisk);
    }

    private static function totalOf(Explanation $explanation): float
    {
        foreach ($explanation->lines as $line) {
            if ($line->term->isTotal()) {
                return $line->amount;
            }
        }
        self::fail('There is no total.');
    }
}
