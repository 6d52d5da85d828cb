<?php

declare(strict_types=1);

namespace TallBarrel\Tests\Store;

use Brick\Math\BigDecimal;
use PHPUnit\Framework\Attributes\DataProvider;
use TallBarrel\Core\Money\PaymentTerms;
use TallBarrel\Core\Money\Tax;
use TallBarrel\Core\Quantity\BuyingRule;
use TallBarrel\Core\Quantity\Numerals;
use TallBarrel\Core\Quantity\Pack;
use TallBarrel\Core\Quantity\Unit;
use TallBarrel\Core\Receiving\InspectionRule;
use TallBarrel\Core\Receiving\LotDetails;
use TallBarrel\Core\Sourcing\FreightTariff;
use TallBarrel\Store\Agreement\Agreement;
use TallBarrel\Store\Business\OwnField;
use TallBarrel\Store\Business\OwnFieldKind;
use TallBarrel\Store\Business\OwnFieldThing;
use TallBarrel\Store\Item\Item;
use TallBarrel\Store\Site\Bin;
use TallBarrel\Store\Site\Site;
use TallBarrel\Store\Supplier\Address;
use TallBarrel\Store\Supplier\Freight;
use TallBarrel\Store\Supplier\Supplier;
use TallBarrel\Store\Supplier\UnseenChange;

/** Things that are kept refuse what they cannot be, in words that name it, and stay as they were. */
final class GuardsTest extends StoreTestCase
{
    private static int $number = 0;

    private static function thing(Unit $unit = Unit::Each): Item
    {
        return new Item('GRD-'.++self::$number, 'Guarded', 'Tests', $unit);
    }

    private static function seller(string $name = 'Guarded Supplies'): Supplier
    {
        return new Supplier('GRD'.++self::$number, $name, 'EUR');
    }

    /** @return \Generator<string, array{string, string}> */
    public static function serviceLevels(): \Generator
    {
        yield 'a half' => ['0.5', ''];
        yield 'nearly all' => ['0.999', ''];
        yield 'less than a half' => ['0.499', 'A service level of 0.499 is out of range; expected 0.5 to 0.999.'];
        yield 'all' => ['1', 'A service level of 1 is out of range; expected 0.5 to 0.999.'];
        yield 'percent' => ['95', 'A service level of 95 is out of range; expected 0.5 to 0.999.'];
    }

    #[DataProvider('serviceLevels')]
    public function testAServiceLevelLiesBetweenAHalfAndNearlyAll(string $level, string $words): void
    {
        $item = self::thing();
        $aim = static fn () => $item->aimAt(BigDecimal::of($level));
        if ('' !== $words) {
            self::mustRefuse($aim, $words);
            self::assertNull($item->service());

            return;
        }
        $aim();
        self::assertSame($level, (string) $item->service());
        $item->aimAt(null);
        self::assertNull($item->service(), 'that of its class');
    }

    public function testAnItemRefusesWhatItCannotBe(): void
    {
        $item = self::thing();
        self::mustRefuse(static fn () => $item->describe('  ', 'Jars'), 'An item needs a name.');
        self::mustRefuse(static fn () => $item->keep(true, 0), 'A shelf life of 0 days is none; expected 1 or more.');
        self::mustRefuse(static fn () => $item->takesUp(BigDecimal::of('-0.1')), 'A volume of -0.1 litres is none');
        self::mustRefuse(
            static fn () => $item->sellLike($item, null),
            $item->code.' cannot be expected to sell like itself.',
        );
        $other = self::thing();
        foreach (['0', '-1', '100.01'] as $factor) {
            self::mustRefuse(
                static fn () => $item->sellLike($other, BigDecimal::of($factor)),
                sprintf('“%s times as much” makes no sense; expected above 0 and up to 100.', $factor),
            );
        }
        self::assertNull($item->sellsLike());
        $item->sellLike($other, null);
        self::assertSame([$other, '1'], [$item->sellsLike(), (string) $item->likeFactor()], 'as much as the other');
        $item->sellLike(null, BigDecimal::of(3));
        self::assertNull($item->likeFactor(), 'as much as nothing');
        $item->keep(true, 1);
        self::assertSame(1, $item->shelfDays());
    }

    public function testWhatCanBeDividedHasNoSerialNumbers(): void
    {
        $wax = self::thing(Unit::Kilogram);
        self::mustRefuse(
            static fn () => $wax->isReceived(LotDetails::cases()[0], true, InspectionRule::cases()[0], ''),
            'What is counted in kg has no serial numbers; single pieces have.',
        );
        $wax->isReceived(LotDetails::cases()[0], false, InspectionRule::cases()[0], '2.5');
        $smoker = self::thing();
        $smoker->isReceived(LotDetails::cases()[0], true, InspectionRule::cases()[0], '2.5');
        self::assertTrue($smoker->hasSerials());
        self::assertFalse($wax->hasSerials());
    }

    /** @return \Generator<string, array{string, string|null}> */
    public static function customsNumbers(): \Generator
    {
        yield 'none' => ['', ''];
        yield 'with blanks and points' => ['0409 00.00', '04090000'];
        yield 'six digits' => ['040900', '040900'];
        yield 'fourteen digits' => ['04090000001234', '04090000001234'];
        yield 'five digits' => ['04090', null];
        yield 'fifteen digits' => ['040900000012345', null];
        yield 'letters' => ['0409 00 0O', null];
    }

    #[DataProvider('customsNumbers')]
    public function testACustomsNumberIsSixToFourteenDigits(string $typed, ?string $kept): void
    {
        if (null === $kept) {
            self::mustRefuse(
                static fn () => Item::readCustomsNumber($typed),
                sprintf('“%s” is no customs number; expected 6 to 14 digits, such as 0409 00 00.', $typed),
            );

            return;
        }
        self::assertSame($kept, Item::readCustomsNumber($typed));
    }

    /** @return \Generator<string, array{string, string, string, string}> */
    public static function origins(): \Generator
    {
        yield 'a country in words' => [
            'Ireland', '', '0', '“Ireland” is not a country code; expected two letters such as IE.',
        ];
        yield 'one letter' => ['I', '', '0', '“I” is not a country code'];
        yield 'five digits' => [
            'IE', '04090', '0', '“04090” is not a customs tariff number; expected 4, 6, 8 or 10 digits.',
        ];
        yield 'twelve digits' => ['IE', '040900001234', '0', 'is not a customs tariff number'];
        yield 'a duty below nothing' => ['IE', '0409', '-1', 'A duty of -1 % is out of range; expected 0 to 200.'];
        yield 'a duty beyond all' => ['IE', '0409', '200.5', 'A duty of 200.5 % is out of range; expected 0 to 200.'];
    }

    #[DataProvider('origins')]
    public function testAnOfferRefusesAnOriginThatIsNone(
        string $origin,
        string $tariff,
        string $duty,
        string $words,
    ): void {
        $offer = self::offer(self::item('GRD-O'.++self::$number), '10');
        self::mustRefuse(static fn () => $offer->comesFrom($origin, $tariff, BigDecimal::of($duty)), $words);
        self::assertSame(['', '', '0'], [$offer->origin(), $offer->tariffNumber(), (string) $offer->dutyPercent()]);
        $offer->comesFrom('ie', '0409.00 00', BigDecimal::of(200));
        self::assertSame(
            ['IE', '04090000', '200'],
            [$offer->origin(), $offer->tariffNumber(), (string) $offer->dutyPercent()],
        );
    }

    public function testGoodsAreTheirsForNoLongerThanTenYears(): void
    {
        $offer = self::offer(self::item('GRD-O'.++self::$number), '10');
        foreach ([-1, 3651] as $days) {
            self::mustRefuse(
                static fn () => $offer->consign(true, $days),
                sprintf('Theirs for %d days is out of range; expected 0 to 3650.', $days),
            );
        }
        self::assertFalse($offer->isConsigned());
        $offer->consign(true, 3650);
        self::assertTrue($offer->isConsigned());
    }

    public function testAnOfferIsSoldByItsRule(): void
    {
        $offer = self::offer(self::item('GRD-O'.++self::$number), '10');
        $offer->sellBy(BuyingRule::of(Pack::of('case', 6), 4, 2, false));
        self::assertSame('4', (string) $offer->rule()->packsFor(1));
        self::assertSame('6', (string) $offer->rule()->packsFor(25), '5 cases, in steps of 2');
        self::assertSame('6', (string) $offer->rule()->pack->content);
        $offer->sellBy(BuyingRule::of(Pack::of('case', 6), 1, 1, true));
        self::assertSame('4.167', (string) $offer->rule()->packsFor(25), 'they open cases');
    }

    private static function agreement(?Item $item, string $category = ''): Agreement
    {
        return new Agreement('A-GRD'.++self::$number, self::seller(), $item, $category);
    }

    /** @return \Generator<string, array{string, string, string|null, string, bool, string}> */
    public static function promises(): \Generator
    {
        yield 'a measure of its own' => [
            'weight', '100', null, '0', true, '“weight” is no measure; expected quantity or value.',
        ];
        yield 'nothing' => [
            'quantity', '0', null, '0', true, 'An agreement on 0 promises nothing; expected more than 0.',
        ];
        yield 'less than nothing' => ['value', '-5', null, '0', true, 'An agreement on -5 promises nothing'];
        yield 'a quantity of many' => [
            'quantity', '100', null, '0', false,
            'A quantity can be promised of one item only; promise a value for a category.',
        ];
        yield 'a price for many' => [
            'value', '100', '0.8', '0', false,
            'A price can be agreed for one item only; a category keeps the prices of its offers.',
        ];
        yield 'a tolerance below nothing' => [
            'quantity', '100', null, '-1', true, 'A tolerance of -1 % is out of range; expected 0 to 100.',
        ];
        yield 'a tolerance beyond all' => [
            'quantity', '100', null, '101', true, 'A tolerance of 101 % is out of range; expected 0 to 100.',
        ];
    }

    #[DataProvider('promises')]
    public function testAnAgreementPromisesSomethingThatCanBe(
        string $measure,
        string $promised,
        ?string $price,
        string $tolerance,
        bool $ofOne,
        string $words,
    ): void {
        $agreement = self::agreement($ofOne ? self::thing() : null, $ofOne ? '' : 'Jars');
        self::mustRefuse(
            static fn () => $agreement->promise(
                $measure,
                BigDecimal::of($promised),
                null === $price ? null : BigDecimal::of($price),
                null,
                BigDecimal::of($tolerance),
            ),
            $words,
        );
        self::assertSame('0', (string) $agreement->promised());
    }

    public function testAnAgreementCoversItsItemItsCategoryOrEverything(): void
    {
        [$jar, $lid] = [self::thing(), self::thing()];
        $lid->describe('Lid', 'Lids');
        self::assertSame([true, false], [self::agreement($jar)->covers($jar), self::agreement($jar)->covers($lid)]);
        $lids = self::agreement(null, 'Lids');
        self::assertSame([false, true], [$lids->covers($jar), $lids->covers($lid)]);
        $all = self::agreement(null);
        self::assertSame([true, true], [$all->covers($jar), $all->covers($lid)]);
        self::assertSame(
            ['Guarded', 'Lids', 'everything'],
            [self::agreement($jar)->subject(), $lids->subject(), $all->subject()],
        );
        $lids->promise(Agreement::VALUE, BigDecimal::of(100), null, null, BigDecimal::zero());
        self::assertSame('EUR', $lids->unit());
        $jars = self::agreement($jar);
        $jars->promise(Agreement::QUANTITY, BigDecimal::of(100), BigDecimal::of('0.8'), null, BigDecimal::of(100));
        self::assertSame('pcs', $jars->unit());
    }

    public function testAnAgreementHoldsOnItsFirstAndLastDayAndNotOnceItIsEnded(): void
    {
        $agreement = self::agreement(self::thing());
        $day = static fn (string $day): \DateTimeImmutable => new \DateTimeImmutable($day);
        self::mustRefuse(
            static fn () => $agreement->hold($day('2026-12-31'), $day('2026-12-30'), ''),
            'It would end on 30 Dec 2026, before it begins on 31 Dec 2026.',
        );
        $agreement->hold($day('2026-12-01'), $day('2026-12-31'), ' in May ');
        self::assertSame(
            [false, true, true, false],
            array_map(
                static fn (string $one): bool => $agreement->isInForce($day($one)),
                ['2026-11-30 23:59', '2026-12-01 00:00', '2026-12-31 23:59', '2027-01-01'],
            ),
        );
        $agreement->end();
        self::assertFalse($agreement->isInForce($day('2026-12-15')));
        $oneDay = self::agreement(self::thing());
        $oneDay->hold($day('2026-12-01'), $day('2026-12-01'), '');
        self::assertTrue($oneDay->isInForce($day('2026-12-01')));
    }

    public function testASupplierRefusesWhatItCannotBe(): void
    {
        $supplier = self::seller();
        self::mustRefuse(static fn () => $supplier->rename(' '), 'A supplier needs a name.');
        self::mustRefuse(static fn () => $supplier->tradeIn('EURO'), 'EURO');
        self::mustRefuse(
            static fn () => $supplier->moveTo('Lane 1', '1', 'Town', 'Eire'),
            '“Eire” is not a country code; expected two letters such as IE.',
        );
        self::mustRefuse(
            static fn () => $supplier->reckonsFreight('by moon'),
            '“by moon” is no way of reckoning freight; expected none, flat, weight or pallet.',
        );
        self::mustRefuse(
            static fn () => $supplier->reckonsFreight(FreightTariff::PALLET),
            'Freight by the pallet needs the kilograms that fill one.',
        );
        self::mustRefuse(
            static fn () => $supplier->reckonsFreight(FreightTariff::PALLET, '', BigDecimal::zero()),
            'Freight by the pallet needs the kilograms that fill one.',
        );
        self::mustRefuse(
            static fn () => $supplier->reckonsFreight(FreightTariff::WEIGHT, '5=9'),
            'Freight by weight needs a first step from 0 kg',
        );
        self::mustRefuse(
            static fn () => $supplier->deliversAs('FREE House', Tax::percent('23')),
            '“FREE” is no rule of Incoterms 2020',
        );
        self::mustRefuse(
            static fn () => $supplier->mayAsk(BigDecimal::of(21), null),
            'A tolerance of 21 %; expected 0 to 20.',
        );
        self::assertSame('Guarded Supplies', $supplier->name());
        self::assertSame(FreightTariff::FLAT, $supplier->freightKind());
        self::assertSame('', $supplier->deliveryTerms());
    }

    /** @return \Generator<string, array{string, string, string|null, float, float}> */
    public static function freights(): \Generator
    {
        yield 'none' => [FreightTariff::NONE, '', null, 0.0, 0.0];
        yield 'flat' => [FreightTariff::FLAT, '', null, 40.0, 0.0];
        yield 'by weight' => [FreightTariff::WEIGHT, '0=9 30=18 100=45', null, 18.0, 0.0];
        yield 'by pallet' => [FreightTariff::PALLET, '', '40', 80.0, 0.0];
    }

    /** 60 kg: two pallets of 40 kg, or the step from 30 kg; nothing from 500 on. */
    #[DataProvider('freights')]
    public function testFreightIsReckonedAsTheSupplierDoes(
        string $kind,
        string $steps,
        ?string $palletKg,
        float $cost,
        float $free,
    ): void {
        $supplier = self::seller();
        $supplier->reckonsFreight($kind, $steps, null === $palletKg ? null : BigDecimal::of($palletKg));
        $supplier->ships(BigDecimal::of(40), BigDecimal::of(900));
        $supplier->asksFor(null, BigDecimal::of(500));
        $tariff = $supplier->freightTariff();
        self::assertSame($cost, $tariff->of(499.99, 60.0));
        self::assertSame($free, $tariff->of(500.0, 60.0));
        self::assertEquals(
            $tariff,
            Freight::tariffOf($kind, 40.0, $steps, null === $palletKg ? null : (float) $palletKg, 500.0),
            'as it is read from a row',
        );
        self::assertSame('900', (string) $supplier->fullLoadKg());
    }

    public function testFreightThatIsFlatAndNothingIsNone(): void
    {
        self::assertSame(FreightTariff::NONE, self::seller()->freightTariff()->kind);
        self::assertSame(FreightTariff::NONE, Freight::tariffOf(FreightTariff::FLAT, null, '', null, 100.0)->kind);
    }

    /** Where orders go and who is paid stays told until somebody who approves has seen it. */
    public function testWhatWasChangedOfWhereMoneyGoesIsToldUntilSomebodyHasSeenIt(): void
    {
        $supplier = self::seller();
        $factor = self::seller('Factoring House');
        $supplier->agreeTerms(PaymentTerms::net(30));
        self::assertSame([], $supplier->unseen(), 'the first terms are no change');
        $supplier->agreeTerms(PaymentTerms::net(7));
        $supplier->isPaidThrough($factor);
        $words = array_map(static fn (UnseenChange $one): string => $one->words(), $supplier->unseen());
        self::assertCount(2, $words);
        self::assertStringContainsString('“Factoring House” now, “Guarded Supplies” before', implode("\n", $words));
        $supplier->agreeTerms(PaymentTerms::net(30));
        self::assertCount(1, $supplier->unseen(), 'as it was before: nothing to tell');
        $supplier->agreeTerms(PaymentTerms::net(7));
        $supplier->agreeTerms(PaymentTerms::net(14));
        $terms = $supplier->unseen()[1] ?? self::fail('The terms changed.');
        self::assertSame(
            [PaymentTerms::net(30)->label(), PaymentTerms::net(14)->label()],
            [$terms->was, $terms->is],
            'what was seen last, and what holds',
        );
        $supplier->seen();
        self::assertSame([], $supplier->unseen());
        self::mustRefuse(
            static fn () => $factor->isPaidThrough($supplier),
            'Factoring House cannot be paid through Guarded Supplies: that one is paid through it.',
        );
    }

    public function testASimilarSupplierSharesTermsAndNobodysAddress(): void
    {
        $one = self::seller();
        $one->moveTo('Lane 1', '1', 'Town', 'IE');
        $one->agreeTerms(PaymentTerms::net(45));
        $one->ships(BigDecimal::of(40), null);
        $one->takesAtLeast(BigDecimal::of(100), 3);
        $one->deliversAs('DAP Sallow Bridge', Tax::percent('23'));
        $one->takesOrders('1 3 5', '14:00');
        $two = self::seller('Similar Supplies');
        $two->beLike($one);
        self::assertSame($one->terms()?->label(), $two->terms()?->label());
        self::assertEquals(
            [$one->freightTariff(), $one->orderMinimum()],
            [$two->freightTariff(), $two->orderMinimum()],
        );
        self::assertSame(['DAP Sallow Bridge', 'Similar Supplies'], [$two->deliveryTerms(), $two->name()]);
        self::assertNull($two->addressFor(Address::ORDER));
        $two->ships(BigDecimal::of(55), null);
        self::assertSame(40.0, $one->freightTariff()->cost, 'each has its own from then on');
    }

    /** @return \Generator<string, array{OwnFieldKind, string, string|null}> */
    public static function ownValues(): \Generator
    {
        yield 'a text' => [OwnFieldKind::Text, '  S-77 ', 'S-77'];
        yield 'nothing' => [OwnFieldKind::Number, '  ', ''];
        yield 'a number' => [OwnFieldKind::Number, '1,250.50', '1250.5'];
        yield 'a number below nothing' => [OwnFieldKind::Number, '-3', '-3'];
        yield 'no number' => [OwnFieldKind::Number, 'three', null];
        yield 'a day' => [OwnFieldKind::Day, '2026-11-30', '2026-11-30'];
        yield 'no day' => [OwnFieldKind::Day, '2026-02-30', null];
        yield 'a choice' => [OwnFieldKind::Choice, 'wet', 'wet'];
        yield 'no choice' => [OwnFieldKind::Choice, 'Wet', null];
        yield 'too long' => [OwnFieldKind::Text, str_repeat('a', 201), null];
        yield 'as long as it may be' => [OwnFieldKind::Text, str_repeat('ä', 200), str_repeat('ä', 200)];
    }

    #[DataProvider('ownValues')]
    public function testAFieldOfOurOwnKeepsWhatItIsFor(OwnFieldKind $kind, string $typed, ?string $kept): void
    {
        $field = new OwnField(
            OwnFieldThing::Delivery,
            'How it came',
            $kind,
            false,
            OwnFieldKind::Choice === $kind ? ['dry', 'wet'] : [],
        );
        $read = static fn (): string => $field->read($typed, Numerals::with(Numerals::POINT));
        if (null === $kept) {
            self::mustRefuse($read, match ($kind) {
                OwnFieldKind::Text => 'How it came: at most 200 characters fit here.',
                OwnFieldKind::Choice => '“Wet” is none of the answers of “How it came”: dry, wet.',
                default => $typed,
            });

            return;
        }
        self::assertSame($kept, $read());
    }

    public function testABinHasACodeWithoutBlanks(): void
    {
        self::assertSame('A-04', Bin::read(' A-04 '));
        self::assertSame('Öst/1.2_b', Bin::read('Öst/1.2_b'));
        foreach (['', 'A 04', 'A*4', str_repeat('A', 21)] as $code) {
            self::mustRefuse(static fn () => Bin::read($code), 'is no code of a bin; expected 1 to 20 letters');
        }
        self::assertSame('NORTH-2', Site::readCode(' north-2 '));
        foreach (['', 'NÖRD', 'A/B', str_repeat('A', 21)] as $code) {
            self::mustRefuse(static fn () => Site::readCode($code), 'is no code of a site');
        }
    }
}
