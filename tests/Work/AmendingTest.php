<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\RawMessage;
use TallBarrel\Core\Money\AllowanceCharge;
use TallBarrel\Core\Money\PriceDiscount;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Ordering\AnsweredLine;
use TallBarrel\Core\Ordering\AnswerState;
use TallBarrel\Core\Ordering\LineWish;
use TallBarrel\Core\Ordering\OrderState;
use TallBarrel\Core\Ordering\YesRules;
use TallBarrel\Core\Problems;
use TallBarrel\Core\Refused;
use TallBarrel\Store\Business\CurrentBusiness;
use TallBarrel\Store\Order\Amendments;
use TallBarrel\Store\Order\OrderAmendment;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\Orders;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\AddedLine;
use TallBarrel\Work\Ordering\AmendmentChanges;
use TallBarrel\Work\Ordering\AmendOrder;
use TallBarrel\Work\Ordering\AnswerOrder;
use TallBarrel\Work\Ordering\EndOrder;
use TallBarrel\Work\Ordering\SeenOrder;
use TallBarrel\Work\Ordering\SendRevision;

/** An order that is out: changed, answered, ended and opened again. */
final class AmendingTest extends StoreTestCase
{
    private static function order(string $number = 'PO-AM'): PurchaseOrder
    {
        $supplier = self::supplier();
        $order = self::sentOrder(
            [
                [self::offer(self::item($number.'-1'), '10.00', 12, $supplier), 10],
                [self::offer(self::item($number.'-2'), '5.00', 12, $supplier), 4],
            ],
            $number,
        );
        self::offer(self::item($number.'-3'), '2.00', 6, $supplier);
        self::entities()->flush();

        return $order;
    }

    private static function number(string $query, int ...$values): int
    {
        $number = self::connection()->fetchOne($query, $values);

        return is_numeric($number) ? (int) $number : self::fail('No number: '.$query);
    }

    /** The words of a letter. */
    private static function words(RawMessage $letter): string
    {
        self::assertInstanceOf(Email::class, $letter);

        return (string) $letter->getTextBody();
    }

    /**
     * @param array<int, LineWish> $wishes
     * @param list<AllowanceCharge>     $adjustments
     */
    private static function save(
        PurchaseOrder $order,
        array $wishes,
        ?AddedLine $added = null,
        string $note = '',
        string $person = 'rowan',
        array $adjustments = [],
    ): Problems {
        $amend = self::get(AmendOrder::class);
        $amendment = $amend->begin($order, self::person($person));
        $problems = new Problems();
        $changes = new AmendmentChanges(
            $amendment->version(),
            $wishes,
            $added,
            self::site('FERRY'),
            $amendment->wantedOn(),
            $note,
            $adjustments,
        );
        $amend->save($order, $changes, self::person($person), $problems);

        return $problems;
    }

    private static function wish(OrderLine $line, string $packs, ?string $price = null, ?string $day = null): LineWish
    {
        return new LineWish(
            $line->id,
            null,
            '',
            BigDecimal::of($packs),
            null === $price ? $line->price() : BigDecimal::of($price),
            null === $day ? null : new \DateTimeImmutable($day),
            $line->site->id,
        );
    }

    private static function amendment(PurchaseOrder $order): OrderAmendment
    {
        $amendment = self::get(Amendments::class)->of($order);
        self::assertNotNull($amendment);

        return $amendment;
    }

    private static function send(PurchaseOrder $order, string $person = 'rowan'): PurchaseOrder
    {
        return self::get(SendRevision::class)->send(
            SeenOrder::now($order),
            self::amendment($order)->version(),
            self::person($person),
        );
    }

    private static function again(PurchaseOrder $order): PurchaseOrder
    {
        self::entities()->clear();
        $order = self::get(Orders::class)->byNumber($order->number);
        self::assertNotNull($order);

        return $order;
    }

    /** @return list<string> packs of the lines */
    private static function packs(PurchaseOrder $order): array
    {
        return array_map(
            static fn (OrderLine $line): string => (string) $line->packs()->strippedOfTrailingZeros(),
            $order->lines(),
        );
    }

    public function testARevisionInDraftChangesNothingAndSentTakesThePlaceOfTheOrder(): void
    {
        $order = self::order();
        $order->acknowledge(self::now()->modify('+3 days'), self::now());
        [$first, $second] = $order->lines();
        $problems = self::save(
            $order,
            [self::wish($first, '12', '9.50'), self::wish($second, '0')],
            new AddedLine('PO-AM-3', BigDecimal::of(7), null),
            'Mind the step.',
        );
        self::assertSame([], $problems->all());
        $order = self::again($order);
        self::assertSame(['10', '4'], self::packs($order));
        self::assertSame(OrderState::Acknowledged, $order->state());
        self::assertSame('128', (string) self::amendment($order)->totals()->net->amount->strippedOfTrailingZeros());
        self::assertTrue(self::amendment($order)->differsIn($order->lines()[0]));

        $letters = count(self::getMailerMessages());
        self::send($order);
        $order = self::again($order);
        self::assertSame(['12', '0', '7'], self::packs($order));
        self::assertSame('9.5', (string) $order->lines()[0]->price()->strippedOfTrailingZeros());
        self::assertSame(
            [2, OrderState::Sent, 'Mind the step.'],
            [$order->revision(), $order->state(), $order->note()],
        );
        self::assertNull($order->acknowledgedAt(), 'it has to be confirmed anew');
        self::assertNull($order->promisedOn());
        self::assertNull(self::get(Amendments::class)->of($order));

        $sent = self::get(Amendments::class)->sent($order);
        self::assertSame([1, 2], array_map(static fn ($one): int => $one->number, $sent), 'each kept whole');
        self::assertSame(
            ['10', '4'],
            array_map(static fn ($line): string => (string) $line->packs, $sent[0]->lines()),
        );
        self::assertSame([1, 2, 3], array_map(
            static fn ($line): int => $line->position(),
            $sent[1]->since($sent[0])->lines,
        ));
        $letter = self::getMailerMessages()[$letters];
        self::assertInstanceOf(Email::class, $letter);
        $text = self::words($letter);
        self::assertStringContainsString('quantity 10 becomes 12, price 10.00 becomes 9.50', $text);
        self::assertStringContainsString('no longer wanted (was 4)', $text);
        self::assertStringContainsString('new, 7 case', $text);
        self::assertSame('PO-AM-2.pdf', $letter->getAttachments()[0]->getFilename());
        self::assertStringContainsString('/order/'.$order->token(), $text);
        self::assertSame(
            [self::number('SELECT COUNT(*) FROM sent_document WHERE order_id = ? AND revision = 2', $order->id), 1],
            [1, 1],
        );
    }

    public function testPlanningCountsWhatIsInForce(): void
    {
        $order = self::order();
        $units = static fn (): int => self::number(
            'SELECT COALESCE(SUM(units), 0) FROM open_line WHERE order_id = ?',
            $order->id,
        );
        self::assertSame(168, $units());
        self::save($order, [self::wish($order->lines()[0], '20'), self::wish($order->lines()[1], '4')]);
        self::assertSame(168, $units(), 'a draft counts for nothing');
        self::send(self::again($order));
        self::assertSame(288, $units());
    }

    public function testWhatCannotBeIsSaidAtItsPlaceAndNothingIsSaved(): void
    {
        $order = self::order();
        [$first, $second] = $order->lines();
        $first->receive(BigDecimal::of(6));
        $order->settleState();
        self::entities()->flush();
        $problems = self::save(
            $order,
            [self::wish($first, '5'), self::wish($second, '4.5')],
            new AddedLine('Nonsuch', null, null),
        );
        self::assertSame(['quantity-0', 'quantity-1', 'add'], array_keys($problems->all()));
        self::assertStringContainsString('6 have come', (string) $problems->at('quantity-0'));
        self::assertSame(
            '10',
            (string) self::amendment(self::again($order))->wishes()[0]->packs,
            'as it was',
        );
        $problems = self::save(self::again($order), [self::wish($first, '6'), self::wish($second, '0')]);
        self::assertSame([], $problems->all());
        $order = self::send(self::again($order));
        self::assertSame(OrderState::Received, $order->state(), 'nothing more is to come');
    }

    public function testNothingDifferentIsNotSentAndAnEmptyOneIsCancelledInstead(): void
    {
        $order = self::order();
        [$first, $second] = $order->lines();
        $problems = self::save($order, [self::wish($first, '0'), self::wish($second, '0')]);
        self::assertStringContainsString('Cancel the order instead', (string) $problems->at('amendment'));
        self::save(self::again($order), [self::wish($first, '10'), self::wish($second, '4')]);
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('Nothing is different');
        self::send(self::again($order));
    }

    public function testMoreThanOnesLimitNeedsSomebodyElse(): void
    {
        $order = self::order();
        [$first, $second] = $order->lines();
        self::save($order, [self::wish($first, '400'), self::wish($second, '4')], person: 'mara');
        try {
            self::send(self::again($order), 'mara');
            self::fail('over her limit');
        } catch (Refused $refused) {
            self::assertStringContainsString(
                'beyond Mara’s limit: 4,020.00 is over the limit of 2,500.00',
                $refused->getMessage(),
            );
        }
        $order = self::again($order);
        self::assertSame(['10', '4'], self::packs($order), 'nothing half done');
        self::get(SendRevision::class)->askForYes(
            SeenOrder::now($order),
            self::amendment($order)->version(),
            self::person('mara'),
        );
        self::assertTrue(self::amendment(self::again($order))->isWaiting());
        self::assertSame(['400', '4'], self::packs(self::send(self::again($order), 'rowan')));
    }

    public function testWhereTheOwnerSaysSoAnyChangeNeedsSomebodyElse(): void
    {
        $order = self::order();
        [$first, $second] = $order->lines();
        self::get(CurrentBusiness::class)->get()->askAgain(YesRules::of(['day' => 'always', 'price' => 'never']));
        self::entities()->flush();
        self::save($order, [self::wish($first, '10', day: '2026-12-24'), self::wish($second, '4')], person: 'mara');
        try {
            self::send(self::again($order), 'mara');
            self::fail('it is her own change');
        } catch (Refused $refused) {
            self::assertStringContainsString('needs a yes of somebody else: Rowan', $refused->getMessage());
        }
        $sent = self::send(self::again($order), 'rowan');
        self::assertSame('2026-12-24', $sent->lines()[0]->wantedOn()->format('Y-m-d'));

        $order = self::again($order);
        [$first, $second] = $order->lines();
        self::save(
            $order,
            [self::wish($first, '10', '900', '2026-12-24'), self::wish($second, '4')],
            person: 'mara',
        );
        self::assertSame(
            '900',
            (string) self::send(self::again($order), 'mara')->lines()[0]->price()->strippedOfTrailingZeros(),
            'prices are free here, beyond any limit',
        );
    }

    public function testGoodsAtTheDockAreBookedFirst(): void
    {
        $order = self::order();
        self::delivery($order);
        self::save($order, [self::wish($order->lines()[0], '12'), self::wish($order->lines()[1], '4')]);
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('stand at the dock');
        self::send(self::again($order));
    }

    public function testTwoPeopleTheSecondIsTold(): void
    {
        $order = self::order();
        $amend = self::get(AmendOrder::class);
        $version = $amend->begin($order, self::person('mara'))->version();
        self::assertSame($version, $amend->begin($order, self::person('rowan'))->version(), 'there is one, not two');
        self::save($order, [self::wish($order->lines()[0], '12')], person: 'mara');
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('Mara changed it');
        $amend->save(
            $order,
            new AmendmentChanges($version, [], null, self::site('FERRY'), self::now(), '', []),
            self::person('rowan'),
            new Problems(),
        );
    }

    public function testADiscountStaysAndChargesMayChangeInARevision(): void
    {
        $order = self::order();
        $first = $order->lines()[0];
        // As if it had been agreed before it went out.
        $order->revise(static function () use ($order, $first): void {
            $first->change($first->packs(), BigDecimal::of('10'), PriceDiscount::percent(BigDecimal::of(5)));
            $order->adjust([AllowanceCharge::of(true, 'Packing', BigDecimal::of(8), null, $order->tax())]);
        });
        self::entities()->flush();
        self::assertSame('123', (string) $order->totals()->net->amount->strippedOfTrailingZeros(), '95 + 20 + 8');

        $problems = self::save($order, [self::wish($first, '20')], adjustments: [
            AllowanceCharge::of(false, 'For the whole pallet', null, BigDecimal::of(10), Tax::percent(0)),
        ]);
        self::assertSame([], $problems->all());
        $order = self::again($order);
        self::send($order);
        $order = self::again($order);
        $line = $order->lines()[0];
        self::assertSame(
            ['20', '9.5', '10', '5 %'],
            [
                (string) $line->packs()->strippedOfTrailingZeros(),
                (string) $line->price()->strippedOfTrailingZeros(),
                (string) $line->listPrice()->strippedOfTrailingZeros(),
                $line->discount()->words(),
            ],
        );
        self::assertSame('189', (string) $order->totals()->net->amount->strippedOfTrailingZeros(), '210 less 21');
        $letters = self::getMailerMessages();
        $text = self::words(end($letters) ?: self::fail('No letter.'));
        self::assertStringContainsString('No longer: Packing 8', $text);
        self::assertStringContainsString('New: For the whole pallet less 10 %', $text);

        self::save($order, [self::wish($order->lines()[0], '20', '9.20')], adjustments: $order->adjustments());
        self::send(self::again($order));
        $line = self::again($order)->lines()[0];
        self::assertTrue($line->discount()->isNone(), 'a price typed anew is after all discounts');
        self::assertSame('9.2', (string) $line->listPrice()->strippedOfTrailingZeros());
    }

    /** @return list<AnsweredLine> */
    private static function said(PurchaseOrder $order, string $packs, string $price, string $days): array
    {
        return array_map(
            static fn (OrderLine $line): AnsweredLine => new AnsweredLine(
                $line->id,
                1 === $line->position ? BigDecimal::of($packs) : $line->packs(),
                1 === $line->position ? BigDecimal::of($price) : $line->price(),
                1 === $line->position ? $line->wantedOn()->modify($days) : $line->wantedOn(),
                $line->packs(),
                $line->price(),
                $line->wantedOn(),
            ),
            $order->lines(),
        );
    }

    public function testAnAnswerAsOrderedConfirmsAtOnceLineByLine(): void
    {
        $order = self::order();
        $answer = self::get(AnswerOrder::class)->answer($order, 1, self::said($order, '10', '10', '-1 day'), '');
        self::assertSame(AnswerState::Taken, $answer->state());
        $order = self::again($order);
        self::assertSame([OrderState::Acknowledged, 1], [$order->state(), $order->revision()]);
        $wanted = $order->wantedOn();
        self::assertSame(
            [$wanted->modify('-1 day')->format('Y-m-d'), $wanted->format('Y-m-d')],
            array_map(static fn (OrderLine $line): string => $line->dueOn()->format('Y-m-d'), $order->lines()),
        );
        self::assertSame(
            $order->lines()[0]->dueOn()->format('Y-m-d'),
            self::connection()->fetchOne('SELECT MIN(due) FROM open_line WHERE order_id = ?', [$order->id]),
            'planning and the order say the same day',
        );
    }

    public function testALowerPriceIsTakenAndKept(): void
    {
        $order = self::order();
        self::get(AnswerOrder::class)->answer($order, 1, self::said($order, '10', '9.00', '+0 days'), '');
        $order = self::again($order);
        self::assertSame('9', (string) $order->lines()[0]->price()->strippedOfTrailingZeros());
        self::assertSame([OrderState::Acknowledged, 2], [$order->state(), $order->revision()]);
    }

    public function testWhatDiffersWaitsForAYes(): void
    {
        $order = self::order();
        $said = self::said($order, '8', '11.00', '+9 days');
        $answer = self::get(AnswerOrder::class)->answer($order, 1, $said, 'Sorry');
        self::assertSame(AnswerState::Waiting, $answer->state());
        $order = self::again($order);
        self::assertSame([OrderState::Sent, ['10', '4']], [$order->state(), self::packs($order)]);
        $letters = count(self::getMailerMessages());
        $order = self::get(AnswerOrder::class)->accept(SeenOrder::now($order), $answer->id, self::person('rowan'), '');
        self::assertSame([OrderState::Acknowledged, ['8', '4']], [$order->state(), self::packs($order)]);
        self::assertSame('11', (string) $order->lines()[0]->price()->strippedOfTrailingZeros());
        self::assertCount($letters + 1, self::getMailerMessages(), 'they are told');
        $this->expectException(Refused::class);
        self::get(AnswerOrder::class)->accept(SeenOrder::now($order), $answer->id, self::person('rowan'), '');
    }

    public function testANoNeedsAReasonAndALaterAnswerOvertakes(): void
    {
        $order = self::order();
        $answers = self::get(AnswerOrder::class);
        $first = $answers->answer($order, 1, self::said($order, '8', '10', '+0 days'), '');
        $second = $answers->answer($order, 1, self::said($order, '9', '10', '+0 days'), '');
        $order = self::again($order);
        foreach ([[$first->id, 'Too few'], [$second->id, '']] as [$id, $words]) {
            try {
                $answers->decline(SeenOrder::now($order), $id, self::person('rowan'), $words);
                self::fail('overtaken, or without a reason');
            } catch (Refused) {
                $order = self::again($order);
            }
        }
        $answers->decline(SeenOrder::now($order), $second->id, self::person('rowan'), 'We need all ten.');
        $order = self::again($order);
        self::assertSame([OrderState::Sent, ['10', '4']], [$order->state(), self::packs($order)]);
        self::assertSame(
            [AnswerState::Declined, AnswerState::Overtaken],
            array_map(static fn ($one): AnswerState => $one->state(), self::get(Amendments::class)->answers($order)),
        );
    }

    public function testAnAnswerToARevisionNoLongerInForceIsRefused(): void
    {
        $order = self::order();
        $said = self::said($order, '10', '10', '+0 days');
        self::save($order, [self::wish($order->lines()[0], '12'), self::wish($order->lines()[1], '4')]);
        self::send(self::again($order));
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('revision 2 is in force');
        self::get(AnswerOrder::class)->answer(self::again($order), 1, $said, '');
    }

    public function testWordsAloneChangeNothing(): void
    {
        $order = self::order();
        $answer = self::get(AnswerOrder::class)->answer($order, 1, [], 'It has left us this morning.');
        self::assertSame(AnswerState::Message, $answer->state());
        self::assertSame(OrderState::Sent, self::again($order)->state());
    }

    public function testASentOrderIsCancelledByALetterWithAReason(): void
    {
        $order = self::order();
        $end = self::get(EndOrder::class);
        try {
            $end->cancel(SeenOrder::now($order), self::person('rowan'), '');
            self::fail('without a reason');
        } catch (Refused $refused) {
            self::assertStringContainsString('Why is PO-AM cancelled?', $refused->getMessage());
        }
        $letters = count(self::getMailerMessages());
        $order = $end->cancel(SeenOrder::now(self::again($order)), self::person('rowan'), 'The fair is off.');
        self::assertSame(OrderState::Cancelled, $order->state());
        self::assertStringContainsString('The fair is off.', self::words(self::getMailerMessages()[$letters]));
        $order = $end->reopen(SeenOrder::now(self::again($order)), self::person('rowan'));
        self::assertSame(OrderState::Sent, $order->state());
        $end->cancel(SeenOrder::now(self::again($order)), self::person('rowan'), 'Off after all.', true);
        self::assertCount($letters + 1, self::getMailerMessages(), 'they know already');
    }

    public function testLinesAreClosedShortWithWhoAgreedAndOpenedAgain(): void
    {
        $order = self::order();
        [$first] = $order->lines();
        $first->receive(BigDecimal::of(6));
        $order->settleState();
        self::entities()->flush();
        $end = self::get(EndOrder::class);
        $order = $end->closeShort(SeenOrder::now(self::again($order)), self::person('rowan'), 'Kay', [$first->id]);
        self::assertSame(OrderState::PartReceived, $order->state(), 'the other line is still to come');
        $order = $end->closeShort(SeenOrder::now(self::again($order)), self::person('rowan'), 'Kay');
        self::assertSame(OrderState::Received, $order->state());
        self::assertSame(0, self::number('SELECT COUNT(*) FROM open_line WHERE order_id = ?', $order->id));
        $order = $end->reopen(SeenOrder::now(self::again($order)), self::person('rowan'));
        self::assertSame(OrderState::PartReceived, $order->state());
        self::assertSame(
            ['4', '4'],
            array_map(
                static fn (OrderLine $line): string => (string) $line->outstanding()->strippedOfTrailingZeros(),
                $order->lines(),
            ),
        );
        foreach (['', 'Kay'] as $i => $agreed) {
            try {
                $end->closeShort(SeenOrder::now(self::again($order)), self::person('rowan'), $agreed, [-1]);
                self::fail('nobody agreed, or nothing is outstanding there: '.$i);
            } catch (Refused) {
                continue;
            }
        }
        $this->expectException(Refused::class);
        $end->cancel(SeenOrder::now(self::again($order)), self::person('rowan'), 'Off.');
    }

    public function testADraftIsThrownAwayAndShownAgain(): void
    {
        $order = self::draft('3.00', 2);
        $end = self::get(EndOrder::class);
        $order = $end->cancel(SeenOrder::now($order), self::person('mara'), '');
        self::assertSame(OrderState::Cancelled, $order->state());
        $order = $end->reopen(SeenOrder::now(self::again($order)), self::person('mara'));
        self::assertSame(OrderState::Draft, $order->state());
        $this->expectException(Refused::class);
        $this->expectExceptionMessage('nothing to open again');
        $end->reopen(SeenOrder::now(self::again($order)), self::person('mara'));
    }
}
