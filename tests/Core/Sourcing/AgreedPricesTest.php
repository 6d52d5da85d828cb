<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Core\Sourcing;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use TallBarrel\Core\InvalidValue;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Sourcing\AgreedKind;
use TallBarrel\Core\Sourcing\AgreedPrice;
use TallBarrel\Core\Sourcing\AgreedPrices;
use TallBarrel\Core\Sourcing\AgreedScope;
use TallBarrel\Core\Sourcing\BreakBasis;
use TallBarrel\Core\Sourcing\BreakKind;
use TallBarrel\Core\Sourcing\PriceBreaks;

/** What was agreed beyond single offers; all figures worked by hand. */
final class AgreedPricesTest extends TestCase
{
    private const MOOR = 3;
    private const JAR = 7;

    /** Every scope there is, the most particular first. */
    private const PARTICULAR = [
        'their jar' => [self::MOOR, '', self::JAR, ''],
        'their glass' => [self::MOOR, '', null, 'Glass'],
        'all of theirs' => [self::MOOR, '', null, ''],
        'the jar in the north' => [null, 'North', self::JAR, ''],
        'glass in the north' => [null, 'North', null, 'Glass'],
        'everything in the north' => [null, 'North', null, ''],
        'the jar' => [null, '', self::JAR, ''],
        'glass' => [null, '', null, 'Glass'],
        'everything' => [null, '', null, ''],
    ];

    public function testTheMostParticularHoldsAloneWhateverElseWasAgreed(): void
    {
        $agreed = [];
        foreach (self::PARTICULAR as $name => $scope) {
            $agreed[] = self::discount('5', AgreedScope::of(...$scope), name: $name);
        }
        while ([] !== $agreed) {
            $holds = AgreedPrices::of(array_reverse($agreed))
                ->holdingFor(self::MOOR, 'north', self::JAR, 'GLASS', 'EUR');

            self::assertSame(array_shift($agreed)->name, $holds?->name);
        }
        self::assertNull(AgreedPrices::of([])->holdingFor(self::MOOR, 'north', self::JAR, 'glass', 'EUR'));
    }

    public function testOthersAreLeftAlone(): void
    {
        $agreed = AgreedPrices::of([
            self::discount('5', AgreedScope::of(null, ' north  Sea', null, 'glass')),
            self::discount('6', AgreedScope::of(null, '3', null, '')),
        ]);

        self::assertNotNull($agreed->holdingFor(1, 'North sea', 1, 'Glass', 'EUR'));
        self::assertNull($agreed->holdingFor(1, 'north', 1, 'glass', 'EUR'));
        self::assertNull($agreed->holdingFor(1, 'north sea', 1, 'wax', 'EUR'));
        // A group may be called like the number of a supplier.
        self::assertNull($agreed->holdingFor(self::MOOR, '', 1, '', 'EUR'));
        self::assertNotNull($agreed->holdingFor(1, '3', 1, '', 'EUR'));
    }

    public function testWhatIsInAnotherCurrencyIsPassedOver(): void
    {
        $all = AgreedScope::of(null, '', self::JAR, '');
        $agreed = AgreedPrices::of([
            self::price('1.10', AgreedScope::of(null, 'north', self::JAR, ''), 'GBP'),
            self::price('1.30', $all, 'EUR'),
            self::price('1.40', $all, 'EUR'),
        ]);

        self::assertSame('1.3 EUR', $agreed->holdingFor(self::MOOR, 'north', self::JAR, '', 'EUR')?->label());
        self::assertSame('1.1 GBP', $agreed->holdingFor(self::MOOR, 'north', self::JAR, '', 'GBP')?->label());
        self::assertNull($agreed->holdingFor(self::MOOR, '', self::JAR, '', 'GBP'));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function discounts(): iterable
    {
        yield 'on one price' => ['5', '10', '9.5'];
        yield 'on every break' => ['5', '1=10 40=8', '1=9.5 40=7.6'];
        // 12 in a pack: 100 units are 8.333334 packs.
        yield 'from so many units' => ['100=10', '1=10 40=8', '1=10 8.333334=9 40=7.2'];
        yield 'in steps beside breaks' => ['1=5 480=10', '1=10 40=8', '1=9.5 40=7.2'];
        yield 'rounded to six decimals' => ['33.3333', '0.01', '0.006667'];
    }

    #[DataProvider('discounts')]
    public function testADiscountIsTakenOffWhatTheOfferAsks(string $agreed, string $asked, string $then): void
    {
        $prices = self::discount($agreed)->on(PriceBreaks::read($asked), BigDecimal::of(12));

        self::assertSame($then, $prices->label());
    }

    public function testByValueCountsAtTheFirstPrice(): void
    {
        $agreed = self::discount('300=10', basis: BreakBasis::Value, currency: 'EUR');
        $prices = $agreed->on(PriceBreaks::read('1=10 20=9'), BigDecimal::of(12));

        self::assertSame('1=10 20=9 30=8.1', $prices->label());
    }

    public function testBreaksThatLowerWhatGoesBeyondGoOnDoingSo(): void
    {
        $prices = self::discount('240=10')->on(
            PriceBreaks::read('1=10 10=8', BreakKind::Incremental),
            BigDecimal::of(12),
        );

        self::assertSame(BreakKind::Incremental, $prices->kind);
        // 10 at 10.00, 10 at 8.00, 5 at 7.20.
        self::assertSame('216.00', (string) $prices->costOf(25)->toScale(2));
    }

    public function testAnAgreedPriceHoldsWhateverIsAskedButOnlyFromWhereItBegins(): void
    {
        $asked = PriceBreaks::read('1=10 40=8');
        $content = BigDecimal::of(12);

        self::assertSame('13.2', self::price('1.10')->on($asked, $content)->label());
        self::assertSame('1=13.2 10=12', self::price('1=1.10 120=1.00')->on($asked, $content)->label());
        self::assertSame('1=10 40=8 50=7.2', self::price('600=0.60')->on($asked, $content)->label());
        // Dearer than what is asked anyway: nobody pays more for buying more.
        self::assertSame('1=10 40=8', self::price('600=0.70')->on($asked, $content)->label());
    }

    public function testTheAskedPriceIsFoundBackFromWhatIsPaid(): void
    {
        $agreed = self::discount('1=5 480=10');
        $asked = PriceBreaks::read('1=10 40=8');
        $content = BigDecimal::of(12);
        foreach (['1', '39', '40', '41'] as $packs) {
            $paid = $agreed->on($asked, $content)->priceFor($packs);

            self::assertTrue(
                $asked->priceFor($packs)->isEqualTo($agreed->before($paid, BigDecimal::of($packs), $asked, $content)),
            );
        }
        $from = self::discount('480=10');
        self::assertFalse($from->isReached(BigDecimal::of(39), $asked, $content));
        self::assertTrue($from->isReached(BigDecimal::of(40), $asked, $content));
        self::assertSame('9', (string) $from->before(BigDecimal::of(9), BigDecimal::of(39), $asked, $content));

        $this->expectExceptionObject(
            InvalidValue::because('The price was agreed as “Ours”; change it there, the offer does not decide it.'),
        );
        self::price('1.10')->before(BigDecimal::of(1), BigDecimal::of(1), $asked, $content);
    }

    public function testItIsSaidAsItWasAgreed(): void
    {
        self::assertSame('5 %, 7.5 % from 100', self::discount('1=5 100=7.5')->label());
        self::assertSame(
            '10 % from 300 EUR',
            self::discount('300=10%', basis: BreakBasis::Value, currency: 'EUR')->label(),
        );
        self::assertSame(
            '7.5 %',
            AgreedPrice::read(
                1, AgreedScope::of(null, '', null, ''), AgreedKind::Discount, BreakBasis::Quantity, '', '7,5', '',
                Numerals::with(Numerals::COMMA),
            )->label(),
        );
    }

    /** @return iterable<string, array{\Closure(): mixed, string}> */
    public static function refusals(): iterable
    {
        $all = AgreedScope::of(null, '', null, '');
        yield 'a price for everything' => [
            static fn () => self::price('1', $all),
            'A price can be agreed for one item only; for several, agree on a discount.',
        ];
        yield 'a price without currency' => [
            static fn () => self::price('1', currency: ''),
            'Say in which currency: a price, or what is counted by value, has one.',
        ];
        yield 'by value without currency' => [
            static fn () => self::discount('5', basis: BreakBasis::Value),
            'Say in which currency: a price, or what is counted by value, has one.',
        ];
        yield 'nothing' => [
            static fn () => self::discount(' '),
            'Say what was agreed: 5, or 1=5 100=7.5 for steps.',
        ];
        yield 'words' => [
            static fn () => self::discount('five'),
            '“five” is no price or percentage; expected 5, or 1=5 100=7.5 for steps.',
        ];
        yield 'all of it' => [
            static fn () => self::discount('100'),
            'A discount of 100 % leaves nothing to pay; expected below 100.',
        ];
        yield 'none of it' => [
            static fn () => self::discount('1=0 10=5'),
            '0 was agreed from 1 on; expected above 0.',
        ];
        yield 'two at one place' => [
            static fn () => self::discount('10=5 10=6'),
            'Two steps both start at 10.',
        ];
        yield 'less for more' => [
            static fn () => self::discount('1=5 10=4'),
            'From 10 on it is 4 after 5; more must not cost more.',
        ];
        yield 'dearer for more' => [
            static fn () => self::price('1=1.10 10=1.20'),
            'From 10 on it is 1.2 after 1.1; more must not cost more.',
        ];
        yield 'for one and for a group' => [
            static fn () => AgreedScope::of(1, 'north', null, ''),
            'It is for one or for a group, not for both.',
        ];
        yield 'on one and on a group' => [
            static fn () => AgreedScope::of(null, '', 1, 'glass'),
            'It is for one or for a group, not for both.',
        ];
    }

    /** @param \Closure(): mixed $agree */
    #[DataProvider('refusals')]
    public function testWhatCannotBeMeantIsRefused(\Closure $agree, string $message): void
    {
        $this->expectExceptionObject(InvalidValue::because($message));

        $agree();
    }

    private static function discount(
        string $typed,
        ?AgreedScope $scope = null,
        BreakBasis $basis = BreakBasis::Quantity,
        string $currency = '',
        string $name = 'Ours',
    ): AgreedPrice {
        $scope ??= AgreedScope::of(null, '', null, '');

        return AgreedPrice::read(1, $scope, AgreedKind::Discount, $basis, $currency, $typed, $name);
    }

    private static function price(string $typed, ?AgreedScope $scope = null, string $currency = 'EUR'): AgreedPrice
    {
        $scope ??= AgreedScope::of(null, '', self::JAR, '');

        return AgreedPrice::read(1, $scope, AgreedKind::Price, BreakBasis::Quantity, $currency, $typed, 'Ours');
    }
}
