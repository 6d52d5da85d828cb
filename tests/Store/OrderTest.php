<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Money\Money;
use TallBarrel\Core\Ordering\BudgetBasis;
use TallBarrel\Core\Ordering\BudgetUse;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Budgets;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Planning\PlanningData;
use TallBarrel\Work\Keeping\AskedBudget;
use TallBarrel\Work\Keeping\SetBudget;

final class OrderTest extends StoreTestCase
{
    public function testOverTheLimitItWaitsForSomebodyHigher(): void
    {
        $order = self::draft('100.00', 26);
        try {
            $order->approve(self::person('mara'), self::now());
            self::fail('2,600 is over Mara’s limit.');
        } catch (Refused $refused) {
            self::assertStringContainsString('over Mara’s limit', $refused->getMessage());
        }
        self::assertSame(OrderState::Draft, $order->state());
        $order->awaitApproval();
        $order->approve(self::person('rowan'), self::now());
        self::assertSame(OrderState::Approved, $order->state());
        self::assertSame('Rowan', $order->approvedBy()?->firstName());
    }

    public function testExactlyTheLimitIsWithinIt(): void
    {
        $order = self::draft('100.00', 25);
        $order->approve(self::person('mara'), self::now());
        self::assertSame(OrderState::Approved, $order->state());
    }

    public function testLinesAreFixedOnceSent(): void
    {
        $order = self::draft('10.00', 3);
        $order->approve(self::person('mara'), self::now());
        $order->send(self::now());
        self::assertSame(1, $order->revision());
        $this->expectExceptionMessage('its lines are fixed');
        $order->lines()[0]->change(BigDecimal::of(9), BigDecimal::of(10));
    }

    public function testItDoesNotGoOutWithAFactMissing(): void
    {
        $order = self::draft('10.00', 3);
        $order->supplier->contact()?->change('Kay', '', '');
        $order->approve(self::person('mara'), self::now());
        $this->expectExceptionMessage('cannot go out yet: no email address');
        $order->send(self::now());
    }

    public function testDraftsDoNotCountInPlanningSentOrdersDo(): void
    {
        $order = self::draft('10.00', 3);
        $code = $order->lines()[0]->item?->code;
        $onOrder = static fn (): int => count(
            array_values(
                array_filter(
                    self::get(PlanningData::class)->itemSites(
                        self::now()->setTime(0, 0),
                        self::get(PlanningData::class)->items(),
                    ),
                    static fn ($place): bool => $place->item->code === $code,
                ),
            )[0]->stock->coming->orders,
        );
        self::assertSame(0, $onOrder());
        $order->approve(self::person('mara'), self::now());
        $order->send(self::now());
        self::entities()->flush();
        self::assertSame(1, $onOrder());
    }

    public function testWhatIsDraftedWaitsOrIsSentIsSpokenForAndCountsOnce(): void
    {
        $parts = static function (): array {
            $use = self::get(Budgets::class)->of(self::now());

            return array_map(
                static fn (Money $money): float => $money->amount->toFloat(),
                [$use->sent, $use->waiting, $use->drafted, $use->left() ?? $use->sent],
            );
        };
        $before = $parts();
        $since = static fn (): array => array_map(
            static fn (float $now, float $then): float => round($now - $then, 2),
            $parts(),
            $before,
        );
        $order = self::draft('10.00', 3);
        self::assertSame([0.0, 0.0, 30.0, -30.0], $since(), 'drafted');
        $order->awaitApproval();
        self::entities()->flush();
        self::assertSame([0.0, 30.0, 0.0, -30.0], $since(), 'waiting for approval');
        $order->approve(self::person('mara'), self::now());
        self::entities()->flush();
        self::assertSame([0.0, 30.0, 0.0, -30.0], $since(), 'approved');
        $order->send(self::now());
        self::entities()->flush();
        self::assertSame([30.0, 0.0, 0.0, -30.0], $since(), 'sent');
        $order->lines()[0]->receive(BigDecimal::of(1));
        $order->lines()[0]->closeShort();
        self::entities()->flush();
        self::assertSame([10.0, 0.0, 0.0, -10.0], $since(), 'two of three will never come');
        $next = self::get(Budgets::class)->months(self::now()->modify('+1 month'), self::now(), 1);
        self::assertSame($parts()[0], $next[self::now()->format('Y-m')]->sent->amount->toFloat());
        self::assertTrue($next[self::now()->modify('first day of next month')->format('Y-m')]->sent->isZero());
        self::assertSame($parts()[2], $next[self::now()->modify('first day of next month')->format(
            'Y-m',
        )]->drafted->amount->toFloat(), 'what is not sent counts in the month that runs');
    }

    public function testACancelledDraftIsNotSpokenFor(): void
    {
        $before = self::get(Budgets::class)->of(self::now())->spokenFor();
        $order = self::draft('10.00', 3);
        $order->cancel();
        self::entities()->flush();
        self::assertEquals($before, self::get(Budgets::class)->of(self::now())->spokenFor());
    }

    public function testAMonthMayHaveABudgetOfItsOwn(): void
    {
        $problems = new Problems();
        $month = self::now()->format('Y-m');
        $next = self::now()->modify('first day of next month')->format('Y-m');
        $set = self::get(SetBudget::class);
        $budget = static fn (): array => array_map(
            static fn (BudgetUse $use): ?string => null === $use->budget
                ? null
                : (string) $use->budget->rounded()->amount,
            self::get(Budgets::class)->months(self::now(), self::now(), 1),
        );
        $asked = static fn (?int $usual, ?int $now, ?int $then): AskedBudget => new AskedBudget(
            null === $usual ? null : BigDecimal::of($usual),
            [
                $month => null === $now ? null : BigDecimal::of($now),
                $next => null === $then ? null : BigDecimal::of($then),
            ],
            [],
            BudgetBasis::Ordering,
        );
        $set->set($asked(5000, 800, null), null, $problems);
        self::assertSame([$month => '800.00', $next => '5000.00'], $budget());
        $set->set($asked(null, null, 0), null, $problems);
        self::assertSame([$month => null, $next => '0.00'], $budget(), 'nothing may be ordered is not no budget');
        self::assertTrue($problems->areNone());
        $set->set($asked(-1, null, 1000000000), null, $problems);
        self::assertStringContainsString('-1 is out of range', (string) $problems->at('usual'));
        self::assertStringContainsString('1000000000 is out of range', (string) $problems->at($next));
        self::assertSame([$month => null, $next => '0.00'], $budget(), 'nothing is saved');
    }

    /** 50 % when ordering, the rest 30 days after it comes: half of an order of today is December's or later. */
    public function testMoneyMayCountInTheMonthItIsPaid(): void
    {
        $order = self::draft('10.00', 6);
        self::entities()->getConnection()->executeStatement(
            'UPDATE supplier SET net_days = 30, end_of_month = 0, discount_percent = 0, instalments = \'\',
                deposit_percent = 50 WHERE id = ?',
            [$order->supplier->id],
        );
        $paid = $order->dueOn()->modify('+30 days')->format('Y-m');
        $month = self::now()->format('Y-m');
        self::assertNotSame($month, $paid);
        $months = static fn (): array => self::get(Budgets::class)->months(self::now(), self::now(), 4);
        $ordered = $months();
        self::get(CurrentBusiness::class)->get()->countBudget(BudgetBasis::Paying);
        $counted = $months();
        $order->cancel();
        self::entities()->flush();
        $without = $months();
        foreach ([$month => 30.0, $paid => 30.0] as $in => $part) {
            self::assertSame($part, $counted[$in]->drafted->minus($without[$in]->drafted)->amount->toFloat(), $in);
        }
        self::assertTrue($ordered[$paid]->drafted->isZero());
    }

    public function testACategoryMayHaveABudgetOfItsOwn(): void
    {
        $problems = new Problems();
        $order = self::draft('10.00', 3);
        $category = $order->lines()[0]->item?->category() ?? '';
        $budgets = self::get(Budgets::class);
        $limits = [$category => BigDecimal::of(20), 'Other' => BigDecimal::of(5)];
        self::get(SetBudget::class)->set(new AskedBudget(null, [], $limits, BudgetBasis::Ordering), null, $problems);
        $uses = $budgets->byCategory(self::now());
        self::assertSame('20', (string) $uses[$category]->budget?->amount->toScale(0));
        self::assertGreaterThanOrEqual(30.0, $uses[$category]->drafted->amount->toFloat());
        self::assertTrue($uses['Other']->spokenFor()->isZero());
        self::assertEqualsCanonicalizing([$category, 'Other'], array_column($budgets->limited(self::now()), 1));
    }

    public function testSomebodyElsesChangeOfTheBudgetIsTold(): void
    {
        $set = self::get(SetBudget::class);
        $of = static fn (int $usual): AskedBudget => new AskedBudget(
            BigDecimal::of($usual),
            [],
            [],
            BudgetBasis::Ordering,
        );
        $shown = $of(5000)->fingerprint();
        $set->set($of(5000), null, new Problems());
        $set->set($of(7000), $shown, $fine = new Problems());
        self::assertTrue($fine->areNone());
        $set->set($of(6000), $shown, $late = new Problems());
        self::assertStringContainsString('Somebody changed the budget', (string) $late->at(''));
        self::assertSame('7000', (string) self::get(CurrentBusiness::class)->get()->monthlyBudget()?->toScale(0));
    }

    public function testARefusedEmailNamesTheValue(): void
    {
        $this->expectExceptionMessage('“nobody at home” is not an email address');
        self::supplier()->orderThrough('Kay', 'nobody at home');
    }

    public function testTheDemoHasOneOfEachThatWaits(): void
    {
        $states = array_count_values(
            array_map(
                static fn (PurchaseOrder $order): string => $order->state()->value,
                self::get(Orders::class)->in([
                    OrderState::Draft,
                    OrderState::AwaitingApproval,
                    OrderState::Sent,
                    OrderState::Acknowledged,
                ]),
            ),
        );
        self::assertSame(1, $states['awaiting-approval']);
        self::assertGreaterThan(3, $states['acknowledged']);
        self::assertGreaterThan(1, $states['sent']);
    }
}
