<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Order\Spending;
use TallBarrel\Store\Planning\PlanningData;

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

    public function testTheBudgetCountsWhatWasSentThisMonth(): void
    {
        $spending = self::get(Spending::class);
        $before = $spending->budgetLeft(self::now());
        $order = self::draft('10.00', 3);
        self::assertEquals($before, $spending->budgetLeft(self::now()), 'a draft spends nothing');
        $order->approve(self::person('mara'), self::now());
        $order->send(self::now());
        self::entities()->flush();
        self::assertSame('30.00', (string) $before?->minus($spending->budgetLeft(self::now()) ?? $before)->amount);
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
