<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Work;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Money\ExchangeRate;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Sourcing\CostPart;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Core\Sourcing\QuoteState;
use TallBarrel\Core\Sourcing\Seller;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Offer\Offer;
use TallBarrel\Store\OneTrip;
use TallBarrel\Store\Order\OrderLine;
use TallBarrel\Store\Order\PurchaseOrder;
use TallBarrel\Store\Quote\OpenQuote;
use TallBarrel\Store\Quote\Quote;
use TallBarrel\Store\Quote\QuoteAnswer;
use TallBarrel\Store\Quote\QuoteItem;
use TallBarrel\Store\Quote\QuoteLetter;
use TallBarrel\Store\Quote\QuoteRound;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Tests\Store\StoreTestCase;
use TallBarrel\Work\Ordering\WithdrawLink;
use TallBarrel\Work\Sourcing\AnswerQuote;
use TallBarrel\Work\Sourcing\AwardRound;
use TallBarrel\Work\Sourcing\BeginRound;
use TallBarrel\Work\Sourcing\Candidates;
use TallBarrel\Work\Sourcing\CloseRound;
use TallBarrel\Work\Sourcing\CompareAnswers;
use TallBarrel\Work\Sourcing\RemindSuppliers;
use TallBarrel\Work\Sourcing\SendRound;

/** A quote round from its draft to who gets what, and all that is refused on the way. */
final class RoundsTest extends StoreTestCase
{
    private static function day(string $from): \DateTimeImmutable
    {
        return self::now()->setTime(0, 0)->modify($from);
    }

    /** @return list<BigDecimal> */
    private static function units(int|string ...$units): array
    {
        return array_values(array_map(BigDecimal::of(...), $units));
    }

    /** @param list<Supplier> $suppliers */
    private static function drafted(Item $item, array $suppliers, string ...$units): QuoteRound
    {
        $round = self::get(BeginRound::class)->begin(self::person('mara'), self::site('FERRY'));
        $round->ask($item, '', self::units(...$units));
        foreach ($suppliers as $supplier) {
            $round->invite($supplier);
        }
        self::entities()->flush();

        return $round;
    }

    /** @param list<Supplier> $suppliers */
    private static function out(Item $item, array $suppliers, string ...$units): QuoteRound
    {
        $round = self::drafted($item, $suppliers, ...$units);

        return self::get(SendRound::class)->send($round->id, $round->version(), self::person('mara'));
    }

    /**
     * @param list<array{string, string}> $prices from so many on, each
     */
    private static function quotes(
        Quote $quote,
        QuoteItem $item,
        array $prices,
        ?string $most = null,
        ?string $multiple = null,
        ?string $charges = null,
        string $alternate = '',
        string $code = '',
    ): QuoteAnswer {
        return self::get(AnswerQuote::class)->answer(
            $quote,
            QuoteAnswer::PAGE,
            9,
            self::day('+40 days'),
            self::charges($charges),
            '',
            [
                [
                    'item' => $item->id,
                    'prices' => $prices,
                    'most' => $most,
                    'multiple' => $multiple,
                    'code' => $code,
                    'alternate' => $alternate,
                ],
            ],
        );
    }

    /** @param array<int, array<int, BigDecimal>> $given */
    private static function award(QuoteRound $round, array $given, bool $keep = false): mixed
    {
        return self::get(AwardRound::class)->award($round->id, $round->version(), $given, $keep, self::person('mara'));
    }

    private static function charges(?string $charges): ?BigDecimal
    {
        return null === $charges ? null : BigDecimal::of($charges);
    }

    /** @return list<string> */
    private static function subjects(Quote $quote): array
    {
        return array_map(static fn (QuoteLetter $letter): string => $letter->subject, $quote->letters());
    }

    /** Neither day a round begins with falls on a weekend. */
    public function testARoundBeginsWithDaysOnWhichPeopleWork(): void
    {
        $round = self::get(BeginRound::class)->begin(self::person('mara'), self::site('FERRY'));
        self::assertSame(['Fri', 'Mon'], [$round->replyBy()->format('D'), $round->wantedOn()->format('D')]);
        self::assertSame(
            [self::day('+4 days')->format('Y-m-d'), self::day('+21 days')->format('Y-m-d')],
            [$round->replyBy()->format('Y-m-d'), $round->wantedOn()->format('Y-m-d')],
        );
        self::assertSame('nothing yet', $round->subject());
        self::assertTrue($round->isDraft());
        self::assertFalse($round->isOpen());
    }

    public function testWhatIsPlannedHasToBePossible(): void
    {
        $round = self::drafted(self::item('RND-1'), [], '10');
        $plan = static fn (string $reply, string $wanted): callable => static fn () => $round->plan(
            self::site('FERRY'),
            self::day($reply),
            self::day($wanted),
            ' On pallets, please. ',
            self::day('today'),
        );
        self::mustRefuse($plan('-1 day', '+9 days'), 'Answers cannot be asked for by 22 Nov 2026, which has passed.');
        self::mustRefuse(
            $plan('+6 days', '+5 days'),
            'The goods are wanted on 28 Nov 2026, before answers are due on 29 Nov 2026.',
        );
        self::assertSame('', $round->requirements(), 'what was refused changed nothing');
        $plan('today', 'today')();
        self::assertSame('On pallets, please.', $round->requirements());
        self::assertSame('2026-11-23', $round->replyBy()->format('Y-m-d'));
    }

    /** @return \Generator<string, array{list<int|string>, string}> */
    public static function badQuantities(): \Generator
    {
        yield 'none' => [[], 'Ask for a quantity above 0'];
        yield 'nothing' => [[0], 'Ask for a quantity above 0'];
        yield 'nothing beside something' => [[0, 12], 'Ask for a quantity above 0'];
        yield 'less than nothing' => [[-5], 'Ask for a quantity above 0'];
        yield 'six' => [[1, 2, 3, 4, 5, 6], '6 quantities are too many to answer; ask for at most 5.'];
    }

    /** @param list<int|string> $quantities */
    #[DataProvider('badQuantities')]
    public function testQuantitiesThatCannotBeAskedForAreRefused(array $quantities, string $words): void
    {
        $round = self::drafted(self::item('RND-2'), [], '10');
        self::mustRefuse(
            static fn (): QuoteItem => $round->ask(null, 'Ribbon', self::units(...$quantities)),
            $words,
        );
        self::assertCount(1, $round->items());
    }

    public function testQuantitiesAreAskedForRisingAndEachOnce(): void
    {
        $round = self::drafted(self::item('RND-3'), [], '1200', '576', '576.0', '2400');
        [$item] = $round->items();
        self::assertSame(['576', '1200', '2400'], array_map(strval(...), $item->quantities()));
        self::assertSame('576', (string) $item->needed());
        $read = QuoteItem::read(' 576  1,200;2400/12.5 ', Numerals::with(Numerals::POINT));
        self::assertSame(['576', '1200', '2400', '12.5'], array_map(strval(...), $read));
        self::assertSame([], QuoteItem::read('  ', Numerals::with(Numerals::POINT)));
        self::mustRefuse(static fn (): array => QuoteItem::read('12 many', Numerals::with(Numerals::POINT)), 'many');
    }

    public function testAnItemIsAskedForOnceAndTextAsOftenAsOneLikes(): void
    {
        $item = self::item('RND-4');
        $round = self::drafted($item, [], '10');
        self::mustRefuse(
            static fn (): QuoteItem => $round->ask($item, '', self::units(5)),
            'RND-4 is asked for already.',
        );
        self::mustRefuse(static fn (): QuoteItem => $round->ask(null, '  ', self::units(5)), 'Say what is asked for.');
        $ribbon = $round->ask(null, 'Gift ribbon', self::units(40));
        $other = $round->ask(null, 'Gift ribbon', self::units(40));
        self::assertSame([1, 2, 3], array_map(static fn (QuoteItem $one): int => $one->position, $round->items()));
        self::assertSame(['free text 2', 'pcs'], [$ribbon->code(), $ribbon->unit()]);
        self::assertSame(['RND-4', 'pcs'], [$round->items()[0]->code(), $round->items()[0]->unit()]);
        self::assertSame('Test item RND-4 and 2 more', $round->subject());
        $round->drop($ribbon);
        self::entities()->flush();
        self::assertSame([1, 3], array_map(static fn (QuoteItem $one): int => $one->position, $round->items()));
        $round->drop($other);
        self::assertSame('Test item RND-4', $round->subject());
    }

    public function testARoundGoesOutWithSomethingToAskAndSomebodyToAskAtAnAddress(): void
    {
        $send = static fn (QuoteRound $round): callable => static fn () => self::get(SendRound::class)->send(
            $round->id,
            $round->version(),
            self::person('mara'),
        );
        $empty = self::get(BeginRound::class)->begin(self::person('mara'), self::site('FERRY'));
        self::entities()->flush();
        self::mustRefuse(static fn () => $empty->send(self::now()), 'Nothing is asked for yet; add an item.');
        $alone = self::drafted(self::item('RND-5'), [], '10');
        self::mustRefuse(static fn () => $alone->send(self::now()), 'Nobody is asked yet; tick a supplier.');
        $mute = new Supplier('MUTE', 'Mute Supplies', 'EUR');
        self::entities()->persist($mute);
        $unheard = self::drafted(self::item('RND-6'), [self::supplier(), $mute], '10');
        self::mustRefuse(
            static fn () => $unheard->send(self::now()),
            'Mute Supplies has no email address to ask at. Add one on its page, or leave it out.',
        );
        self::assertTrue($unheard->isDraft());
        $good = self::drafted(self::item('RND-7'), [self::supplier(), self::supplier()], '10');
        $send($good)();
        self::assertTrue($good->isOpen());
        self::assertEquals(self::now(), $good->sentAt());
        foreach ($good->quotes() as $quote) {
            self::assertSame(QuoteState::Asked, $quote->state());
            self::assertEquals(self::now(), $quote->askedAt());
            self::assertCount(1, $quote->letters());
            self::assertMatchesRegularExpression('/^[0-9a-f]{32}$/', $quote->token());
        }
        self::assertNotSame($good->quotes()[0]->token(), $good->quotes()[1]->token());
    }

    public function testWhatIsOutStandsAsItWasAsked(): void
    {
        $round = self::out(self::item('RND-8'), [self::supplier()], '10');
        $stands = $round->number.' is out; what was asked stands.';
        self::mustRefuse(static fn (): QuoteItem => $round->ask(null, 'More', self::units(5)), $stands);
        self::mustRefuse(static fn () => $round->drop($round->items()[0]), $stands);
        self::mustRefuse(static fn () => $round->send(self::now()), $stands);
        self::mustRefuse(
            static fn () => $round->plan(
                self::site('FERRY'),
                self::day('+3 days'),
                self::day('+9 days'),
                '',
                self::now(),
            ),
            $stands,
        );
        $round->invite(self::supplier());
        self::assertCount(2, $round->quotes(), 'somebody else may still be asked');
    }

    public function testALinkWorksForTwoWeeksAfterTheAnswerWasDue(): void
    {
        $round = self::out(self::item('RND-9'), [self::supplier()], '10');
        self::assertSame('2026-12-11 23:59:59', $round->linksEnd()->format('Y-m-d H:i:s'));
        self::assertFalse($round->isLate(new \DateTimeImmutable('2026-11-27 23:59')));
        self::assertTrue($round->isLate(new \DateTimeImmutable('2026-11-28 00:00')));
    }

    public function testAnAnswerStandsUntilAnotherOneOrUntilItIsDeclined(): void
    {
        $round = self::out(self::item('RND-10'), [self::supplier()], '576', '1200');
        [$item] = $round->items();
        [$quote] = $round->quotes();
        self::assertNull($quote->standing());
        $first = self::quotes($quote, $item, [['576', '0.70'], ['1200', '0.66']]);
        self::assertSame($first, $quote->standing());
        $second = self::quotes($quote, $item, [['576', '0.69']]);
        self::assertSame([1, 2], [$first->revision, $second->revision]);
        self::assertSame($second, $quote->standing());
        self::get(AnswerQuote::class)->decline($quote, '  Kiln is being mended. ');
        self::assertSame(
            [QuoteState::Declined, 'Kiln is being mended.', null],
            [$quote->state(), $quote->declineReason(), $quote->standing()],
        );
        $third = self::quotes($quote, $item, [['576', '0.71']]);
        self::assertSame([QuoteState::Answered, '', $third], [
            $quote->state(),
            $quote->declineReason(),
            $quote->standing(),
        ]);
        self::assertSame(
            ['Answer 1, their page', 'Answer 2, their page', 'Declined', 'Answer 3, their page'],
            array_slice(self::subjects($quote), 1),
            'after the letter that asked',
        );
    }

    public function testAnAnswerHasToSaySomethingThatCanBe(): void
    {
        $round = self::out(self::item('RND-11'), [self::supplier()], '10');
        [$quote] = $round->quotes();
        $answer = static fn (int $days): callable => static fn () => self::get(AnswerQuote::class)->answer(
            $quote,
            QuoteAnswer::TYPED,
            $days,
            null,
            null,
            '',
            [],
        );
        self::mustRefuse($answer(-1), '-1 days to deliver is out of range; expected 0 to 365.');
        self::mustRefuse($answer(366), '366 days to deliver is out of range; expected 0 to 365.');
        self::mustRefuse($answer(365), 'No price has been given. To quote nothing at all, decline instead.');
        self::assertSame(QuoteState::Asked, $quote->state());
        self::assertSame([], $quote->answers());
    }

    /** What it would send: steps it sells in, rounded up, and no more than it has. */
    public function testAnAnswerSuppliesInItsStepsAndNoMoreThanItHas(): void
    {
        $round = self::out(self::item('RND-12'), [self::supplier(), self::supplier(), self::supplier()], '500');
        [$item] = $round->items();
        [$steps, $few, $any] = $round->quotes();
        $ribbon = BigDecimal::of(500);
        $stepped = self::quotes($steps, $item, [['500', '1']], multiple: '48');
        self::assertSame('528', (string) $stepped->supplies($item, $ribbon));
        self::assertSame('480', (string) $stepped->supplies($item, BigDecimal::of(480)));
        $limited = self::quotes($few, $item, [['500', '1']], most: '300');
        self::assertSame('300', (string) $limited->supplies($item, $ribbon));
        self::assertSame('299', (string) $limited->supplies($item, BigDecimal::of(299)));
        $free = self::quotes($any, $item, [['500', '1']]);
        self::assertSame('500', (string) $free->supplies($item, $ribbon));
        $other = self::out(self::item('RND-13'), [self::supplier()], '5');
        self::assertSame('0', (string) $free->supplies($other->items()[0], $ribbon), 'what it was not asked for');
        self::assertNull($free->line($other->items()[0]));
        self::assertNull($free->prices($other->items()[0]));
        self::assertNull($free->asOffer($other->items()[0], ExchangeRate::of('EUR', 'EUR', 1)));
    }

    public function testQuotedChargesComeInPlaceOfTheFreightTheyAndWeKnow(): void
    {
        $supplier = self::supplier();
        $supplier->ships(BigDecimal::of(40), null);
        $round = self::out(self::item('RND-14'), [$supplier], '100');
        [$item] = $round->items();
        [$quote] = $round->quotes();
        $usual = $supplier->asSeller([5, 9])->whoseFreightCameTo(1.5);
        $silent = self::quotes($quote, $item, [['100', '1']])->asSeller($usual);
        self::assertSame([40.0, 1.5], [$silent->freight->cost, $silent->freightCame]);
        $said = self::quotes($quote, $item, [['100', '1']], charges: '25')->asSeller($usual);
        self::assertSame([25.0, 1.0, [5, 9]], [$said->freight->cost, $said->freightCame, $said->leadTimesMet]);
        self::assertSame(FreightTariff::FLAT, $said->freight->kind);
        $nothing = self::quotes($quote, $item, [['100', '1']], charges: '0')->asSeller($usual);
        self::assertSame(0.0, $nothing->freight->of(100.0, 50.0));
    }

    /** The same sum as on Compare: goods, and freight as it came to before where nothing else was quoted. */
    public function testAnswersAreComparedByWhatTheyWouldCostOnTheShelf(): void
    {
        [$dear, $free] = [self::supplier(), self::supplier()];
        $dear->ships(BigDecimal::of(30), null);
        $round = self::out(self::item('RND-15'), [$dear, $free], '100');
        [$item] = $round->items();
        [$first, $second] = $round->quotes();
        self::quotes($first, $item, [['100', '1.00']]);
        self::quotes($second, $item, [['100', '1.20']], charges: '0');
        $compared = self::get(CompareAnswers::class)->of($round);
        $costs = $compared['costs'][$item->id];
        self::assertEqualsWithDelta(100.0, $costs[$first->id]->parts[CostPart::Price->value], 1e-9);
        self::assertEqualsWithDelta(30.0, $costs[$first->id]->parts[CostPart::Freight->value], 1e-9);
        self::assertEqualsWithDelta(120.0, $costs[$second->id]->parts[CostPart::Price->value], 1e-9);
        self::assertEqualsWithDelta(0.0, $costs[$second->id]->parts[CostPart::Freight->value], 1e-9);
        self::assertSame([$second->id => '100'], array_map(strval(...), $compared['given'][$item->id]));
        self::assertSame(1, $compared['orders']);
        self::assertSame([], $compared['noRate']);
        self::assertEqualsWithDelta(
            self::get(Candidates::class)->seller($dear)->freightCame,
            $costs[$first->id]->seller->freightCame,
            1e-12,
        );
        self::assertInstanceOf(Seller::class, $costs[$second->id]->seller);
    }

    public function testWhoCannotSupplyAllIsShownButNotProposed(): void
    {
        $round = self::out(self::item('RND-16'), [self::supplier(), self::supplier()], '100');
        [$item] = $round->items();
        [$cheap, $whole] = $round->quotes();
        self::quotes($cheap, $item, [['100', '0.50']], most: '60');
        self::quotes($whole, $item, [['100', '0.90']]);
        $compared = self::get(CompareAnswers::class)->of($round);
        self::assertSame(60.0, $compared['costs'][$item->id][$cheap->id]->units);
        self::assertSame([$whole->id => '100'], array_map(strval(...), $compared['given'][$item->id]));
    }

    public function testACurrencyWithoutARateIsSaidAndNotCompared(): void
    {
        $round = self::out(self::item('RND-17'), [self::supplier('JPY')], '100');
        [$item] = $round->items();
        [$quote] = $round->quotes();
        self::connection()->executeStatement("DELETE FROM exchange_rate WHERE currency = 'JPY'");
        self::quotes($quote, $item, [['100', '90']]);
        $compared = self::get(CompareAnswers::class)->of($round);
        self::assertSame(
            ['Testing Supplies quotes in JPY, for which there is no exchange rate up to today.'],
            $compared['noRate'],
        );
        self::assertSame([[], [], null, 0], [
            $compared['costs'],
            $compared['given'],
            $compared['total'],
            $compared['orders'],
        ]);
    }

    public function testAnAwardDraftsAnOrderForEachWinnerAndTellsTheOthers(): void
    {
        $item = self::item('RND-18');
        $round = self::drafted($item, [self::supplier(), self::supplier(), self::supplier(), self::supplier()], '576');
        $ribbon = $round->ask(null, 'Gift ribbon', self::units(40));
        self::entities()->flush();
        self::get(SendRound::class)->send($round->id, $round->version(), self::person('mara'));
        [$jar] = $round->items();
        [$wins, $also, $loses, $silent] = $round->quotes();
        $answering = self::get(AnswerQuote::class);
        $answer = static fn (
            Quote $quote,
            string $jarPrice,
            string $ribbonPrice,
            ?string $charges,
        ): QuoteAnswer => $answering->answer($quote, QuoteAnswer::PAGE, 9, null, self::charges($charges), '', [
            ['item' => $jar->id, 'prices' => [['576', $jarPrice]], 'most' => null, 'multiple' => null,
                'code' => 'J-9', 'alternate' => ''],
            ['item' => $ribbon->id, 'prices' => [['40', $ribbonPrice]], 'most' => null, 'multiple' => null,
                'code' => '', 'alternate' => 'Satin ribbon'],
        ]);
        $answer($wins, '0.70', '2.50', '20');
        $answer($also, '0.72', '2.40', null);
        $answer($loses, '0.90', '3.00', '0');
        $orders = self::award($round, [
            $wins->id => [$jar->id => BigDecimal::of(576), $ribbon->id => BigDecimal::zero()],
            $also->id => [$ribbon->id => BigDecimal::of(40)],
            $loses->id => [$jar->id => BigDecimal::zero()],
        ]);
        self::assertIsArray($orders);
        self::assertCount(2, $orders);
        $lines = [];
        foreach ($orders as $order) {
            self::assertInstanceOf(PurchaseOrder::class, $order);
            self::assertSame($round->wantedOn()->format('Y-m-d'), $order->dueOn()->format('Y-m-d'));
            $lines[] = array_map(
                static fn (OrderLine $line): array => [
                    $line->description,
                    (string) $line->packs(),
                    (string) $line->price()->strippedOfTrailingZeros(),
                ],
                $order->lines(),
            );
        }
        self::assertSame(
            [
                [['Test item RND-18', '576', '0.7'], ['Charges as quoted', '1', '20']],
                [['Satin ribbon for Gift ribbon', '40', '2.4']],
            ],
            $lines,
        );
        self::assertTrue($round->isSettled());
        self::assertSame(
            [QuoteState::Won, QuoteState::Won, QuoteState::Lost, QuoteState::Lost],
            array_map(static fn (Quote $quote): QuoteState => $quote->state(), $round->quotes()),
        );
        self::assertCount(3, self::subjects($loses), 'asked, answered, told');
        self::assertCount(1, self::subjects($silent), 'who never answered is not told');
        self::mustRefuse(
            static fn () => $round->invite($loses->supplier),
            $round->number.' was settled on 23 Nov, ',
        );
        self::mustRefuse(static fn () => $loses->decline('late'), 'comes too late to count');
        self::mustRefuse(static fn () => $wins->become(QuoteState::Lost), 'is won and cannot become lost');
        self::mustRefuse(
            static fn () => self::award($round, [$wins->id => [$jar->id => BigDecimal::one()]]),
            $round->number.' is settled already.',
        );
    }

    public function testAnAnswerAfterTheAwardComesTooLate(): void
    {
        $round = self::out(self::item('RND-29'), [self::supplier()], '10');
        [$quote] = $round->quotes();
        self::quotes($quote, $round->items()[0], [['10', '1']]);
        self::award($round, [$quote->id => [$round->items()[0]->id => BigDecimal::of(10)]]);
        self::mustRefuse(
            static fn () => self::quotes($quote, $round->items()[0], [['10', '0.10']]),
            'comes too late to count',
        );
        self::assertCount(1, $quote->answers());
    }

    /** @return \Generator<string, array{array{most?: string, multiple?: string}|null, string, string}> */
    public static function refusedAwards(): \Generator
    {
        yield 'nothing given' => [[], '0', 'Nothing has been given to anybody yet; type a quantity under a supplier.'];
        yield 'no answer' => [null, '10', 'Testing Supplies has not answered; nothing can be awarded to it.'];
        yield 'more than it has' => [
            ['most' => '60'],
            '61',
            'Testing Supplies can supply at most 60 of Test item RND-19; 61 were given to it.',
        ];
        yield 'between its steps' => [
            ['multiple' => '48'],
            '50',
            'Testing Supplies sells Test item RND-19 in steps of 48; 50 is not one.',
        ];
    }

    /** @param array{most?: string, multiple?: string}|null $limits null where it did not answer */
    #[DataProvider('refusedAwards')]
    public function testWhatCannotBeAwardedIsRefusedAndSettlesNothing(
        ?array $limits,
        string $units,
        string $words,
    ): void {
        $round = self::out(self::item('RND-19'), [self::supplier()], '48');
        [$item] = $round->items();
        [$quote] = $round->quotes();
        if (null !== $limits) {
            self::quotes($quote, $item, [['48', '1']], $limits['most'] ?? null, $limits['multiple'] ?? null);
        }
        self::mustRefuse(
            static fn () => self::award($round, [$quote->id => [$item->id => BigDecimal::of($units)]]),
            $words,
        );
        self::assertFalse($round->isSettled());
    }

    public function testWhatASupplierDidNotQuoteIsNotAwardedToIt(): void
    {
        $round = self::drafted(self::item('RND-20'), [self::supplier()], '48');
        $ribbon = $round->ask(null, 'Gift ribbon', self::units(40));
        self::entities()->flush();
        self::get(SendRound::class)->send($round->id, $round->version(), self::person('mara'));
        [$quote] = $round->quotes();
        self::quotes($quote, $round->items()[0], [['48', '1']]);
        self::mustRefuse(
            static fn () => self::award($round, [$quote->id => [$ribbon->id => BigDecimal::of(40)]]),
            'Testing Supplies did not quote Gift ribbon.',
        );
    }

    public function testADraftIsNotAwarded(): void
    {
        $round = self::drafted(self::item('RND-21'), [self::supplier()], '48');
        self::mustRefuse(static fn () => self::award($round, []), $round->number.' is not out yet.');
    }

    public function testWonPricesAreKeptAsAnOfferForSingleUnits(): void
    {
        $item = self::item('RND-22');
        $supplier = self::supplier();
        $case = self::offer($item, '9', 12, $supplier);
        $case->promise(7, 3, null);
        $round = self::out($item, [$supplier], '100', '500');
        [$asked] = $round->items();
        [$quote] = $round->quotes();
        self::quotes($quote, $asked, [['100', '0.70'], ['500', '0.62']]);
        self::award($round, [$quote->id => [$asked->id => BigDecimal::of(100)]], true);
        self::entities()->flush();
        $offers = self::entities()->getRepository(Offer::class)->findBy(['item' => $item], ['id' => 'ASC']);
        self::assertCount(2, $offers);
        [, $kept] = $offers;
        self::assertSame(
            ['each', 'THEIRS-RND-22', '100=0.7 500=0.62', 9, 3],
            [$kept->packName, $kept->supplierCode(), $kept->listPrices()->label(), $kept->leadDays(), $kept->rank()],
        );
        self::assertSame(self::day('+40 days')->format('Y-m-d'), $kept->validUntil()?->format('Y-m-d'));
        // Won again: the offer it made is priced anew, not made twice.
        $again = self::out($item, [$supplier], '100');
        [$quote] = $again->quotes();
        self::quotes($quote, $again->items()[0], [['100', '0.65']], code: 'NEW-1');
        self::award($again, [$quote->id => [$again->items()[0]->id => BigDecimal::of(100)]], true);
        self::entities()->flush();
        self::entities()->clear();
        $offers = self::entities()->getRepository(Offer::class)->findBy(['item' => $item->id], ['id' => 'ASC']);
        self::assertCount(2, $offers);
        self::assertSame('100=0.65', $offers[1]->listPrices()->label());
    }

    public function testAnAwardNotKeptLeavesTheOffersAlone(): void
    {
        $item = self::item('RND-23');
        $round = self::out($item, [self::supplier()], '100');
        [$quote] = $round->quotes();
        self::quotes($quote, $round->items()[0], [['100', '0.70']]);
        self::award($round, [$quote->id => [$round->items()[0]->id => BigDecimal::of(100)]]);
        self::entities()->flush();
        self::assertSame([], self::entities()->getRepository(Offer::class)->findBy(['item' => $item]));
    }

    public function testWhoHasNotAnsweredIsRemindedOnceADay(): void
    {
        $round = self::out(self::item('RND-24'), [self::supplier(), self::supplier(), self::supplier()], '100');
        [$answered, $declined, $silent] = $round->quotes();
        self::quotes($answered, $round->items()[0], [['100', '0.70']]);
        self::get(AnswerQuote::class)->decline($declined, '');
        $remind = static fn (): int => self::get(RemindSuppliers::class)->remind($round->id, self::person('mara'));
        self::assertSame(1, $remind());
        self::assertEquals(self::now(), $silent->remindedAt());
        self::assertNull($answered->remindedAt());
        self::assertSame(0, $remind(), 'once is enough');
        $silent->reminded(self::now()->modify('-1 day'));
        self::entities()->flush();
        self::assertSame(1, $remind(), 'and again tomorrow');
        self::assertCount(3, self::subjects($silent), 'asked, and reminded twice');
        $draft = self::drafted(self::item('RND-25'), [self::supplier()], '5');
        self::assertSame(0, self::get(RemindSuppliers::class)->remind($draft->id, self::person('mara')));
    }

    public function testClosingWithoutBuyingThanksWhoeverAnswered(): void
    {
        $round = self::out(self::item('RND-26'), [self::supplier(), self::supplier(), self::supplier()], '100');
        [$answered, $declined, $silent] = $round->quotes();
        self::quotes($answered, $round->items()[0], [['100', '0.70']]);
        self::get(AnswerQuote::class)->decline($declined, '');
        self::get(CloseRound::class)->close($round->id, $round->version(), self::person('mara'));
        self::assertTrue($round->isSettled());
        self::assertSame(
            [QuoteState::Lost, QuoteState::Declined, QuoteState::Lost],
            [$answered->state(), $declined->state(), $silent->state()],
        );
        self::assertSame([3, 2, 1], [
            count(self::subjects($answered)),
            count(self::subjects($declined)),
            count(self::subjects($silent)),
        ]);
        self::mustRefuse(
            static fn () => self::get(CloseRound::class)->close($round->id, $round->version(), self::person('mara')),
            'nothing more can be changed',
        );
    }

    public function testAWithdrawnLinkIsAnotherOneFromThenOn(): void
    {
        $round = self::out(self::item('RND-27'), [self::supplier()], '100');
        [$quote] = $round->quotes();
        $before = $quote->token();
        self::get(WithdrawLink::class)->ofQuote($quote, self::person('mara'));
        self::assertNotSame($before, $quote->token());
        self::assertMatchesRegularExpression('/^[0-9a-f]{32}$/', $quote->token());
        self::assertContains(
            'The link of Testing Supplies was withdrawn',
            self::connection()->fetchFirstColumn('SELECT words FROM audit_entry WHERE subject = ?', [$round->number]),
        );
    }

    /** What stands beside the offers of an item: of rounds that are out, each supplier's answer that stands. */
    public function testWhatIsAskedForAnItemAndAnsweredSoFar(): void
    {
        $item = self::item('RND-30');
        $round = self::out($item, [self::supplier(), self::supplier('USD'), self::supplier()], '100', '500');
        self::drafted($item, [self::supplier()], '7');
        [$twice, $declined, $silent] = $round->quotes();
        self::quotes($twice, $round->items()[0], [['100', '0.80']]);
        self::quotes($twice, $round->items()[0], [['100', '0.70'], ['500', '0.62']]);
        self::quotes($declined, $round->items()[0], [['100', '0.10']]);
        self::get(AnswerQuote::class)->decline($declined, '');
        $open = static function () use ($item): array {
            $trip = new OneTrip();
            OpenQuote::ask($trip, $item);

            return OpenQuote::in($trip->answers(self::connection()));
        };
        self::assertSame(
            [
                [$round->number, '2026-11-27', 'Testing Supplies', 'EUR', QuoteState::Answered, '100=0.7 500=0.62', 9],
                [$round->number, '2026-11-27', 'Testing Supplies', 'USD', QuoteState::Declined, null, null],
                [$round->number, '2026-11-27', 'Testing Supplies', 'EUR', QuoteState::Asked, null, null],
            ],
            array_map(static fn (OpenQuote $one): array => [
                $one->round,
                $one->replyBy->format('Y-m-d'),
                $one->supplier,
                $one->currency,
                $one->state,
                $one->prices?->label(),
                $one->leadDays,
            ], $open()),
        );
        self::assertEquals($silent->askedAt(), $open()[2]->askedAt);
        self::get(CloseRound::class)->close($round->id, $round->version(), self::person('mara'));
        self::assertSame([], $open(), 'it is settled');
    }

    public function testALinkIsOpenedForTheFirstTimeOnce(): void
    {
        $round = self::out(self::item('RND-28'), [self::supplier()], '100');
        [$quote] = $round->quotes();
        self::assertNull($quote->openedAt());
        $quote->opened(self::now());
        $quote->opened(self::now()->modify('+1 hour'));
        self::assertEquals(self::now(), $quote->openedAt());
    }
}
