<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Replenish;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\Demand\Forecast;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Replenish\Explanation;
use TallBarrel\Core\Replenish\LeadTime;
use TallBarrel\Core\Replenish\Need;
use TallBarrel\Core\Replenish\OpenOrder;
use TallBarrel\Core\Replenish\OrderUpTo;
use TallBarrel\Core\Replenish\Projection;
use TallBarrel\Core\Replenish\Proposal;
use TallBarrel\Core\Replenish\Reason;

final class OrderUpToTest extends TestCase
{
    private const TODAY = '2026-11-23';

    /** @param list<OpenOrder> $onOrder */
    private static function propose(string $onHand, array $onOrder = [], string $promised = '0', float $perWeek = 70.0, float $sigma = 10.0, Unit $unit = Unit::Each, ?BuyingRule $rule = null): Proposal
    {
        return (new OrderUpTo())->propose(new Need(
            $unit, new Forecast('by hand', [$perWeek], $sigma, .1), LeadTime::of(6, 1.8), 7, 14, .97,
            BigDecimal::of($onHand), $onOrder, BigDecimal::of($promised), $rule ?? BuyingRule::of(Pack::of('case', 12)), new \DateTimeImmutable(self::TODAY),
        ));
    }

    private static function order(string $number, int $units, string $due): OpenOrder
    {
        return new OpenOrder($number, BigDecimal::of($units), new \DateTimeImmutable($due));
    }

    public function testTheLinesOfTheWhyAddUpToWhatIsNeeded(): void
    {
        foreach ([['96', [], '0'], ['0', [self::order('PO-1', 24, '2026-11-25')], '54'], ['17', [], '3'], ['40', [self::order('PO-2', 7, '2026-11-20')], '11']] as [$held, $orders, $promised]) {
            $proposal = self::propose($held, $orders, $promised);
            $sum = BigDecimal::zero();
            foreach ($proposal->explanation->lines as $line) {
                if ($line->total) {
                    self::assertSame(number_format($sum->toFloat()).' pcs', $line->figure);
                    self::assertTrue($sum->isEqualTo($proposal->needed));
                    break;
                }
                $figure = str_replace(',', '', $line->figure);
                $sum = '−' === $line->sign ? $sum->minus($figure) : $sum->plus($figure);
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
        self::assertStringContainsString('PO-1012, 400 pcs, is 44 days late', implode(' ', $proposal->explanation->notes));
        self::assertSame(Reason::Covered, self::propose('20', [self::order('PO-1', 400, '2026-11-20')])->reason, 'three days late still counts');
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
        $proposal = self::propose('1.5', [], '0', 3.3, .4, Unit::Kilogram, BuyingRule::of(Pack::of('sack', 25)));
        self::assertStringEndsWith(' kg', self::totalOf($proposal->explanation));
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
        self::assertEqualsWithDelta(50 + 20 + 300 - 100, $projection->with[10], 1e-9);
        self::assertSame(0.0, $projection->without[10]);
        self::assertGreaterThan($projection->with[20], $projection->high[20]);
        self::assertSame(0, Projection::over(5, -3.0, [], Forecast::none(), 0.0, 5)->outOnDay);
    }

    public function testLeadTimesMetArePulledTowardsThePromiseWhereTheyAreFew(): void
    {
        self::assertSame(10.0, LeadTime::fromDeliveries(10, [])->days);
        self::assertEqualsWithDelta(2.0, LeadTime::fromDeliveries(10, [])->spread, 1e-9);
        self::assertEqualsWithDelta(12.5, LeadTime::fromDeliveries(10, [20])->days, 1e-9);
        self::assertEqualsWithDelta(20.0, LeadTime::fromDeliveries(10, array_fill(0, 400, 20))->days, .1);
        self::assertLessThan(1.0, LeadTime::fromDeliveries(10, array_fill(0, 400, 20))->spread);
    }

    private static function totalOf(Explanation $explanation): string
    {
        foreach ($explanation->lines as $line) {
            if ($line->total) {
                return $line->figure;
            }
        }
        self::fail('There is no total.');
    }
}
