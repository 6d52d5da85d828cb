<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Money\TaxCategory;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;

/** An order and its lines guard themselves: what may be done in which state, and what it comes to. */
final class OrderLinesTest extends StoreTestCase
{
    private static int $number = 0;

    /** @param list<array{Offer, int}> $lines */
    private static function drafted(array $lines): PurchaseOrder
    {
        $order = new PurchaseOrder(
            'PO-L'.++self::$number,
            $lines[0][0]->supplier,
            self::person('rowan'),
            ExchangeRate::of('EUR', 'EUR', 1),
            self::now()->modify('+7 days'),
            self::now(),
        );
        foreach ($lines as [$offer, $packs]) {
            OrderLine::fromOffer($order, $offer, self::site('FERRY'), BigDecimal::of($packs));
        }
        self::entities()->persist($order);
        self::entities()->flush();

        return $order;
    }

    private static function sent(PurchaseOrder $order): PurchaseOrder
    {
        $order->approve(self::person('rowan'), self::now());
        $order->send(self::now());
        self::entities()->flush();

        return $order;
    }

    private static function bought(string $price = '10', int $content = 12): Offer
    {
        return self::offer(self::item('LINE-'.++self::$number), $price, $content);
    }

    /** @return array{string, string, string} received, closed short, outstanding */
    private static function stands(OrderLine $line): array
    {
        return array_map(
            static fn (BigDecimal $packs): string => (string) $packs->strippedOfTrailingZeros(),
            [$line->received(), $line->closedShort(), $line->outstanding()],
        );
    }

    /** @return list<string> */
    private static function packs(OrderLine ...$lines): array
    {
        return array_values(array_map(static fn (OrderLine $line): string => (string) $line->packs(), $lines));
    }

    public function testWhatComesIsCountedUntilAllHasCome(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        self::assertSame(['0', '0', '30'], self::stands($line));
        $line->receive(BigDecimal::of(22));
        $order->settleState();
        self::assertSame(['22', '0', '8'], self::stands($line));
        self::assertSame(OrderState::PartReceived, $order->state());
        $line->receive(BigDecimal::of(8));
        $order->settleState();
        self::assertSame(['30', '0', '0'], self::stands($line));
        self::assertSame(OrderState::Received, $order->state());
    }

    public function testMoreThanWasOrderedLeavesNothingOutstanding(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        $line->receive(BigDecimal::of(33));
        self::assertSame(['33', '0', '0'], self::stands($line), 'never below zero');
    }

    /** @return \Generator<string, array{string}> */
    public static function nothings(): \Generator
    {
        yield 'nothing' => ['0'];
        yield 'less than nothing' => ['-1'];
        yield 'a little less' => ['-0.001'];
    }

    #[DataProvider('nothings')]
    public function testNothingIsNotReceived(string $packs): void
    {
        [$line] = self::sent(self::drafted([[self::bought(), 30]]))->lines();
        self::mustRefuse(static fn () => $line->receive(BigDecimal::of($packs)), 'expected above 0');
        self::assertSame(['0', '0', '30'], self::stands($line));
    }

    public function testNothingComesOnADraftOrOnWhatHasEnded(): void
    {
        $draft = self::drafted([[self::bought(), 30]]);
        self::mustRefuse(
            static fn () => $draft->lines()[0]->receive(BigDecimal::one()),
            'is draft; nothing is to come on it.',
        );
        self::mustRefuse(static fn () => $draft->lines()[0]->closeShort(), 'nothing is to come on it.');
        $gone = self::sent(self::drafted([[self::bought(), 30]]));
        $gone->cancel();
        self::mustRefuse(static fn () => $gone->lines()[0]->receive(BigDecimal::one()), 'nothing is to come on it.');
        self::mustRefuse(static fn () => $gone->closeShort(), 'there is nothing outstanding to close.');
        self::mustRefuse(static fn () => $gone->lines()[0]->promiseFor(self::now()), 'nothing is to come on it.');
    }

    public function testWhatIsGivenUpIsOutstandingNoLongerUntilItIsTakenBack(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30], [self::bought(), 5]]));
        [$first, $second] = $order->lines();
        $first->receive(BigDecimal::of(22));
        $order->settleState();
        $order->closeShort([$first->id]);
        self::assertSame(['22', '8', '0'], self::stands($first));
        self::assertSame(['0', '0', '5'], self::stands($second), 'the other was not given up');
        self::assertSame(OrderState::PartReceived, $order->state());
        $order->closeShort();
        self::assertSame(['0', '5', '0'], self::stands($second));
        self::assertSame(OrderState::Received, $order->state(), 'something came');
        $order->reopen();
        self::assertSame(['22', '0', '8'], self::stands($first));
        self::assertSame(['0', '0', '5'], self::stands($second));
        self::assertSame(OrderState::PartReceived, $order->state());
    }

    public function testAnOrderOfWhichNothingCameIsClosedAndOpenedAgainAsSent(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        $order->closeShort();
        self::assertSame(OrderState::Closed, $order->state());
        $order->reopen();
        self::assertSame(OrderState::Sent, $order->state());
        self::mustRefuse(static fn () => $order->reopen(), 'there is nothing to open again.');
        $order->acknowledge(self::now()->modify('+9 days'), self::now());
        $order->closeShort();
        $order->reopen();
        self::assertSame(OrderState::Acknowledged, $order->state(), 'they had said yes');
    }

    public function testACancelledDraftIsADraftAgain(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        $order->cancel();
        self::assertSame(OrderState::Cancelled, $order->state());
        $order->reopen();
        self::assertSame(OrderState::Draft, $order->state());
        $sent = self::sent(self::drafted([[self::bought(), 30]]));
        $sent->cancel();
        $sent->reopen();
        self::assertSame(OrderState::Sent, $sent->state());
    }

    public function testWhatCameInPartIsNotCancelled(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        $order->lines()[0]->receive(BigDecimal::one());
        self::mustRefuse(
            static fn () => $order->cancel(),
            'has been received in part; close what is outstanding instead.',
        );
    }

    public function testWhatGoesBackAndComesAgainIsExpectedAgain(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        $line->receive(BigDecimal::of(30));
        $order->settleState();
        self::assertSame(OrderState::Received, $order->state());
        $line->comesAgain(BigDecimal::of(4));
        self::assertSame(['26', '0', '4'], self::stands($line));
        self::assertSame(OrderState::PartReceived, $order->state());
        self::mustRefuse(static fn () => $line->comesAgain(BigDecimal::of(27)), 'cannot come again; 26');
        self::mustRefuse(static fn () => $line->comesAgain(BigDecimal::zero()), 'cannot come again');
        $line->comesAgain(BigDecimal::of(26));
        self::assertSame(OrderState::Sent, $order->state(), 'all of it went back');
    }

    public function testTheirGoodsBecomeOursAndNoMoreThanThereAre(): void
    {
        $offer = self::bought();
        $offer->consign(true, 90);
        [$line] = self::sent(self::drafted([[$offer, 30]]))->lines();
        self::assertTrue($line->isConsigned());
        $line->receive(BigDecimal::of(20));
        self::assertSame('20', (string) $line->stillTheirs());
        $line->takeOver(BigDecimal::of(5));
        self::assertSame('15', (string) $line->stillTheirs());
        self::mustRefuse(static fn () => $line->takeOver(BigDecimal::of(16)), 'are not theirs; 15 are.');
        self::mustRefuse(static fn () => $line->takeOver(BigDecimal::of(-1)), 'are not theirs; 15 are.');
        $line->comesAgain(BigDecimal::of(18));
        self::assertSame('0', (string) $line->stillTheirs(), 'three of what went back were ours already');
        [$ours] = self::sent(self::drafted([[self::bought(), 30]]))->lines();
        $ours->receive(BigDecimal::of(20));
        self::assertSame('0', (string) $ours->stillTheirs());
    }

    /** @return \Generator<string, array{string, string, string}> */
    public static function wrongChanges(): \Generator
    {
        yield 'none' => ['0', '10', 'An order line needs a quantity above 0; remove the line instead.'];
        yield 'less than none' => ['-3', '10', 'An order line needs a quantity above 0; remove the line instead.'];
        yield 'half a case' => ['2.5', '10', 'They do not split a case. Make it 3.'];
        yield 'a price below nothing' => ['3', '-0.01', '-0.01'];
    }

    #[DataProvider('wrongChanges')]
    public function testALineIsNotChangedToWhatCannotBe(string $packs, string $price, string $words): void
    {
        [$line] = self::drafted([[self::bought(), 30]])->lines();
        self::mustRefuse(static fn () => $line->change(BigDecimal::of($packs), BigDecimal::of($price)), $words);
        self::assertSame(['30', '10'], [(string) $line->packs(), (string) $line->price()->strippedOfTrailingZeros()]);
    }

    public function testASuppliersStepsAndMinimumAreKept(): void
    {
        $offer = self::bought();
        $offer->sellBy(BuyingRule::of(Pack::of('case', 12), 10, 5));
        [$line] = self::drafted([[$offer, 30]])->lines();
        self::mustRefuse(
            static fn () => $line->change(BigDecimal::of(5), BigDecimal::of(10)),
            'They sell at least 10 (case). Make it 10, or 0.',
        );
        self::mustRefuse(
            static fn () => $line->change(BigDecimal::of(17), BigDecimal::of(10)),
            'They sell in steps of 5 (case). Make it 20.',
        );
        $line->change(BigDecimal::of(20), BigDecimal::of(10));
        self::assertSame('20', (string) $line->packs());
    }

    public function testADiscountComesOffThePriceAndStaysWhenTheQuantityChanges(): void
    {
        [$line] = self::drafted([[self::bought('20'), 30]])->lines();
        $five = PriceDiscount::read('5 %', Numerals::with(Numerals::POINT));
        $line->change(BigDecimal::of(30), BigDecimal::of(20), $five);
        self::assertSame(
            ['19', '20', '570'],
            array_map(
                static fn (BigDecimal $figure): string => (string) $figure->strippedOfTrailingZeros(),
                [$line->price(), $line->listPrice(), $line->total()->amount],
            ),
        );
        $line->change(BigDecimal::of(10), BigDecimal::of(20));
        self::assertSame('19', (string) $line->price()->strippedOfTrailingZeros());
        $line->change(BigDecimal::of(10), BigDecimal::of(20), PriceDiscount::none());
        self::assertSame('20', (string) $line->price()->strippedOfTrailingZeros());
    }

    public function testARevisionMayTakeALineBackToWhatHasCome(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        self::mustRefuse(
            static fn () => $line->change(BigDecimal::of(20), BigDecimal::of(10)),
            'its lines are fixed.',
        );
        $line->receive(BigDecimal::of(12));
        $order->settleState();
        self::mustRefuse(
            static fn () => $order->revise(static fn () => $line->change(BigDecimal::of(11), BigDecimal::of(10))),
            '12 have come or were closed; it cannot be less.',
        );
        $before = $order->revision();
        $order->revise(static fn () => $line->change(BigDecimal::of(12), BigDecimal::of(10)));
        self::assertSame(['12', '0', '0'], self::stands($line));
        self::assertSame($before + 1, $order->revision());
        self::assertSame(OrderState::Received, $order->state());
        self::assertFalse($order->isBeingRevised());
    }

    public function testARefusedRevisionLeavesTheOrderFixed(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        $before = $order->revision();
        self::mustRefuse(
            static fn () => $order->revise(
                static fn () => $order->lines()[0]->change(BigDecimal::of('1.5'), BigDecimal::of(10)),
            ),
            'They do not split a case.',
        );
        self::assertSame($before, $order->revision());
        self::assertFalse($order->isBeingRevised());
        self::mustRefuse(
            static fn () => $order->change(self::now()->modify('+30 days'), 'later'),
            'its lines are fixed.',
        );
    }

    public function testARevisionHasToBeConfirmedAnew(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        $order->acknowledge(
            self::now()->modify('+9 days'),
            self::now(),
            [$line->id => self::now()->modify('+12 days')],
        );
        self::assertSame(OrderState::Acknowledged, $order->state());
        self::assertSame('2026-12-05', $line->dueOn()->format('Y-m-d'));
        $order->revise(static fn () => $line->change(BigDecimal::of(24), BigDecimal::of(10)));
        self::assertSame(OrderState::Sent, $order->state());
        self::assertNull($order->acknowledgedAt());
        self::assertSame('2026-11-30', $line->dueOn()->format('Y-m-d'), 'as it is wanted');
        $order->acknowledge(self::now()->modify('+9 days'), self::now());
        $order->isUnconfirmed();
        self::assertSame(OrderState::Sent, $order->state());
        self::mustRefuse(static fn () => $order->isUnconfirmed(), 'there is no yes of theirs to take back.');
    }

    public function testAsTheyOfferedToDeliverTheirOwnRulesNeedNotBeKept(): void
    {
        $order = self::sent(self::drafted([[self::bought(), 30]]));
        [$line] = $order->lines();
        $line->receive(BigDecimal::of(10));
        $order->revise(static fn () => $line->agreeTo(BigDecimal::of('27.5'), BigDecimal::of('9.5')));
        self::assertSame(
            ['27.5', '9.5'],
            [(string) $line->packs(), (string) $line->price()->strippedOfTrailingZeros()],
        );
        self::mustRefuse(
            static fn () => $order->revise(static fn () => $line->agreeTo(BigDecimal::of(9), BigDecimal::of('9.5'))),
            'More than 9 of',
        );
    }

    public function testSomeOfALineIsSetToAnotherDayOnALineUnderIt(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        [$line] = $order->lines();
        $ferry = self::site('FERRY');
        $later = self::now()->modify('+20 days');
        foreach (['0', '30', '31', '-2'] as $packs) {
            self::mustRefuse(
                static fn () => $line->sharedOut(BigDecimal::of($packs), $later, $ferry),
                'cannot be set to another day; fewer than all of them can.',
            );
        }
        self::mustRefuse(
            static fn () => $line->sharedOut(BigDecimal::of(5), $line->wantedOn(), $ferry),
            'That is the day and the place it is wanted for anyway.',
        );
        self::mustRefuse(
            static fn () => $line->sharedOut(BigDecimal::of('2.5'), $later, $ferry),
            'They do not split a case.',
        );
        self::assertSame(['30'], self::packs($line));
        $part = $line->sharedOut(BigDecimal::of(12), $later, $ferry);
        self::assertSame(['18', '12'], self::packs($line, $part));
        self::assertSame($line, $part->partOf());
        self::assertSame('30', (string) $line->boughtTogether());
        self::assertSame($later->format('Y-m-d'), $part->dueOn()->format('Y-m-d'));
        $again = $line->sharedOut(BigDecimal::of(3), $later, $ferry);
        self::assertSame($part, $again, 'one line for a day and a place');
        self::assertSame(['15', '15'], self::packs($line, $part));
        $there = $line->sharedOut(BigDecimal::of(5), $later, self::site('MILL'));
        self::assertNotSame($part, $there, 'another place');
        self::assertCount(3, $order->lines());
        self::assertSame('30', (string) $there->boughtTogether());
    }

    public function testALineWantedOnTheOrdersDayHasNoneOfItsOwn(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        [$line] = $order->lines();
        self::assertFalse($line->hasOwnDay());
        $line->wantFor(self::now()->modify('+20 days'));
        self::assertTrue($line->hasOwnDay());
        $line->wantFor($order->wantedOn());
        self::assertFalse($line->hasOwnDay());
        $line->wantFor(null);
        self::assertSame($order->wantedOn()->format('Y-m-d'), $line->dueOn()->format('Y-m-d'));
    }

    public function testALineHasATaxOfItsOwnOrTheOrders(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        [$line] = $order->lines();
        $order->taxAs(Tax::percent('23'));
        self::assertFalse($line->hasOwnTax());
        self::assertSame('23', (string) $line->tax()->percent);
        $line->taxAs(Tax::percent('13.5'));
        self::assertSame('13.5', (string) $line->tax()->percent);
        self::assertTrue($line->hasOwnTax());
        $line->taxAs(null);
        self::assertSame('23', (string) $line->tax()->percent);
        $order->taxAs(Tax::of(TaxCategory::ReverseCharge));
        self::assertSame('0', (string) $line->tax()->percent);
    }

    public function testAFreeTextAndAnItemWithoutAnOfferStandAsSinglePieces(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        $text = OrderLine::ofText($order, 'Carriage', self::site('FERRY'), BigDecimal::one(), BigDecimal::of(25));
        $item = OrderLine::ofItem(
            $order,
            self::item('LINE-X'),
            'X-1',
            self::site('FERRY'),
            BigDecimal::of(7),
            BigDecimal::of('1.5'),
        );
        self::assertSame(['Carriage', '', '25'], [
            $text->description,
            $text->supplierCode(),
            (string) $text->total()->amount->strippedOfTrailingZeros(),
        ]);
        self::assertSame(['X-1', '10.5'], [
            $item->supplierCode(),
            (string) $item->total()->amount->strippedOfTrailingZeros(),
        ]);
        self::assertSame(['1', '2', '3'], array_map(
            static fn (OrderLine $line): string => $line->number(),
            $order->lines(),
        ));
        self::assertSame('335.5', (string) $order->totals()->net->amount->strippedOfTrailingZeros(), '300 + 25 + 10.5');
        self::assertSame('', $text->customsNumber());
        self::assertSame('', $text->origin());
    }

    public function testACodeOfTheirsIsPutRightOnTheLineAndItsOffer(): void
    {
        $offer = self::bought();
        $order = self::drafted([[$offer, 30]]);
        $order->lines()[0]->recode(' NEW-7 ');
        self::assertSame(['NEW-7', 'NEW-7'], [$order->lines()[0]->supplierCode(), $offer->supplierCode()]);
        self::sent($order);
        self::mustRefuse(static fn () => $order->lines()[0]->recode('OLD'), 'its lines are fixed.');
        self::assertSame('NEW-7', $offer->supplierCode());
    }

    public function testADraftIsNotReviewedCountedOnOrSentTwice(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        self::mustRefuse(static fn () => $order->countOn(true), 'nothing is to come on it.');
        self::mustRefuse(static fn () => $order->revise(static fn () => null), 'nothing is to come on it.');
        self::mustRefuse(static fn () => $order->send(self::now()), 'cannot become sent');
        self::sent($order);
        $order->countOn(false);
        self::assertFalse($order->isCountedOn());
        $order->countOn(null);
        self::assertNull($order->isCountedOn());
        self::mustRefuse(static fn () => $order->send(self::now()), 'cannot become sent');
        self::mustRefuse(static fn () => $order->backToDraft(), 'cannot become draft');
    }

    public function testASecondPayeeIsNobodyWhereItIsTheSupplier(): void
    {
        $order = self::drafted([[self::bought(), 30]]);
        $factor = self::supplier();
        self::assertSame($order->supplier, $order->payee());
        $order->isPaidTo($factor);
        self::assertSame($factor, $order->payee());
        $order->isPaidTo($order->supplier);
        self::assertSame($order->supplier, $order->payee());
        self::sent($order);
        self::mustRefuse(static fn () => $order->isPaidTo($factor), 'its lines are fixed.');
    }
}
