<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Coming;
use TallBarrel\Core\Replenish\CoverBasis;
use TallBarrel\Core\Replenish\Economics;
use TallBarrel\Core\Replenish\ExplanationLine;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Levels;
use TallBarrel\Core\Replenish\Need;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\PlannedDemand;
use TallBarrel\Core\Replenish\Policy;
use TallBarrel\Core\Replenish\PolicyKind;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Replenish\Replenishment;
use TallBarrel\Core\Replenish\Requirement;
use TallBarrel\Core\Replenish\RoundedToPacks;
use TallBarrel\Core\Replenish\ServiceTarget;
use TallBarrel\Core\Replenish\StockPosition;
use TallBarrel\Core\Replenish\Term;

/**
 * The steps from a need to packs, worked by hand: ten a day without any doubt, six days of delivery, an order a week.
 * No safety stock, so that every figure is a product of days and tens.
 */
final class NeedToPacksTest extends TestCase
{
    private const TODAY = '2026-11-23';
    /** 6 days of delivery and 7 until the next order, at 10 a day. */
    private const POINT = 130.0;

    /**
     * @param list<OpenOrder>     $orders
     * @param list<PlannedDemand> $planned
     */
    private static function need(
        string $onHand = '0',
        string $promised = '0',
        array $orders = [],
        array $planned = [],
        ?Policy $policy = null,
        ?Economics $economics = null,
        ?BuyingRule $rule = null,
        Unit $unit = Unit::Each,
        bool $wholePacks = true,
        float $sigma = 0.0,
    ): Need {
        return new Need(
            $unit,
            new Forecast('by hand', [70.0], $sigma, null),
            LeadTime::of(6),
            7,
            $policy ?? self::policy(PolicyKind::CoverDays, 14),
            $economics ?? new Economics(1.0, 4.0, 0.2, 2.0),
            BigDecimal::of($onHand),
            Coming::of($orders, new \DateTimeImmutable(self::TODAY)),
            BigDecimal::of($promised),
            $rule ?? BuyingRule::of(Pack::of('case', 12)),
            new \DateTimeImmutable(self::TODAY),
            $planned,
            $wholePacks,
        );
    }

    private static function policy(PolicyKind $kind, ?float $amount = null, ?float $minimum = null): Policy
    {
        return Policy::of($kind, ServiceTarget::of(ServiceTarget::CYCLE, 0.95), $amount, $minimum);
    }

    private static function levels(Need $need): Levels
    {
        return Levels::of($need->policy, $need->forecast, $need->leadTime, $need->reviewDays, $need->economics);
    }

    private static function position(Need $need): StockPosition
    {
        return new StockPosition($need, self::levels($need));
    }

    private static function required(Need $need, bool $asked = false): Requirement
    {
        return new Requirement($need, self::levels($need), self::position($need), $asked);
    }

    private static function order(string $units, string $due): OpenOrder
    {
        return new OpenOrder('PO-1', BigDecimal::of($units), new \DateTimeImmutable($due));
    }

    public function testAPositionIsWhatThereIsAndComesInTimeLessWhatIsPromised(): void
    {
        // Day 13 is the 6th of December: in time for the next order. Day 20 is within reach only, day 21 is not.
        $orders = [
            self::order('5', '2026-12-06'),
            self::order('7', '2026-12-07'),
            self::order('9', '2026-12-13'),
            self::order('11', '2026-12-14'),
        ];
        $position = self::position(self::need('100', '30', $orders));
        self::assertSame([13.0, 20.0], [$position->horizon, $position->reach]);
        self::assertSame(['70', '75', '21'], [
            (string) $position->free,
            (string) $position->position,
            (string) $position->coming,
        ]);
        self::assertSame([self::POINT, 200.0], [$position->reorderPoint->toFloat(), $position->level->toFloat()]);
        self::assertSame(['200', '109'], [(string) $position->upTo, (string) $position->target]);
    }

    public function testTheSafetyStockIsPartOfThePoint(): void
    {
        $need = self::need(sigma: 20.0);
        $safety = ceil(self::levels($need)->safety);
        self::assertGreaterThan(0.0, $safety);
        self::assertSame(self::POINT + $safety, self::position($need)->reorderPoint->toFloat());
    }

    public function testPlannedDemandRaisesThePointWithinTheHorizonAndTheLevelWithinReach(): void
    {
        $planned = [
            new PlannedDemand('Today', 1.0, new \DateTimeImmutable(self::TODAY)),
            new PlannedDemand('Yesterday', 1000.0, new \DateTimeImmutable('2026-11-22')),
            new PlannedDemand('At the horizon', 10.0, new \DateTimeImmutable('2026-12-06')),
            new PlannedDemand('Within reach', 20.0, new \DateTimeImmutable('2026-12-13')),
            new PlannedDemand('Beyond', 500.0, new \DateTimeImmutable('2026-12-14')),
        ];
        $position = self::position(self::need('100', planned: $planned));
        self::assertSame(11.0, $position->plannedSoon->toFloat());
        self::assertSame(self::POINT + 11, $position->reorderPoint->toFloat());
        self::assertSame(['Today', 'At the horizon', 'Within reach'], array_map(
            static fn (array $one): string => $one[0]->name,
            $position->planned,
        ));
        self::assertSame(231.0, $position->upTo->toFloat());
    }

    /** @return iterable<string, array{PolicyKind, string, bool}> */
    public static function points(): iterable
    {
        yield 'at the reorder point' => [PolicyKind::OrderUpTo, '130', true];
        yield 'one above it' => [PolicyKind::OrderUpTo, '131', false];
        yield 'at the minimum' => [PolicyKind::MinMax, '20', false];
        yield 'one under it' => [PolicyKind::MinMax, '19', true];
        yield 'at par' => [PolicyKind::Par, '60', false];
        yield 'one under par' => [PolicyKind::Par, '59', true];
        yield 'topped up at every review' => [PolicyKind::Periodic, '129', true];
        yield 'nothing to top up' => [PolicyKind::Periodic, '130', false];
        yield 'by hand, however little' => [PolicyKind::ByHand, '0', false];
    }

    #[DataProvider('points')]
    public function testWhenAPolicyHasItOrdered(PolicyKind $kind, string $onHand, bool $below): void
    {
        $needs = [PolicyKind::MinMax, PolicyKind::Par];
        $policy = self::policy(
            $kind,
            in_array($kind, $needs, true) ? 60.0 : null,
            PolicyKind::MinMax === $kind ? 20.0 : null,
        );
        $need = self::need($onHand, policy: $policy);
        self::assertSame($below, self::position($need)->isBelow($kind));
        self::assertSame($below, self::required($need)->due);
    }

    public function testAskedForItIsDueWhileSomethingIsWanted(): void
    {
        self::assertTrue(self::required(self::need('199'), true)->due);
        self::assertFalse(self::required(self::need('200'), true)->due, 'nothing is wanted');
        self::assertFalse(self::required(self::need('199'), true)->below, 'asked for is not short');
        self::assertSame('1', (string) self::required(self::need('199'), true)->ordered);
        self::assertSame('0', (string) self::required(self::need('199'))->ordered);
        self::assertSame('1', (string) self::required(self::need('199'))->missing);
    }

    public function testALotIsOrderedAsOftenAsIsNeeded(): void
    {
        $lots = static fn (string $onHand): Requirement => self::required(
            self::need($onHand, policy: self::policy(PolicyKind::FixedQuantity, 50)),
        );
        foreach (
            ['130' => '50', '81' => '50', '80' => '50', '79' => '100', '30' => '100', '29' => '150'] as $on => $lot
        ) {
            self::assertSame($lot, (string) $lots((string) $on)->ordered, $on.' on hand');
        }
        self::assertNull($lots('131')->lot, 'no lot where nothing is due');
    }

    public function testBoughtAheadOfAPriceRiseForAsLongAsHoldingCostsLess(): void
    {
        // 2 % dearer against 20 % a year: a tenth of a year, 36.5 days, 365 pieces. Source: Silver, Pyke & Peterson
        // 5.6.
        $rise = static fn (string $day, float $share = 0.02): Economics => new Economics(
            1.0,
            4.0,
            0.2,
            2.0,
            priceRise: [$share, new \DateTimeImmutable($day)],
        );
        $ahead = static fn (string $onHand, Economics $economics): Requirement => self::required(
            self::need($onHand, economics: $economics),
        );
        self::assertSame(['365', '435'], [
            (string) $ahead('130', $rise('2026-11-30'))->ahead,
            (string) $ahead('130', $rise('2026-11-30'))->ordered,
        ]);
        self::assertNull($ahead('130', $rise('2026-12-01'))->rise, 'there is another chance before it');
        self::assertNull($ahead('130', $rise(self::TODAY))->rise, 'today it is too late');
        self::assertNull($ahead('130', $rise('2026-11-30', 0.0))->rise);
        // Not due: 365 ahead less the 200 that are there beyond the level; below a pack it is left.
        self::assertSame('165', (string) $ahead('400', $rise('2026-11-30'))->ordered);
        self::assertSame('12', (string) $ahead('553', $rise('2026-11-30'))->ordered);
        self::assertSame('0', (string) $ahead('554', $rise('2026-11-30'))->ordered);
        // Never further than half a year.
        self::assertSame('1820', (string) $ahead('130', $rise('2026-11-30', 0.9))->ahead);
    }

    /** Par 60 with 40 there needs 20, however cheap 100 are, and however dear they become tomorrow. */
    public function testAMaximumIsAMaximum(): void
    {
        $cheap = new Economics(1.0, 4.0, 0.2, 2.0, [[1.0, 1.0], [100.0, 0.1]]);
        $rise = new Economics(1.0, 4.0, 0.2, 2.0, priceRise: [0.5, new \DateTimeImmutable('2026-11-30')]);
        $each = BuyingRule::of(Pack::of('each', 1));
        foreach ([self::policy(PolicyKind::Par, 60), self::policy(PolicyKind::MinMax, 60, 50)] as $policy) {
            foreach ([$cheap, $rise] as $economics) {
                $need = self::need('40', policy: $policy, economics: $economics, rule: $each);
                $required = self::required($need);
                self::assertSame('20', (string) $required->ordered);
                self::assertSame('20', (string) (new RoundedToPacks($need, $required, 14.0))->packs);
            }
        }
    }

    public function testALevelIsExceededForALowerPriceOnlyWhereThatIsAllowedAndTheExtraIsWorkedOut(): void
    {
        $cheap = new Economics(1.0, 4.0, 0.2, 2.0, [[1.0, 1.0], [100.0, 0.9]]);
        $each = BuyingRule::of(Pack::of('each', 1));
        $target = ServiceTarget::of(ServiceTarget::CYCLE, 0.95);
        $rounded = static function (bool $beyond) use ($cheap, $each, $target): RoundedToPacks {
            $need = self::need(
                '40',
                policy: Policy::of(PolicyKind::Par, $target, 100.0, null, $beyond),
                economics: $cheap,
                rule: $each,
            );

            return new RoundedToPacks($need, self::required($need), 14.0);
        };
        self::assertSame('60', (string) $rounded(false)->packs);
        self::assertNull($rounded(false)->upToBreak);
        $more = $rounded(true);
        self::assertSame('100', (string) $more->packs, '60 wanted, 100 at a tenth less');
        self::assertEqualsWithDelta(10.0, $more->saves, 1e-9, 'a hundred at 0.10 less each');
        // 40 too many at 0.90 and 20 % a year wait the 6 days that 60 last, then half of their own 4.
        self::assertEqualsWithDelta((40 * 0.9 * 0.2) / 365 * (6 + 2), $more->costs, 1e-9);
        foreach ([PolicyKind::OrderUpTo, PolicyKind::Periodic, PolicyKind::Par, PolicyKind::MinMax] as $kind) {
            self::assertFalse(Policy::of($kind, $target, 10.0, 5.0)->mayGoBeyond());
            self::assertTrue(Policy::of($kind, $target, 10.0, 5.0, true)->mayGoBeyond());
        }
        self::assertTrue(Policy::of(PolicyKind::CoverDays, $target, 10.0)->mayGoBeyond(), 'no level was asked for');
    }

    public function testNothingIsOrderedThatDoesNotSellWhileItKeeps(): void
    {
        $keeps = static fn (int $days, string $onHand): Requirement => self::required(
            self::need($onHand, economics: new Economics(1.0, 4.0, 0.2, 2.0, shelfDays: $days)),
        );
        // 6 days of delivery and 10 on the shelf: 160 sell, 100 are there.
        self::assertSame(['60', '40'], [
            (string) $keeps(10, '100')->ordered,
            (string) $keeps(10, '100')->tooMuch,
        ]);
        self::assertSame(['100', '0'], [(string) $keeps(14, '100')->ordered, (string) $keeps(14, '100')->tooMuch]);
        self::assertSame('0', (string) $keeps(4, '100')->ordered, 'what is there lasts that long already');
    }

    public function testRoundsUpToPacksAndSaysHowManyItWouldBeExactly(): void
    {
        $rounded = static function (Need $need): RoundedToPacks {
            return new RoundedToPacks($need, self::required($need), self::position($need)->reach);
        };
        $need = $rounded(self::need('100'));
        self::assertSame(['9', '8.3'], [(string) $need->needed, (string) $need->exact]);
        self::assertNull($need->upToBreak);
        $split = BuyingRule::of(Pack::of('case', 12), split: true);
        self::assertSame('9', (string) $rounded(self::need('100', rule: $split))->packs, 'whole ones, unless asked');
        self::assertSame(
            '8.334',
            (string) $rounded(self::need('100', rule: $split, wholePacks: false))->packs,
            'a thousandth of a case more than 100 pieces, never less',
        );
    }

    public function testGoesUpToAPriceBreakExactlyWhereItPays(): void
    {
        // 100 are needed at 1.00; from 120 on, at p. Dearer to reach it from p such that
        // 120 p + 20 p × 0.2 / 365 × (100 / 10 + 2 / 2) = 100 × 1.00 + 20 × 1.00.
        $edge = 120 / (120 + 20 * 0.2 / 365 * (10 + 1));
        $single = BuyingRule::of(Pack::of('each', 1));
        $packs = static function (float $price, bool $incremental = false, ?int $shelf = null) use ($single): string {
            $economics = new Economics(1.0, 4.0, 0.2, 2.0, [[1, 1.0], [120, $price]], null, $shelf, $incremental);
            $need = self::need('100', economics: $economics, rule: $single);

            return (string) (new RoundedToPacks($need, self::required($need), self::position($need)->reach))->packs;
        };
        self::assertSame('120', $packs($edge - 1e-6));
        self::assertSame('100', $packs($edge + 1e-6));
        self::assertSame('100', $packs(0.5, true), 'a break for what goes beyond has no edge to reach');
        self::assertSame('120', $packs(0.5, shelf: 22));
        self::assertSame('100', $packs(0.5, shelf: 21), 'the last would not sell in time');
    }

    public function testLevelsOfEachPolicy(): void
    {
        $levels = static fn (PolicyKind $kind, ?float $amount = null, ?float $minimum = null): Levels => self::levels(
            self::need(policy: self::policy($kind, $amount, $minimum)),
        );
        $days = $levels(PolicyKind::CoverDays, 14);
        self::assertSame([14.0, CoverBasis::AsAsked, 200.0], [$days->coverDays, $days->basis, $days->orderUpTo]);
        self::assertSame(7.0, $levels(PolicyKind::CoverDays, 3)->coverDays, 'never shorter than until the next order');
        $value = $levels(PolicyKind::CoverValue, 560);
        self::assertSame([28.0, CoverBasis::ForSalesValue], [$value->coverDays, $value->basis]);
        self::assertSame(91.0, $levels(PolicyKind::CoverValue, 99_999)->coverDays, 'a quarter at most');
        $periodic = $levels(PolicyKind::Periodic);
        self::assertSame([7.0, self::POINT, self::POINT], [
            $periodic->coverDays,
            $periodic->reorderPoint,
            $periodic->orderUpTo,
        ]);
        $range = $levels(PolicyKind::MinMax, 60, 20);
        self::assertSame([20.0, 60.0, 0.0], [$range->reorderPoint, $range->orderUpTo, $range->safety]);
        $fixed = $levels(PolicyKind::FixedQuantity, 50);
        self::assertSame([50.0, self::POINT + 50], [$fixed->lot, $fixed->orderUpTo]);
        // √(2 × 3650 × 4 / 0.2) = 382.1 pieces, 38.2 days (Harris 1913).
        $economic = $levels(PolicyKind::OrderUpTo);
        self::assertEqualsWithDelta(sqrt(2 * 3650 * 4 / 0.2) / 10, $economic->coverDays, 1e-9);
        self::assertSame(CoverBasis::EconomicQuantity, $economic->basis);
        $nothing = Levels::of(
            self::policy(PolicyKind::OrderUpTo),
            Forecast::none(),
            LeadTime::of(6),
            3,
            new Economics(1.0, 4.0, 0.2),
        );
        self::assertSame([7.0, CoverBasis::NothingSells], [$nothing->coverDays, $nothing->basis]);
    }

    public function testTheLinesOfAFixedLotAndOfPacksAreTold(): void
    {
        $proposal = self::proposed(self::need('100', policy: self::policy(PolicyKind::FixedQuantity, 50)));
        $lines = $proposal->explanation->lines;
        self::assertEquals(
            [
                new ExplanationLine(Term::ForecastUntilNext, '', self::POINT, ['lead' => 6.0, 'review' => 7]),
                new ExplanationLine(
                    Term::SafetyStock,
                    '+',
                    0.0,
                    ['target' => ServiceTarget::CYCLE, 'level' => 0.95, 'spread' => 0.0],
                ),
                new ExplanationLine(Term::OnHand, '−', 100.0),
                new ExplanationLine(Term::OnOrder, '−', 0.0),
                new ExplanationLine(Term::Promised, '+', 0.0),
                new ExplanationLine(Term::Needed, '', 30.0),
                new ExplanationLine(Term::InLots, '', 50.0, ['lot' => 50.0]),
                new ExplanationLine(Term::InPacks, '', 5.0, ['exact' => 4.2, 'pack' => 'case', 'content' => 12.0]),
            ],
            $lines,
        );
        self::assertSame(50.0, $proposal->needed->toFloat());
        self::assertSame(10.0, $proposal->coverDays);
    }

    public function testHowLongItLastsAndWhenItIsDue(): void
    {
        self::assertSame(7.0, self::proposed(self::need('200'))->dueInDays, '70 pieces above the point');
        self::assertSame(0.0, self::proposed(self::need('130'))->dueInDays);
        self::assertSame(0.0, self::proposed(self::need('10', '30'))->coverDays, 'more is promised than there is');
    }

    private static function proposed(Need $need): Proposal
    {
        return (new Replenishment())->propose($need);
    }
}
